/** Which sides a family is made in. */
export type Sides = 'both' | 'upper' | 'lower' | 'either';

export const HALF_OPTIONS: readonly { value: Sides; label: string }[] = [
  { value: 'both', label: 'Upper and lower shells' },
  { value: 'upper', label: 'Upper shells only' },
  { value: 'lower', label: 'Lower shells only' },
  { value: 'either', label: 'Shells that fit either side' },
];
