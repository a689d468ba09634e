import type { Reading } from '../part/reading.js';
import type { Swap } from '../part/swap.js';
import type { AcceptedChoice } from '../shell/acceptedChoice.js';
import { jobStations } from '../station/jobStations.js';
import { stationVerdict } from '../station/stationVerdict.js';
import type { SelectionJob } from './selectionJob.js';

type Chosen = AcceptedChoice['stations'][string];

/** What stands at two stations once parts of theirs have changed places; caps are no part of the choice. */
function exchanged(part: Swap['part'], one: Chosen, other: Chosen): [Chosen, Chosen] {
  switch (part) {
    case 'cap':
      return [one, other];
    case 'rod':
      return [
        { ...one, rod: other.rod },
        { ...other, rod: one.rod },
      ];
    default:
      return [
        { ...one, [part]: other[part] },
        { ...other, [part]: one[part] },
      ];
  }
}

/** Rods that are kept on a pin, after two of them changed pins. */
function rodsAfter({ rods }: SelectionJob, before: readonly Chosen[], after: readonly Chosen[]): SelectionJob['rods'] {
  const moved = after.flatMap(({ rod }, at) => {
    const kept = rod === null ? undefined : rods[String(rod)];
    const was = rods[String(before[at]!.rod)];
    return kept && kept.pin !== null && was ? [[String(rod), { ...kept, pin: was.pin }] as const] : [];
  });
  return { ...rods, ...Object.fromEntries(moved) };
}

/**
 * The job once parts of two stations have changed places: it is recorded, and the accepted choice follows the parts, so that what is predicted is
 * of the halves and rods that are in. Nothing that was read or checked is taken away; what rested on the parts is asked for again.
 *
 * @param readings current readings, for what the stations are predicted to have now
 * @param id under which it is recorded
 */
export function withSwap<Job extends SelectionJob>(
  job: Job,
  readings: readonly Reading[],
  id: string,
  swap: Swap,
): Job {
  const recorded = { ...job, assembly: { ...job.assembly, swaps: { ...job.assembly.swaps, [id]: swap } } };
  const { choice } = job;
  const [one, other] = [choice?.stations[swap.one], choice?.stations[swap.other]];
  if (!choice || !one || !other || swap.part === 'cap') return recorded;
  const after = exchanged(swap.part, one, other);
  const rods = swap.part === 'rod' ? rodsAfter(job, [one, other], after) : job.rods;
  const stations = { ...choice.stations, [swap.one]: after[0], [swap.other]: after[1] };
  const moved: Job = { ...recorded, rods, choice: { ...choice, stations } };
  const known = jobStations(moved, readings).filter(({ id: station }) => [swap.one, swap.other].includes(station));
  const predicted = known.map((station): [string, Chosen] => {
    const halves = stations[station.id]!;
    const { clearance } = stationVerdict(moved, station, halves);
    return [station.id, { ...halves, predicted: clearance?.nominal ?? halves.predicted }];
  });
  return { ...moved, choice: { ...choice, stations: { ...stations, ...Object.fromEntries(predicted) } } };
}
