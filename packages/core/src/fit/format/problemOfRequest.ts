import { lengthOfNumber } from '../../measure/lengthOfNumber.js';
import { type Nanometres, nanometres } from '../../measure/nanometres.js';
import type { SizeBand } from '../../measure/sizeBand.js';
import type { Unit } from '../../measure/unit.js';
import { eachFamily } from '../../part/family.js';
import { type FitProblem, type ProblemRules, type ProblemShell, USUAL_LIMIT_SHARE } from '../model/fitProblem.js';
import type { FitRequest, FitShell } from './fitRequest.js';

/** What `maxWallStep` is where it is left out: 0.013 mm, the same length whatever the unit. */
const USUAL_WALL_STEP = nanometres(13_000);

interface Written {
  readonly low: number;
  readonly high: number;
}

/** Reads the lengths of one unit. */
function reader(unit: Unit) {
  const length = (value: number): Nanometres => lengthOfNumber(value, unit);
  const band = ({ low, high }: Written): SizeBand => ({ low: length(low), high: length(high) });
  const bandOf = <Key extends string>(key: Key, written: Written | undefined) =>
    (written === undefined ? {} : { [key]: band(written) }) as { readonly [K in Key]?: SizeBand };
  return { length, bandOf };
}

/** The rules of a request in whole nanometres, what is left out filled in. */
export function problemRules(rules: FitRequest['rules'], unit: Unit): ProblemRules {
  const { length } = reader(unit);
  return {
    ...rules,
    maxWallStep: rules.maxWallStep === undefined ? USUAL_WALL_STEP : length(rules.maxWallStep),
    maxSpread: eachFamily((family) => (rules.maxSpread[family] === null ? null : length(rules.maxSpread[family]))),
    limitShare: rules.limitShare ?? USUAL_LIMIT_SHARE,
  };
}

/** A shell of a request in whole nanometres. */
export function problemShell({ wall, wallBand, width, ...shell }: FitShell, unit: Unit): ProblemShell {
  const { length, bandOf } = reader(unit);
  return {
    ...shell,
    name: shell.id,
    wall: length(wall),
    ...bandOf('wallBand', wallBand),
    ...(width === undefined ? {} : { width: length(width) }),
  };
}

/**
 * Reads a request of the open format into what the search is asked. In the open format an id is the name as well.
 *
 * @param request a valid request (see `readFitRequest`)
 */
export function problemOfRequest({ unit, stations, housings, shells, rules, wishes }: FitRequest): FitProblem {
  const { length, bandOf } = reader(unit);
  return {
    unit,
    stations: stations.map(({ journalBand, journalReadings, endPlay, ...station }) => ({
      ...station,
      name: station.id,
      journal: length(station.journal),
      ...bandOf('journalBand', journalBand),
      ...bandOf('journalReadings', journalReadings),
      aim: length(station.aim),
      low: length(station.low),
      high: length(station.high),
      offset: length(station.offset),
      offsets: station.offsets.map(({ series, offset }) => ({ series, offset: length(offset) })),
      ...(endPlay
        ? {
            endPlay: {
              reading: length(endPlay.reading),
              fitted: length(endPlay.fitted),
              low: length(endPlay.low),
              high: length(endPlay.high),
              aim: length(endPlay.aim),
              weight: endPlay.weight,
            },
          }
        : {}),
    })),
    housings: housings.map(({ bore, boreBand, boreReadings, ...housing }) => ({
      ...housing,
      name: housing.id,
      bore: length(bore),
      ...bandOf('boreBand', boreBand),
      ...bandOf('boreReadings', boreReadings),
    })),
    shells: shells.map((shell) => problemShell(shell, unit)),
    rules: problemRules(rules, unit),
    wishes,
  };
}
