import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { EndPlay } from './endPlaySchema.js';

/**
 * The aim of the end play: the figure that is set, where it lies within the limits; else their middle.
 *
 * @example endPlayAim({ aim: null }, { low: 100_000, high: 150_000 }) // 125000
 */
export function endPlayAim(
  { aim }: Pick<EndPlay, 'aim'>,
  { low, high }: { readonly low: Nanometres; readonly high: Nanometres },
): Nanometres {
  return aim !== null && aim >= low && aim <= high ? aim : nanometres(Math.round((low + high) / 2));
}
