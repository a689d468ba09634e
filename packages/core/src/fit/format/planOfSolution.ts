import { numberOfLength } from '../../measure/formatLength.js';
import type { Nanometres } from '../../measure/nanometres.js';
import type { Unit } from '../../measure/unit.js';
import type { Conflict, FitSolution, Remedy, ShellCount, SolvedStation } from '../model/fitSolution.js';
import type { FitConflict, FitPlan, FitRemedy, PlannedStation } from './fitPlan.js';

type Length = (value: Nanometres) => number;

const counts = (list: readonly ShellCount[]) => list.map(({ id, count }) => ({ id, count }));

function stationOf(station: SolvedStation, length: Length): PlannedStation {
  const { known, id, housing, upper, lower, clearance, deviation, mixed, endPlay } = station;
  return {
    ...(known ? { known: { ...known, tightest: length(known.tightest), loosest: length(known.loosest) } } : {}),
    id,
    housing,
    upper,
    lower,
    clearance: length(clearance),
    deviation: length(deviation),
    mixed,
    ...(endPlay === undefined ? {} : { endPlay: length(endPlay) }),
  };
}

function rulesOf({ maxWallStep, maxSpread, ...rules }: NonNullable<Remedy['rules']>, length: Length) {
  return {
    ...rules,
    ...(maxWallStep === undefined ? {} : { maxWallStep: length(maxWallStep) }),
    ...(maxSpread === undefined
      ? {}
      : { maxSpread: Object.fromEntries(Object.entries(maxSpread).map(([family, width]) => [family, length(width)])) }),
  };
}

function remedyOf({ newShells, housings, rules, journal, limit, ...remedy }: Remedy, length: Length): FitRemedy {
  return {
    ...remedy,
    stations: [...remedy.stations],
    shells: counts(remedy.shells),
    ...(newShells === undefined
      ? {}
      : {
          newShells: newShells.map(({ id, family, series, half, wall, width, undersize, positions, stock }) => ({
            id,
            family,
            series,
            half,
            wall: length(wall),
            ...(width === undefined ? {} : { width: length(width) }),
            undersize,
            ...(positions === undefined ? {} : { positions: [...positions] }),
            stock,
          })),
        }),
    ...(housings === undefined ? {} : { housings: [...housings] }),
    ...(rules === undefined ? {} : { rules: rulesOf(rules, length) }),
    ...(journal === undefined ? {} : { journal: length(journal) }),
    ...(limit === undefined ? {} : { limit: { side: limit.side, value: length(limit.value) } }),
  };
}

function conflictOf(conflict: Conflict, length: Length): FitConflict {
  const { nearest, missing, spread, housings, remedies, partRemedies, ...rest } = conflict;
  return {
    ...rest,
    stations: [...rest.stations],
    shells: [...rest.shells],
    ...(nearest
      ? {
          nearest: {
            ...nearest,
            clearance: length(nearest.clearance),
            low: length(nearest.low),
            high: length(nearest.high),
            by: length(nearest.by),
          },
        }
      : {}),
    ...(missing ? { missing: counts(missing) } : {}),
    ...(spread
      ? {
          spread: {
            family: spread.family,
            limit: length(spread.limit),
            least: spread.least === null ? null : length(spread.least),
          },
        }
      : {}),
    ...(housings ? { housings: [...housings] } : {}),
    ...(remedies ? { remedies: remedies.map((remedy) => remedyOf(remedy, length)) } : {}),
    ...(partRemedies ? { partRemedies: partRemedies.map((remedy) => remedyOf(remedy, length)) } : {}),
  };
}

/** Writes what the search found as a plan of the open format: decimals in a unit instead of nanometres. */
export function planOfSolution(solution: FitSolution, unit: Unit): FitPlan {
  const length: Length = (value) => numberOfLength(value, unit);
  const { status, cost, bound, prices } = solution;
  return {
    format: 'fettle.fit-plan/1',
    unit,
    status,
    cost,
    bound,
    stations: solution.stations.map((station) => stationOf(station, length)),
    shellsUsed: counts(solution.shellsUsed),
    spread: solution.spread.map(({ engine, family, value }) => ({ engine, family, value: length(value) })),
    conflicts: solution.conflicts.map((conflict) => conflictOf(conflict, length)),
    ...(prices ? { prices: prices.map(({ id, price }) => ({ id, price })) } : {}),
  };
}
