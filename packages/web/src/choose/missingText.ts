import type { SetSaving } from '@fettle/core';

/** Stations that are named of what one more set would change. */
const MOST_CHANGES = 3;

/**
 * What is short, as a fitter says it: `One pair of grade 5 is missing: with it M3 and M4 would be at 0.032 mm.`
 *
 * @param clearanceAt a station's clearance so far off its target, with its unit
 */
export function missingText(
  grade: string,
  changes: SetSaving['changes'],
  unmixed: readonly string[],
  clearanceAt: (station: string, off: number) => string,
): string {
  const stationsAt = new Map<string, string[]>();
  for (const { station, after } of changes.slice(0, MOST_CHANGES)) {
    const clearance = clearanceAt(station, after);
    stationsAt.set(clearance, [...(stationsAt.get(clearance) ?? []), station]);
  }
  const list = (ids: readonly string[]) =>
    ids.length < 2 ? ids.join('') : `${ids.slice(0, -1).join(', ')} and ${ids.at(-1)}`;
  const at = [...stationsAt].map(([clearance, ids]) => `${list(ids)} would be at ${clearance}`);
  const rest = changes.length - MOST_CHANGES;
  const more = rest > 0 ? [`${rest} more ${rest === 1 ? 'station' : 'stations'} would change`] : [];
  const plain = unmixed.length > 0 ? [`${list(unmixed)} would not be mixed`] : [];
  return `One pair of ${grade} is missing: with it ${[...at, ...more, ...plain].join('; ')}.`;
}
