import { assemblySlice } from '../assembly/assemblySlice.js';
import { cameApartSlice } from '../cameApart/cameApartSlice.js';
import { codesSlice } from '../codes/codesSlice.js';
import { crushSlice } from '../crush/crushSlice.js';
import { membersOf } from '../document/documentPart.js';
import { endPlaySlice } from '../endPlay/endPlaySlice.js';
import { engineSlice } from '../engineType/engineSlice.js';
import { mainLineSlice } from '../mainLine/mainLineSlice.js';
import { FEATURE_TABLE, FEATURES, type MeasuringStage } from '../part/feature.js';
import { measuringSlice } from '../reading/measuringSlice.js';
import { runningSlice } from '../running/runningSlice.js';
import { runoutSlice } from '../runout/runoutSlice.js';
import { choiceSlice } from '../selection/choiceSlice.js';
import { halvesSlice } from '../selection/halvesSlice.js';
import { sheetSlice } from '../sheet/sheetSlice.js';
import type { Slice } from '../stage/slice.js';
import { torqueSlice } from '../torque/torqueSlice.js';
import { trialSlice } from '../trial/trialSlice.js';
import type { JobDocument } from './jobDocument.js';
import type { JobFacts } from './jobFacts.js';
import { STAGES } from './stageName.js';
import { partsOfStage, type Stage } from './stages.js';

/** A slice a stage; one that is missing, or of another stage, does not compile. */
const BY_STAGE: { readonly [Key in Stage]: Slice<Key, JobFacts> } = {
  data: engineSlice,
  cameApart: cameApartSlice,
  codes: codesSlice,
  ...(Object.fromEntries(
    FEATURES.map((feature) => [FEATURE_TABLE[feature].stage, measuringSlice(feature)]),
  ) as unknown as { readonly [Key in MeasuringStage]: Slice<Key, JobFacts> }),
  drawer: halvesSlice,
  choose: choiceSlice,
  trial: trialSlice,
  mainLine: mainLineSlice,
  runout: runoutSlice,
  crush: crushSlice,
  endPlay: endPlaySlice,
  torque: torqueSlice,
  assembly: assemblySlice,
  sheet: sheetSlice,
  running: runningSlice,
};

/** The pieces of the work in its order. */
export const SLICES: readonly Slice<Stage, JobFacts>[] = STAGES.map((stage) => BY_STAGE[stage]);

/** The slice that each member of the document belongs to. */
const OWNERS = new Map(
  SLICES.flatMap((slice) => membersOf(...partsOfStage(slice.key)).map((member) => [member, slice] as const)),
);

/**
 * What a place in a job's document is called in a sentence, for its history and for questions between two people.
 *
 * @param path keys from the document down
 * @param job to name what ids stand for: the document before or after the change, whichever holds it
 */
export function placeWords(path: readonly string[], job: JobDocument): string {
  return OWNERS.get(path[0] ?? '')?.placeWords(path, job) ?? 'the engine';
}
