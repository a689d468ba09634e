import type { Contribution } from '../measure/budget.js';
import { nanometres } from '../measure/nanometres.js';
import type { Family } from '../part/family.js';
import { fastenersWords } from '../torque/fastenersWords.js';
import type { ExpectedOffset } from './expectedOffsetSchema.js';
import type { StationJob } from './stationJob.js';
import type { StationOffset } from './stationOffset.js';

/** What it is kept under: `main Marsh`. */
export function expectedKey(family: Family, series: string): string {
  return `${family} ${series}`;
}

/** True if the fasteners of an engine are not those that an expected offset was found with. */
export function isWithOtherFasteners(
  { fasteners }: Pick<StationJob, 'fasteners'>,
  family: Family,
  expected: Pick<ExpectedOffset, 'fasteners'>,
): boolean {
  return fastenersWords(fasteners[family]) !== expected.fasteners;
}

/** The offsets that other engines let expect, and that the fitter took over, of a family; none whose fasteners are others here. */
export function expectedOffsets(job: Pick<StationJob, 'fasteners' | 'expected'>, family: Family): StationOffset[] {
  return Object.entries(job.expected).flatMap(([key, one]): StationOffset[] => {
    const own = expectedKey(family, '');
    if (!key.startsWith(own) || isWithOtherFasteners(job, family, one)) return [];
    const series = key.slice(own.length);
    const budget: Contribution[] = [
      {
        key: `expected:${key}`,
        words: `offset expected from ${one.engines} engines`,
        u: one.u,
        shape: 'normal',
        sensitivity: 1,
      },
    ];
    return [
      {
        series,
        offset: nanometres(one.offset),
        u: one.u,
        budget,
        stations: [],
        engines: one.engines,
        isSpread: false,
        isOwn: false,
      },
    ];
  });
}

/**
 * Where an offset comes from, in words.
 *
 * @example offsetSource({ isOwn: false, stations: ['M1', 'M4'], engines: 0 }) // 'trial of M1, M4'
 */
export function offsetSource({
  isOwn,
  stations,
  engines,
}: Pick<StationOffset, 'isOwn' | 'stations' | 'engines'>): string {
  if (engines > 0) return `expected from ${engines} ${engines === 1 ? 'engine' : 'engines'}`;
  return isOwn ? 'its own trial' : `trial of ${stations.join(', ')}`;
}
