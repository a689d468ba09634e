import { partName } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import { allParts, type MeasuredPart } from '../reading/measuredParts.js';
import { type JobStation, pinsForSelection } from '../station/jobStations.js';
import { offsetsOf } from '../station/stationOffsets.js';
import { type LeftOut, type Ready, sortOut } from './readyStations.js';
import type { SelectionJob } from './selectionJob.js';

/** Rods and pins: who may go where, and who is left out and why. */
interface RodsAndPins {
  readonly pins: readonly Ready[];
  /** Per pin (`P1`) the rod that is kept on it. */
  readonly keptOn: ReadonlyMap<string, MeasuredPart>;
  readonly free: readonly MeasuredPart[];
  readonly leftOut: readonly LeftOut[];
}

/**
 * A rod that the fitter keeps on a pin stays with it whatever becomes of the pin: it never goes elsewhere. A pin whose rod is not
 * measured, is blocked, or shares it with another kept one is left out; the others are chosen for.
 */
export function rodsAndPins(job: SelectionJob, readings: readonly Reading[]): RodsAndPins {
  if (!job.withRods) return { pins: [], keptOn: new Map(), free: [], leftOut: [] };
  const rodsOut: LeftOut[] = [];
  const { bigEnd: rods } = allParts(job, readings);
  const isReady = ({ size, findings }: MeasuredPart) => size !== null && findings.length === 0;
  for (const rod of rods) {
    if (rod.findings.length > 0) rodsOut.push({ station: rod.name, reason: 'blocked' });
    else if (!rod.size) rodsOut.push({ station: rod.name, reason: 'not-measured' });
  }
  const keptAt = new Map<string, MeasuredPart[]>();
  const free: MeasuredPart[] = [];
  for (const rod of rods) {
    const pin = job.rods[String(rod.number)]?.pin ?? null;
    if (pin === null) {
      if (isReady(rod)) free.push(rod);
      continue;
    }
    const name = partName('pin', pin);
    keptAt.set(name, [...(keptAt.get(name) ?? []), rod]);
  }
  const keptOn = new Map<string, MeasuredPart>();
  const pinsOut: LeftOut[] = [];
  const { open: openPins, withRods } = pinsForSelection(job, readings);
  // What was tried at a pin was tried with the rod that is on it now; for the others of its family it tells something all the same.
  const offsets = offsetsOf(job, 'rod', new Map(withRods.map((station) => [station.id, station])), (pin) =>
    keptAt.has(pin),
  );
  const all = openPins.map((station) => ({ ...station, offsets: offsets.get(station.id)! }));
  const usable = all.filter(({ id }) => {
    const [kept, another] = keptAt.get(id) ?? [];
    if (kept === undefined) return true;
    const names = keptAt.get(id)!.map(({ name }) => name);
    const leave = (reason: LeftOut['reason']) => pinsOut.push({ station: id, reason, rods: names });
    if (another !== undefined) leave('two-rods');
    else if (kept.findings.length > 0) leave('rod-blocked');
    else if (!kept.size) leave('rod-not-measured');
    else keptOn.set(id, kept);
    return keptOn.has(id);
  });
  const sorted = sortOut(job, usable, ({ id }) => (keptOn.has(id) ? [keptOn.get(id)!] : free));
  const open = sorted.ready.filter(({ id }) => !keptOn.has(id));
  const tooMany = open.length > free.length;
  return {
    // Pins beyond the number of rods have none.
    pins: tooMany ? sorted.ready.filter(({ id }) => keptOn.has(id)) : sorted.ready,
    keptOn,
    free,
    leftOut: [
      ...pinsOut,
      ...sorted.leftOut.map((one) =>
        one.reason === 'not-measured' && !keptOn.has(one.station) && free.length === 0 && isRead(all, one.station)
          ? { ...one, reason: 'no-rod' as const }
          : one,
      ),
      ...(tooMany ? open.map(({ id }) => ({ station: id, reason: 'no-rod' as const })) : []),
      ...rodsOut,
    ],
  };
}

function isRead(stations: readonly JobStation[], id: string): boolean {
  return stations.some((station) => station.id === id && station.journal !== null);
}
