import type { NoPieceChoice, ShimOutcome, ShimPlace } from '@fettle/core';

const PLACES: Readonly<Record<ShimPlace, string>> = {
  stack: 'Stack',
  'front.upper': 'Front, upper',
  'front.lower': 'Front, lower',
  'rear.upper': 'Rear, upper',
  'rear.lower': 'Rear, lower',
  upper: 'Upper',
  lower: 'Lower',
  left: 'Left',
  right: 'Right',
};

/** What the place of a piece is called. */
export function placeName(place: ShimPlace): string {
  return PLACES[place];
}

const BROKEN: Readonly<Record<ShimOutcome['broken'][number], string>> = {
  low: 'below the low limit',
  high: 'above the high limit',
  shift: 'the shaft would move too far',
  'not-alike': 'the washers of a face are not alike',
  stock: 'more than in stock',
};

/** What a choice breaks, in words. */
export function brokenWords(broken: ShimOutcome['broken']): string {
  return broken.map((one) => BROKEN[one]).join(', ');
}

/** What is to be done before pieces can be chosen for the end play. */
export const NO_CHOICE_WORDS: Readonly<Record<NoPieceChoice, string>> = {
  'no-kind': 'Set below what takes the thrust: washers, a flanged shell or rings.',
  'no-limits': 'No limits on the data sheet yet: enter them there with their source.',
  'not-read': 'No readings yet.',
  'no-fitted': 'Enter below what is fitted now, as measured.',
  'no-shims': 'These joints have no shims: shells and bore set the crush.',
  uneven: 'End play at 0° and 180° differs by more than the limits allow: no washer or shim brings both inside.',
  'no-pieces': 'No such washers or shims: add them under Stock, or use workshop stock.',
};
