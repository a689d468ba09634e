import { numberOfLength } from '../../measure/formatLength.js';
import type { Nanometres } from '../../measure/nanometres.js';
import type { SizeBand } from '../../measure/sizeBand.js';
import { eachFamily } from '../../part/family.js';
import { type FitRequest, fitRequestSchema } from '../format/fitRequest.js';
import { fitShellOf } from '../format/fitShellOf.js';
import type { FitProblem } from '../model/fitProblem.js';

/** A problem as a request of the open format, for checks that work on written decimals. Halves are named by their ids. */
export function requestOfProblem({ unit, stations, housings, shells, rules, wishes }: FitProblem): FitRequest {
  const length = (value: Nanometres) => numberOfLength(value, unit);
  const band = (given: SizeBand | undefined) => given && { low: length(given.low), high: length(given.high) };
  return fitRequestSchema.parse({
    format: 'fettle.fit-request/1',
    unit,
    stations: stations.map(({ name: _, endPlay, journalBand, journalReadings, ...station }) => ({
      ...station,
      journal: length(station.journal),
      journalBand: band(journalBand),
      journalReadings: band(journalReadings),
      aim: length(station.aim),
      low: length(station.low),
      high: length(station.high),
      offset: length(station.offset),
      offsets: station.offsets.map(({ series, offset }) => ({ series, offset: length(offset) })),
      endPlay: endPlay && {
        reading: length(endPlay.reading),
        fitted: length(endPlay.fitted),
        low: length(endPlay.low),
        high: length(endPlay.high),
        aim: length(endPlay.aim),
        weight: endPlay.weight,
      },
    })),
    housings: housings.map(({ name: _, boreBand, boreReadings, ...housing }) => ({
      ...housing,
      bore: length(housing.bore),
      boreBand: band(boreBand),
      boreReadings: band(boreReadings),
    })),
    shells: shells.map((shell) => fitShellOf({ ...shell, name: shell.id }, unit)),
    rules: {
      ...rules,
      maxWallStep: length(rules.maxWallStep),
      maxSpread: eachFamily((family) => (rules.maxSpread[family] === null ? null : length(rules.maxSpread[family]))),
    },
    wishes,
  });
}
