import type { FitRemedy } from '../format/fitPlan.js';
import type { FitRequest } from '../format/fitRequest.js';

/** A request after a remedy of its plan was applied to it, by the words of the format alone. */
export function remedied(request: FitRequest, remedy: FitRemedy): FitRequest {
  const more = new Map(remedy.shells.map(({ id, count }) => [id, count]));
  const [station] = remedy.stations;
  const isHere = (id: string) => id === station;
  const { maxSpread, ...rules } = remedy.rules ?? {};
  const isElsewhere = (wish: { station: string }) => remedy.kind !== 'release' || !isHere(wish.station);
  return {
    ...request,
    stations: request.stations.map((one) => {
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
    housings: request.housings.map((one) => (remedy.housings?.includes(one.id) ? { ...one, station: null } : one)),
    shells: [
      ...request.shells.map((shell) => ({
        ...shell,
        stock: shell.stock === null ? null : shell.stock + (more.get(shell.id) ?? 0),
      })),
      ...(remedy.newShells ?? []).map((shell) => ({ ...shell, price: 0 })),
    ],
    rules: {
      ...request.rules,
      ...rules,
      maxSpread: { ...request.rules.maxSpread, ...maxSpread },
    } as FitRequest['rules'],
    wishes: { hold: request.wishes.hold.filter(isElsewhere), forbid: request.wishes.forbid.filter(isElsewhere) },
  };
}
