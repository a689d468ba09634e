import type { FitProblem } from '../model/fitProblem.js';
import type { Remedy } from '../model/fitSolution.js';

/** The problem after a remedy of one of its conflicts was applied to it. */
export function applyRemedy(problem: FitProblem, remedy: Remedy): FitProblem {
  const more = new Map(remedy.shells.map(({ id, count }) => [id, count]));
  const [station] = remedy.stations;
  const isHere = (id: string) => id === station;
  const { maxSpread, ...rules } = remedy.rules ?? {};
  const isElsewhere = (wish: { station: string }) => remedy.kind !== 'release' || !isHere(wish.station);
  return {
    ...problem,
    stations: problem.stations.map((one) => {
      if (!isHere(one.id)) return one;
      // What was read of a journal before it was ground says nothing of it afterwards.
      const {
        journalReadings: _readings,
        journalBand: _band,
        ...ground
      } = { ...one, journal: remedy.journal ?? one.journal };
      return {
        ...(remedy.journal === undefined ? one : ground),
        ...(remedy.limit ? { [remedy.limit.side]: remedy.limit.value } : {}),
      };
    }),
    housings: problem.housings.map((one) => (remedy.housings?.includes(one.id) ? { ...one, station: null } : one)),
    shells: [
      ...problem.shells.map((shell) => ({
        ...shell,
        stock: shell.stock === null ? null : shell.stock + (more.get(shell.id) ?? 0),
      })),
      ...(remedy.newShells ?? []),
    ],
    rules: {
      ...problem.rules,
      ...rules,
      maxSpread: { ...problem.rules.maxSpread, ...maxSpread },
    },
    wishes: { hold: problem.wishes.hold.filter(isElsewhere), forbid: problem.wishes.forbid.filter(isElsewhere) },
  };
}
