import { FEATURES } from '../part/feature.js';
import type { JobDocument } from './jobDocument.js';
import type { Slice } from './slice.js';
import { choiceSlice } from './slices/choiceSlice.js';
import { codesSlice } from './slices/codesSlice.js';
import { crushSlice } from './slices/crushSlice.js';
import { endPlaySlice } from './slices/endPlaySlice.js';
import { engineSlice } from './slices/engineSlice.js';
import { halvesSlice } from './slices/halvesSlice.js';
import { measuringSlice } from './slices/measuringSlice.js';
import { runoutSlice } from './slices/runoutSlice.js';
import { sheetSlice } from './slices/sheetSlice.js';
import { trialSlice } from './slices/trialSlice.js';

/** The pieces of the work in its order. A new one is its own file, or folder, and a line here. */
export const SLICES = [
  engineSlice,
  codesSlice,
  ...FEATURES.map(measuringSlice),
  halvesSlice,
  choiceSlice,
  trialSlice,
  runoutSlice,
  crushSlice,
  endPlaySlice,
  sheetSlice,
] as const;

/** The stages of the work. Nothing forces their order. */
export type Stage = (typeof SLICES)[number]['key'];

/** The stages of the work, in order. */
export const STAGES = SLICES.map(({ key }) => key) as [Stage, ...Stage[]];

/**
 * What a stage is called.
 *
 * @example stageName('bigEnds') // 'Big ends'
 */
export function stageName(stage: Stage): string {
  return SLICES.find(({ key }) => key === stage)!.name;
}

const OWNERS = new Map<string, Slice>(SLICES.flatMap((slice: Slice) => slice.owns.map((member) => [member, slice])));

/**
 * What a place in a job's document is called in a sentence, for its history and for questions between two people.
 *
 * @param path keys from the document down
 * @param job to name what ids stand for: the document before or after the change, whichever holds it
 */
export function placeWords(path: readonly string[], job: JobDocument): string {
  return OWNERS.get(path[0] ?? '')?.placeWords(path, job) ?? 'the engine';
}
