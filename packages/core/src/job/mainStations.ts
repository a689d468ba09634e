import { clearanceAim } from '../clearance/clearanceAim.js';
import { type EffectiveSize, effectiveSize } from '../measure/effectiveSize.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { JobDocument, Limit } from './jobDocument.js';
import type { Feature, Reading } from './reading.js';

/** A size outside the data sheet's limits: no shell cures it. */
export interface SizeFinding {
  readonly feature: Feature;
  /** Nanometres beyond the limit, above zero. */
  readonly by: Nanometres;
  readonly side: 'under' | 'over';
}

/** What is known about one main. */
export interface MainStation {
  /** `M1` at the front. */
  readonly id: string;
  readonly number: number;
  readonly bore: EffectiveSize | null;
  readonly journal: EffectiveSize | null;
  /** Slots of the measuring scheme that have no size yet. */
  readonly missing: Readonly<Record<Feature, number>>;
  /** Clearance limits of the data sheet, or null. */
  readonly limits: Limit | null;
  /** Clearance aimed at, or null when what it is counted from is missing. */
  readonly aim: Nanometres | null;
  readonly findings: readonly SizeFinding[];
}

function findingsOf(feature: Feature, size: EffectiveSize | null, limit: Limit | null): SizeFinding[] {
  if (!size || !limit) return [];
  const findings: SizeFinding[] = [];
  if (size.smallest < limit.low) findings.push({ feature, by: nanometres(limit.low - size.smallest), side: 'under' });
  if (size.largest > limit.high) findings.push({ feature, by: nanometres(size.largest - limit.high), side: 'over' });
  return findings;
}

/**
 * The mains of a job from front to rear with their effective sizes, limits and aims.
 *
 * @param readings current readings only, any order; those without a size (unreadable text) do not count and stay missing
 */
export function mainStations(job: JobDocument, readings: readonly Reading[]): MainStation[] {
  return Array.from({ length: job.layout.mains }, (_, at) => {
    const number = at + 1;
    const id = `M${number}`;
    const sizesOf = (feature: Feature) =>
      readings.flatMap((reading) =>
        reading.feature === feature && reading.station === number && reading.nm !== null ? [reading.nm] : [],
      );
    const bores = sizesOf('mainBore');
    const journals = sizesOf('mainJournal');
    const bore = effectiveSize(bores);
    const journal = effectiveSize(journals);
    const limits = job.limits.mainClearance;
    const extra = job.rules.extras[id] ?? nanometres(0);
    return {
      id,
      number,
      bore,
      journal,
      missing: {
        mainBore: Math.max(0, job.measuring.slots.mainBore.length - bores.length),
        mainJournal: Math.max(0, job.measuring.slots.mainJournal.length - journals.length),
      },
      limits,
      aim: clearanceAim(job.rules.aim, limits, journal?.nominal ?? null, extra),
      findings: [
        ...findingsOf('mainBore', bore, job.limits.mainBore),
        ...findingsOf('mainJournal', journal, job.limits.mainJournal),
      ],
    };
  });
}
