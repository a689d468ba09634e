import {
  type AcceptedChoice,
  type JobDocument,
  type JobStation,
  type Nanometres,
  nanometres,
  stationVerdict,
} from '@fettle/core';

/** How far stations lie off what is aimed at. */
export interface OffAim {
  readonly mean: Nanometres;
  readonly worst: Nanometres;
  /** Where it is worst. */
  readonly station: string;
}

/** How far the stations of a choice lie off their aims, by their own clearances; null where none has an aim. */
export function offAim(
  document: JobDocument,
  stations: ReadonlyMap<string, JobStation>,
  halves: AcceptedChoice['stations'],
): OffAim | null {
  const off = Object.entries(halves).flatMap(([id, pair]) => {
    const station = stations.get(id);
    const clearance = station ? stationVerdict(document, station, pair).clearance : null;
    return clearance && station?.aim != null ? [{ station: id, by: Math.abs(clearance.nominal - station.aim) }] : [];
  });
  if (off.length === 0) return null;
  const worst = off.reduce((most, next) => (next.by > most.by ? next : most));
  const mean = off.reduce((sum, { by }) => sum + by, 0) / off.length;
  // As fine as a clearance is told.
  const told = (value: number) => nanometres(Math.round(value / 10) * 10);
  return { mean: told(mean), worst: told(worst.by), station: worst.station };
}
