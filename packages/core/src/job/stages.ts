import { FEATURE_TABLE, FEATURES, type MeasuringStage } from '../part/feature.js';

const MEASURING = Object.fromEntries(
  FEATURES.map((feature) => [FEATURE_TABLE[feature].stage, FEATURE_TABLE[feature].stageName]),
) as Readonly<Record<MeasuringStage, string>>;

/**
 * The stages of the work in its order, and what each is called. Nothing forces their order. A piece of the work is a line here and a slice of
 * that key in `slices.ts`; lists that only name stages need not load the slices.
 */
const TABLE = {
  data: 'Data sheet',
  codes: 'Grade marks',
  ...MEASURING,
  drawer: 'Stock',
  choose: 'Select shells',
  trial: 'Trial assembly',
  runout: 'Runout',
  crush: 'Crush',
  endPlay: 'End play',
  assembly: 'Final assembly',
  torque: 'Torque',
  sheet: 'Build sheet',
} as const;

export type Stage = keyof typeof TABLE;

/** The stages of the work, in order. */
export const STAGES = Object.keys(TABLE) as [Stage, ...Stage[]];

/**
 * What a stage is called.
 *
 * @example stageName('bigEnds') // 'Big ends'
 */
export function stageName(stage: Stage): string {
  return TABLE[stage];
}
