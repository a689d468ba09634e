/** Which sides a family is made in. */
export type Sides = 'both' | 'upper' | 'lower' | 'either';

export const HALF_OPTIONS: readonly { value: Sides; label: string }[] = [
  { value: 'both', label: 'Upper and lower halves' },
  { value: 'upper', label: 'Upper halves only' },
  { value: 'lower', label: 'Lower halves only' },
  { value: 'either', label: 'Halves that fit either side' },
];
