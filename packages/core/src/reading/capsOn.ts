import { FEATURE_TABLE, type Feature, partCount, partName } from '../part/feature.js';
import { isSwappedSince } from '../part/swappedSince.js';
import { fastenerFigures } from '../torque/tightenFacts.js';
import type { MeasuredJob } from './measuredJob.js';
import type { CapsOn } from './measuringPart.js';

/**
 * Who said, and when, that the housings of a feature are read as they must be: each cap in its place and direction, threads and heads lubricated
 * and torqued as the figure asks. Other fasteners, or a cap that was swapped since, end it.
 *
 * @returns null where nobody has said so of what holds the housings now; for journals and pins too, which have no caps on
 */
export function capsOn(
  { layout, measuring, fasteners, assembly }: Pick<MeasuredJob, 'layout' | 'measuring' | 'fasteners' | 'assembly'>,
  feature: Feature,
): CapsOn | null {
  const said = measuring.capsOn?.[feature];
  const { role, family } = FEATURE_TABLE[feature];
  if (!said || role !== 'housing') return null;
  const { since } = fasteners[family];
  const names = Array.from({ length: partCount(layout, feature) }, (_, at) => partName(feature, at + 1));
  const isSwapped = isSwappedSince(assembly, names, ['cap'], said.at);
  return (since !== null && since > said.at) || isSwapped ? null : said;
}

/** What the torque of a family's caps asks for: the lubricant and the figure, as noted for its fasteners or as its figures give them; '' where neither does. */
export function capsAsk(
  job: Pick<MeasuredJob, 'fasteners' | 'sheet' | 'withRods'>,
  feature: Feature,
): { readonly lubricant: string; readonly torque: string } {
  const { family } = FEATURE_TABLE[feature];
  const { lubricant, torque } = job.fasteners[family];
  const given = fastenerFigures(job).find((one) => one.family === family)?.fasteners[0];
  return { lubricant: lubricant || (given?.lubricant ?? ''), torque: torque || (given?.steps ?? '') };
}
