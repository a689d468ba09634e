import { type AcceptedChoice, FAMILY_TABLE, FEATURE_TABLE, type JobStation, type Reading } from '@fettle/core';

/** The stations of an accepted choice of which a bore or a journal was read again since. */
export function readSince(
  stations: ReadonlyMap<string, JobStation>,
  readings: readonly Reading[],
  choice: AcceptedChoice | null,
): ReadonlySet<string> {
  if (choice === null) return new Set();
  const since = readings.filter(({ at, nm }) => nm !== null && at > choice.at);
  const again = [...stations.values()].filter(({ id, family, number, rod }) => {
    if (!choice.stations[id]) return false;
    return since.some(({ feature, station }) => {
      const { family: of, role } = FEATURE_TABLE[feature];
      return of === family && station === (FAMILY_TABLE[family].housingsMove && role === 'housing' ? rod : number);
    });
  });
  return new Set(again.map(({ id }) => id));
}
