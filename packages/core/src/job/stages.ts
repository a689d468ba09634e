import { FEATURE_TABLE, FEATURES, type MeasuringStage } from '../part/feature.js';

/** The groups that the stages stand in, in the order of the work. */
export const STAGE_GROUPS = ['Engine', 'Measure', 'Select', 'Check', 'Build'] as const;
export type StageGroup = (typeof STAGE_GROUPS)[number];

interface StageRow {
  readonly name: string;
  readonly group: StageGroup;
}

const MEASURING = Object.fromEntries(
  FEATURES.map((feature) => [
    FEATURE_TABLE[feature].stage,
    { name: FEATURE_TABLE[feature].stageName, group: 'Measure' },
  ]),
) as Readonly<Record<MeasuringStage, StageRow>>;

/**
 * The stages of the work in its order: what each is called, and the group it stands in. Nothing forces their order. A piece of the work is
 * a line here and a slice of that key in `slices.ts`; lists that only name stages need not load the slices.
 */
const TABLE = {
  data: { name: 'Data sheet', group: 'Engine' },
  codes: { name: 'Grade marks', group: 'Measure' },
  ...MEASURING,
  drawer: { name: 'Stock', group: 'Select' },
  choose: { name: 'Select shells', group: 'Select' },
  trial: { name: 'Trial assembly', group: 'Check' },
  runout: { name: 'Runout', group: 'Measure' },
  crush: { name: 'Crush', group: 'Check' },
  endPlay: { name: 'End play', group: 'Check' },
  assembly: { name: 'Final assembly', group: 'Build' },
  torque: { name: 'Torque', group: 'Build' },
  sheet: { name: 'Build sheet', group: 'Build' },
} as const satisfies Readonly<Record<string, StageRow>>;

export type Stage = keyof typeof TABLE;

/** The stages of the work, in order. */
export const STAGES = Object.keys(TABLE) as [Stage, ...Stage[]];

/**
 * What a stage is called.
 *
 * @example stageName('bigEnds') // 'Big ends'
 */
export function stageName(stage: Stage): string {
  return TABLE[stage].name;
}

/** The group of a stage. */
export function groupOf(stage: Stage): StageGroup {
  return TABLE[stage].group;
}
