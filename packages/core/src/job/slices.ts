import { FEATURE_TABLE, FEATURES, type MeasuringStage } from '../part/feature.js';
import type { JobDocument } from './jobDocument.js';
import type { Slice } from './slice.js';
import { assemblySlice } from './slices/assemblySlice.js';
import { choiceSlice } from './slices/choiceSlice.js';
import { codesSlice } from './slices/codesSlice.js';
import { crushSlice } from './slices/crushSlice.js';
import { endPlaySlice } from './slices/endPlaySlice.js';
import { engineSlice } from './slices/engineSlice.js';
import { halvesSlice } from './slices/halvesSlice.js';
import { measuringSlice } from './slices/measuringSlice.js';
import { runoutSlice } from './slices/runoutSlice.js';
import { sheetSlice } from './slices/sheetSlice.js';
import { torqueSlice } from './slices/torqueSlice.js';
import { trialSlice } from './slices/trialSlice.js';
import { STAGES, type Stage } from './stages.js';

/** A slice a stage; one that is missing, or of another stage, does not compile. */
const BY_STAGE: { readonly [Key in Stage]: Slice<Key> } = {
  data: engineSlice,
  codes: codesSlice,
  ...(Object.fromEntries(
    FEATURES.map((feature) => [FEATURE_TABLE[feature].stage, measuringSlice(feature)]),
  ) as unknown as { readonly [Key in MeasuringStage]: Slice<Key> }),
  drawer: halvesSlice,
  choose: choiceSlice,
  trial: trialSlice,
  runout: runoutSlice,
  crush: crushSlice,
  endPlay: endPlaySlice,
  torque: torqueSlice,
  assembly: assemblySlice,
  sheet: sheetSlice,
};

/** The pieces of the work in its order. */
export const SLICES: readonly Slice<Stage>[] = STAGES.map((stage) => BY_STAGE[stage]);

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
