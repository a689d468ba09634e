import { lengthOfNumber } from '../../measure/lengthOfNumber.js';
import { nanometres } from '../../measure/nanometres.js';
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

function bandOf(written: Written | undefined, unit: Unit): SizeBand | undefined {
  return written && { low: lengthOfNumber(written.low, unit), high: lengthOfNumber(written.high, unit) };
}

/** The rules of a request in whole nanometres, what is left out filled in. */
export function problemRules(rules: FitRequest['rules'], unit: Unit): ProblemRules {
  return {
    mixedHalves: rules.mixedHalves,
    acrossSeries: rules.acrossSeries,
    thinnerHalf: rules.thinnerHalf,
    tightWeight: rules.tightWeight,
    mixedPenalty: rules.mixedPenalty,
    pricePenalty: rules.pricePenalty,
    maxWallStep: rules.maxWallStep === undefined ? USUAL_WALL_STEP : lengthOfNumber(rules.maxWallStep, unit),
    maxSpread: eachFamily((family) =>
      rules.maxSpread[family] === null ? null : lengthOfNumber(rules.maxSpread[family], unit),
    ),
    limitShare: rules.limitShare ?? USUAL_LIMIT_SHARE,
  };
}

/** A shell of a request in whole nanometres. */
export function problemShell(shell: FitShell, unit: Unit): ProblemShell {
  return {
    id: shell.id,
    name: shell.id,
    family: shell.family,
    series: shell.series,
    half: shell.half,
    wall: lengthOfNumber(shell.wall, unit),
    wallBand: bandOf(shell.wallBand, unit),
    width: shell.width === undefined ? undefined : lengthOfNumber(shell.width, unit),
    positions: shell.positions,
    undersize: shell.undersize,
    stock: shell.stock,
    price: shell.price,
  };
}

/**
 * Reads a request of the open format into what the search is asked. In the open format an id is the name as well.
 *
 * @param request a valid request (see `readFitRequest`)
 */
export function problemOfRequest({ unit, stations, housings, shells, rules, wishes }: FitRequest): FitProblem {
  return {
    unit,
    stations: stations.map((station) => ({
      id: station.id,
      name: station.id,
      engine: station.engine,
      family: station.family,
      journal: lengthOfNumber(station.journal, unit),
      journalBand: bandOf(station.journalBand, unit),
      journalReadings: bandOf(station.journalReadings, unit),
      position: station.position,
      aim: lengthOfNumber(station.aim, unit),
      low: lengthOfNumber(station.low, unit),
      high: lengthOfNumber(station.high, unit),
      offset: lengthOfNumber(station.offset, unit),
      offsets: station.offsets.map(({ series, offset }) => ({ series, offset: lengthOfNumber(offset, unit) })),
      inSpread: station.inSpread,
      endPlay: station.endPlay && {
        reading: lengthOfNumber(station.endPlay.reading, unit),
        fitted: lengthOfNumber(station.endPlay.fitted, unit),
        low: lengthOfNumber(station.endPlay.low, unit),
        high: lengthOfNumber(station.endPlay.high, unit),
        aim: lengthOfNumber(station.endPlay.aim, unit),
        weight: station.endPlay.weight,
      },
    })),
    housings: housings.map(({ id, engine, family, bore, boreBand, boreReadings, station }) => ({
      id,
      name: id,
      engine,
      family,
      bore: lengthOfNumber(bore, unit),
      boreBand: bandOf(boreBand, unit),
      boreReadings: bandOf(boreReadings, unit),
      station,
    })),
    shells: shells.map((shell) => problemShell(shell, unit)),
    rules: problemRules(rules, unit),
    wishes,
  };
}
