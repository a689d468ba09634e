import type { z } from 'zod';
import { assemblyPart } from '../assembly/assemblyPart.js';
import { buildPart } from '../build/buildPart.js';
import { cameApartPart } from '../cameApart/cameApartPart.js';
import { marksPart } from '../codes/marksPart.js';
import { crushPart } from '../crush/crushPart.js';
import { endPlayPart } from '../endPlay/endPlayPart.js';
import { piecesPart } from '../endPlay/piecesPart.js';
import { enginePart } from '../engineType/enginePart.js';
import { mainLinePart } from '../mainLine/mainLinePart.js';
import { FEATURE_TABLE, FEATURES, type MeasuringStage } from '../part/feature.js';
import { rodsPart } from '../part/rodsPart.js';
import { instrumentsPart } from '../reading/instrumentsPart.js';
import { measuringPart } from '../reading/measuringPart.js';
import { runningPart } from '../running/runningPart.js';
import { runoutPart } from '../runout/runoutPart.js';
import { selectionPart } from '../selection/selectionPart.js';
import { shellsPart } from '../selection/shellsPart.js';
import { reportPart } from '../sheet/reportPart.js';
import { sheetPart } from '../sheet/sheetPart.js';
import { stripPart } from '../strip/stripPart.js';
import { fastenersPart } from '../torque/fastenersPart.js';
import { torquePart } from '../torque/torquePart.js';
import { trialPart } from '../trial/trialPart.js';

/** The groups that the stages stand in, in the order of the work. */
export const STAGE_GROUPS = ['Engine', 'Measure', 'Select', 'Check', 'Build'] as const;
export type StageGroup = (typeof STAGE_GROUPS)[number];

interface StageRow {
  readonly name: string;
  readonly group: StageGroup;
  /** The parts of the job document that it owns. */
  readonly parts: readonly { readonly members: z.ZodRawShape; readonly since: number }[];
}

/** The measured features share one part. */
interface MeasuringRow extends StageRow {
  readonly parts: readonly [typeof measuringPart];
}

const MEASURING = Object.fromEntries(
  FEATURES.map((feature): [MeasuringStage, MeasuringRow] => [
    FEATURE_TABLE[feature].stage,
    { name: FEATURE_TABLE[feature].stageName, group: 'Measure', parts: [measuringPart] },
  ]),
) as Readonly<Record<MeasuringStage, MeasuringRow>>;

/**
 * The stages of the work in its order: what each is called, the group it stands in, and its parts of the job document. Nothing forces their
 * order. A piece of the work is a line here and a slice of that key in `slices.ts`; what only names stages, or reads documents, need not load
 * the slices.
 */
const TABLE = {
  data: { name: 'Data sheet', group: 'Engine', parts: [enginePart] },
  cameApart: { name: 'As it came apart', group: 'Engine', parts: [cameApartPart, buildPart] },
  codes: { name: 'Grade marks', group: 'Measure', parts: [marksPart] },
  ...MEASURING,
  drawer: { name: 'Stock', group: 'Select', parts: [shellsPart] },
  choose: { name: 'Select shells', group: 'Select', parts: [selectionPart, rodsPart] },
  trial: { name: 'Trial assembly', group: 'Check', parts: [trialPart, stripPart, instrumentsPart, fastenersPart] },
  mainLine: { name: 'Alignment', group: 'Measure', parts: [mainLinePart] },
  runout: { name: 'Runout', group: 'Measure', parts: [runoutPart] },
  crush: { name: 'Crush', group: 'Check', parts: [crushPart] },
  endPlay: { name: 'End play', group: 'Check', parts: [endPlayPart, piecesPart] },
  assembly: { name: 'Final assembly', group: 'Build', parts: [assemblyPart] },
  torque: { name: 'Torque', group: 'Build', parts: [torquePart] },
  sheet: { name: 'Build sheet', group: 'Build', parts: [sheetPart, reportPart] },
  running: { name: 'After the build', group: 'Build', parts: [runningPart] },
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

/** The parts of the job document that a stage owns. */
export function partsOfStage(stage: Stage): StageRow['parts'] {
  return TABLE[stage].parts;
}

type Part = (typeof TABLE)[Stage]['parts'][number];

/** Every part of the job document, once. */
export const PARTS: readonly Part[] = [...new Set(STAGES.flatMap((stage): readonly Part[] => TABLE[stage].parts))];
