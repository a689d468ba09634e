import type { Nanometres } from '../measure/nanometres.js';
import type { Family } from '../part/family.js';
import { assemblyOffset } from './assemblyOffset.js';
import { expectedOffsets } from './expectedOffset.js';
import type { StationJob } from './stationJob.js';
import type { StationOffset } from './stationOffset.js';
import type { StationTrial } from './stationTrial.js';
import type { Trial } from './trialSchema.js';

/** A trial whose difference is known. */
type Telling = StationTrial & { readonly difference: Nanometres };

/** True if a trial tells how assembly differs from the sum of its parts: read, not void, and as predicted or confirmed. */
export function isTelling(tried: StationTrial | null): tried is Telling {
  if (!tried || tried.difference === null || tried.isVoid !== null) return false;
  return tried.isAsPredicted || tried.isConfirmed;
}

/** True if a trial still speaks of its own station: the same housing and journal, whatever halves are in now. */
export function isOfItsStation({ changed }: StationTrial): boolean {
  return changed === null || changed === 'halves' || changed === 'swapped';
}

/** A mean of trials is told to a tenth of a micrometre, or of a tenth. */
const FINEST = { mm: 100, in: 254 } as const;

/** True if both halves of a trial are of one series, which its difference then belongs to. */
function seriesOf({ upper, lower }: Trial): string | null {
  return upper.series === lower.series ? upper.series : null;
}

/** The trials of a station. */
export interface TrialsOfStation {
  readonly tried: StationTrial | null;
  readonly earlier: readonly StationTrial[];
}

/**
 * What trials say of each station of one family: its own trial of itself, while its housing and journal are the same; where the fitter
 * tries one and applies it, all trials of the family for the rest, those with parts that have changed since too; where no trial says anything, what other
 * engines let expect, if the fitter took it over. One entry a series.
 *
 * @param trials by station, all of one family
 * @param keepsOwn whether a station will be assembled from the same parts: a pin whose rod may be another is not
 */
export function offsetsOf(
  job: Pick<StationJob, 'trialSchool' | 'unit' | 'fasteners' | 'expected'>,
  family: Family,
  trials: ReadonlyMap<string, TrialsOfStation>,
  keepsOwn: (station: string) => boolean = () => true,
): ReadonlyMap<string, readonly StationOffset[]> {
  const { trialSchool, unit } = job;
  const expected = expectedOffsets(job, family);
  const telling = [...trials].flatMap(([station, { tried, earlier }]) =>
    [...earlier, ...(tried ? [tried] : [])].flatMap((one) => {
      const series = seriesOf(one.trial);
      if (!isTelling(one) || series === null) return [];
      const { difference, u, budget } = one;
      return [{ station, series, difference, u, budget, isOwn: one === tried && isOfItsStation(one) }];
    }),
  );
  const shared =
    trialSchool !== 'one'
      ? []
      : [...new Set(telling.map(({ series }) => series))].flatMap((series): StationOffset[] => {
          const found = assemblyOffset(
            telling.filter((one) => one.series === series),
            FINEST[unit],
          );
          return found ? [{ ...found, stations: [...new Set(found.stations)], series, engines: 0, isOwn: false }] : [];
        });
  return new Map(
    [...trials.keys()].map((station) => {
      const own = telling.flatMap(({ station: at, series, difference, u, budget, isOwn }): StationOffset[] =>
        isOwn && at === station && keepsOwn(station)
          ? [{ series, offset: difference, u, budget, stations: [station], engines: 0, isSpread: false, isOwn: true }]
          : [],
      );
      const unsaid = (known: readonly StationOffset[], more: readonly StationOffset[]) =>
        more.filter(({ series }) => known.every((one) => one.series !== series));
      const tried = [...own, ...unsaid(own, shared)];
      return [station, [...tried, ...unsaid(tried, expected)]];
    }),
  );
}
