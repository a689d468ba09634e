import type { EarlierBuild, FittedThen, SizeThen } from '../build/buildPart.js';
import { endPlayNow } from '../endPlay/endPlayRounds.js';
import type { JobDocument } from '../job/jobDocument.js';
import { jobFacts } from '../job/jobFacts.js';
import { budgetUncertainty } from '../measure/budget.js';
import { nanometres } from '../measure/nanometres.js';
import { featuresOf } from '../part/familiesOf.js';
import type { Feature } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import { sizeBudget } from '../station/sources.js';
import { stationVerdict } from '../station/stationVerdict.js';

/** What an earlier build is known by beside what it measured. */
export interface BuiltAs {
  readonly id: string;
  readonly signed: EarlierBuild['signed'];
}

/**
 * What a build left behind: sizes of all parts that were read, what was fitted with which clearance, and the end play. It is kept with the build
 * after it.
 *
 * @param readings current readings of the earlier build, any order
 */
export function earlierBuild(job: JobDocument, readings: readonly Reading[], { id, signed }: BuiltAs): EarlierBuild {
  const { parts, stations } = jobFacts(job, readings);
  const sizes: Partial<Record<Feature, Record<string, SizeThen>>> = {};
  for (const feature of featuresOf(job)) {
    const read = parts[feature].flatMap(({ number, name, size }): [string, SizeThen][] => {
      if (size?.kind !== 'read') return [];
      const { nominal, smallest, largest } = size;
      return [
        [String(number), { nominal, smallest, largest, u: budgetUncertainty(sizeBudget(job, feature, name, size)) }],
      ];
    });
    if (read.length > 0) sizes[feature] = Object.fromEntries(read);
  }
  const fitted = stations.flatMap((station): [string, FittedThen][] => {
    const halves = job.choice?.stations[station.id];
    if (!halves) return [];
    const { clearance, isMeasured } = stationVerdict(job, station, halves);
    const half = ({ label, wall }: typeof halves.upper) => ({ label, wall });
    return [
      [
        station.id,
        {
          upper: half(halves.upper),
          lower: half(halves.lower),
          rod: halves.rod,
          clearance: clearance?.nominal ?? null,
          isMeasured,
        },
      ],
    ];
  });
  const endPlay = endPlayNow(job.endPlay)?.mean ?? null;
  return {
    job: id,
    name: job.name,
    signed,
    run: null,
    sizes,
    fitted: Object.fromEntries(fitted),
    endPlay: endPlay === null ? null : nanometres(Math.round(endPlay)),
  };
}
