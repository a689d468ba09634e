import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { AcceptedChoice } from '../shell/acceptedChoice.js';
import type { JobStation } from '../station/jobStations.js';
import { stationVerdict } from '../station/stationVerdict.js';
import type { SelectionJob } from './selectionJob.js';
import { stationCandidates } from './stationCandidates.js';

/** A pair that is nearer by less than this is as near, nm: nobody could tell them apart. */
const AS_NEAR = 1_000;
/** Pairs looked at before a station is left as it is. */
const MOST_LOOKED_AT = 8;

/** A station whose locked shells are further off target than others would be. */
export interface LockedOff {
  readonly station: string;
  /** Grades of the shells that are in the selection, upper and lower; one where they are alike. */
  readonly locked: string;
  /** Grades that would be nearer. */
  readonly nearer: string;
  /** Distances from the target with either, nm, at least 0. */
  readonly off: Nanometres;
  readonly offNearer: Nanometres;
}

function gradesOf({ shells }: SelectionJob, upper: string, lower: string): string {
  const [one, other] = [upper, lower].map((id) => shells[id]?.grade ?? id);
  return one === other ? one! : `${one} over ${other}`;
}

/**
 * Stations where shells are locked, as by the table's grades, though the parts as measured ask for others: with those the clearance would be
 * in limits and nearer to the target, and the selection leaves a pair of them over.
 *
 * @param halves the selection that is looked at
 * @param free how many of each kind of the workshop this engine may take, by its id; null while that is not known: then of its own alone
 */
export function lockedOff(
  job: SelectionJob,
  stations: readonly JobStation[],
  halves: AcceptedChoice['stations'],
  free: ReadonlyMap<string, number> | null,
): LockedOff[] {
  const used = Object.values(halves).flatMap(({ upper, lower }) => [upper.shell, lower.shell]);
  /** How many of a kind the selection leaves over. */
  const leftOf = (id: string): number => {
    const { stock = 0, line = null } = job.shells[id] ?? {};
    const there = line === null ? (stock ?? Number.POSITIVE_INFINITY) : (free?.get(line) ?? 0);
    return there - used.filter((one) => one === id).length;
  };
  return stations.flatMap((station): LockedOff[] => {
    const wish = job.wishes[station.id];
    const pair = halves[station.id];
    if (!wish || !pair || (wish.upper === null && wish.lower === null)) return [];
    if (station.bore?.kind !== 'read' || station.journal?.kind !== 'read' || station.aim === null) return [];
    const { clearance, isMeasured } = stationVerdict(job, station, pair);
    // A clearance that was read with the shells in says more than any that is worked out.
    if (!clearance || isMeasured) return [];
    const off = Math.abs(clearance.nominal - station.aim);
    const [nearest] = stationCandidates(job, station, MOST_LOOKED_AT)
      .filter(({ upper, lower, mixed, verdict }) => {
        const isRuledOut = [upper, lower].some((id) => wish.noShells.includes(id)) || (wish.unmixed && mixed);
        // A shell that the station has already needs no other.
        const isLeft = [upper, lower].every((id, _, ids) => {
          const own = [pair.upper.shell, pair.lower.shell].filter((one) => one === id).length;
          return leftOf(id) + own >= ids.filter((one) => one === id).length;
        });
        return !isRuledOut && isLeft && verdict !== null && verdict.margin >= 0;
      })
      // Of two that are as near, the one of one wall.
      .sort(
        (one, other) =>
          Math.abs(one.deviation!) - Math.abs(other.deviation!) || Number(one.mixed) - Number(other.mixed),
      );
    if (!nearest || off - Math.abs(nearest.deviation!) < AS_NEAR) return [];
    return [
      {
        station: station.id,
        locked: gradesOf(job, pair.upper.shell, pair.lower.shell),
        nearer: gradesOf(job, nearest.upper, nearest.lower),
        off: nanometres(off),
        offNearer: nanometres(Math.abs(nearest.deviation!)),
      },
    ];
  });
}
