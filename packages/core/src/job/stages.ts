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
import type { StageGroup } from './stageGroup.js';

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

/**
 * What each stage is called and where it stands, in the order of the work. `npm run formats` writes it down in `stageRows.ts`, for what needs no
 * more: a page that lists engines does not load their documents for it.
 */
export function stageRows(): Record<Stage, { readonly name: string; readonly group: StageGroup }> {
  return Object.fromEntries(
    Object.entries(TABLE).map(([stage, { name, group }]) => [stage, { name, group }]),
  ) as ReturnType<typeof stageRows>;
}

/** The parts of the job document that a stage owns. */
export function partsOfStage(stage: Stage): StageRow['parts'] {
  return TABLE[stage].parts;
}

type Part = (typeof TABLE)[Stage]['parts'][number];

/** Every part of the job document, once. */
export const PARTS: readonly Part[] = [...new Set(Object.values(TABLE).flatMap(({ parts }): readonly Part[] => parts))];
