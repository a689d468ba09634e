import type { CameApartMembers, OldHalf, OldStation } from './cameApartPart.js';
import { LOOKS, suggestedLooks, wearPattern } from './wearPatterns.js';

/** What was found as a station came apart, with what it suggests: it is looked at again before the station goes together. */
export interface FoundApart {
  /** What it is kept under as a check: `apart-upper`, `apart-lower`, `apart-cap`. */
  readonly key: string;
  readonly what: string;
  readonly why: string;
}

const SIDES = { upper: 'upper shell', lower: 'lower shell' } as const;

/** True if something was said of an old shell. */
export function isDescribed({ patterns, words, photo }: OldHalf): boolean {
  return patterns.length > 0 || words !== '' || photo !== null;
}

/** How an old shell looked, in words: `wiped, one edge worn; lug bent`. */
export function halfWords({ patterns, words }: Pick<OldHalf, 'patterns' | 'words'>): string {
  const named = patterns.map((pattern) => wearPattern(pattern).name.toLowerCase()).join(', ');
  return [named, words].filter((one) => one !== '').join('; ');
}

/** What is odd of a cap: its arrow pointed to the rear, or it carried the number of another station. */
function capFound(station: string, { arrow, number }: OldStation): string | null {
  const own = station.replace(/\D/gu, '');
  const stamped = number.replace(/\D/gu, '');
  const odd = [
    ...(arrow === 'rear' ? ['its arrow to the rear'] : []),
    ...(stamped !== '' && stamped !== own ? [`number ${number} on it`] : []),
  ];
  return odd.length === 0 ? null : `Cap came off with ${odd.join(' and ')}`;
}

/**
 * What was found as a station came apart that is to be looked at again when it goes together; nothing for shells that wore as they should.
 *
 * @example foundApart({ cameApart: { stations: {}, endPlay: null, words: '' } }, 'M1') // []
 */
export function foundApart({ cameApart }: CameApartMembers, station: string): FoundApart[] {
  const found = Object.hasOwn(cameApart.stations, station) ? cameApart.stations[station]! : null;
  if (!found) return [];
  const halves = (['upper', 'lower'] as const).flatMap((side): FoundApart[] => {
    const half = found[side];
    const looks = suggestedLooks(half.patterns);
    if (looks.length === 0 && half.words === '') return [];
    const why =
      looks.length === 0
        ? 'put right what caused it before the new shell goes in'
        : `look at: ${looks.map((look) => LOOKS[look]).join('; ')}`;
    return [{ key: `apart-${side}`, what: `Cause found: old ${SIDES[side]} ${halfWords(half)}`, why }];
  });
  const cap = capFound(station, found);
  if (cap === null) return halves;
  return [
    ...halves,
    { key: 'apart-cap', what: cap, why: `settle where it belongs; look at: ${LOOKS.housing}, with the cap torqued` },
  ];
}
