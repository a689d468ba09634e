import {
  type AcceptedChoice,
  countsInSpread,
  eachFamily,
  FAMILIES,
  type Family,
  type JobDocument,
  type JobStation,
  type Nanometres,
  nanometres,
  type OffTarget,
  offTarget,
  stationVerdict,
} from '@fettle/core';

/** What is said of a selection: always of the one that the line shows. */
export interface SelectionFacts {
  /** How far its stations are off their targets; null where none has one. */
  readonly off: OffTarget | null;
  /** Largest less smallest deviation along the shaft, by family; a family without two stations has none. */
  readonly spread: Readonly<Partial<Record<Family, Nanometres>>>;
  readonly mixed: number;
  readonly stations: Readonly<Record<Family, number>>;
}

/** What a selection comes to, by the stations' own clearances. */
export function selectionFacts(
  document: JobDocument,
  stations: ReadonlyMap<string, JobStation>,
  halves: AcceptedChoice['stations'],
): SelectionFacts {
  const known = Object.entries(halves).flatMap(([id, pair]) => {
    const station = stations.get(id);
    return station ? [{ station, pair }] : [];
  });
  const deviations = known.flatMap(({ station, pair }) => {
    const { clearance } = stationVerdict(document, station, pair);
    if (clearance === null || station.aim === null) return [];
    const inSpread = countsInSpread(document.rules, station);
    return [{ station: station.id, family: station.family, deviation: clearance.nominal - station.aim, inSpread }];
  });
  const spreadOf = (family: Family) => {
    const own = deviations.filter((one) => one.family === family && one.inSpread).map(({ deviation }) => deviation);
    return own.length === 0 ? {} : { [family]: nanometres(Math.max(...own) - Math.min(...own)) };
  };
  const count = (family: Family) => known.filter(({ station }) => station.family === family).length;
  return {
    off: offTarget(deviations),
    spread: Object.assign({}, ...FAMILIES.map(spreadOf)),
    mixed: known.filter(({ pair }) => pair.upper.wall !== pair.lower.wall).length,
    stations: eachFamily(count),
  };
}
