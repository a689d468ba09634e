import {
  type AcceptedChoice,
  budgetUncertainty,
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
  sumBudget,
} from '@fettle/core';

/** Largest less smallest deviation along the shaft. */
export interface Spread {
  readonly by: Nanometres;
  /** Standard uncertainty of the difference of the two stations that make it, nm: an error that both have, such as the gauge's setting, falls out. */
  readonly u: number;
}

/** What is said of a selection: always of the one that the line shows. */
export interface SelectionFacts {
  /** How far its stations are off their targets; null where none has one. */
  readonly off: OffTarget | null;
  /** How even the stations of a family are; a family without any has none. */
  readonly spread: Readonly<Partial<Record<Family, Spread>>>;
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
    const { clearance, budget } = stationVerdict(document, station, pair);
    if (clearance === null || station.aim === null) return [];
    const inSpread = countsInSpread(document.rules, station);
    const deviation = clearance.nominal - station.aim;
    return [{ station: station.id, family: station.family, deviation, budget: budget ?? [], inSpread }];
  });
  const spreadOf = (family: Family) => {
    const own = deviations
      .filter((one) => one.family === family && one.inSpread)
      .sort((one, other) => one.deviation - other.deviation);
    const [least, most] = [own[0], own.at(-1)];
    if (!least || !most) return {};
    const difference = sumBudget([
      [most.budget, 1],
      [least.budget, -1],
    ]);
    return { [family]: { by: nanometres(most.deviation - least.deviation), u: budgetUncertainty(difference) } };
  };
  const count = (family: Family) => known.filter(({ station }) => station.family === family).length;
  return {
    off: offTarget(deviations),
    spread: Object.assign({}, ...FAMILIES.map(spreadOf)),
    mixed: known.filter(({ pair }) => pair.upper.wall !== pair.lower.wall).length,
    stations: eachFamily(count),
  };
}
