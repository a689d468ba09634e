import { type Nanometres, nanometres } from '../../measure/nanometres.js';
import { INSTRUMENT_DECIMALS, NANOMETRES_PER, type Unit } from '../../measure/unit.js';

/** Walls named for one place at most. */
const MOST_WALLS = 9;

/**
 * Walls within a range that could be asked for: whole steps of an ordinary instrument, those nearest to the aim first; where the range
 * holds none, the one on the aim to the nanometre.
 *
 * @param least the range, nm
 */
export function newWalls(least: number, most: number, aim: number, unit: Unit): Nanometres[] {
  const step = NANOMETRES_PER[unit] / 10 ** INSTRUMENT_DECIMALS[unit];
  const [low, high] = [Math.ceil(Math.max(least, 1)), Math.floor(most)];
  if (low > high) return [];
  const first = Math.ceil(low / step);
  const last = Math.floor(high / step);
  if (first > last) return [nanometres(Math.min(high, Math.max(low, Math.round(aim))))];
  const near = Math.min(last, Math.max(first, Math.round(aim / step)));
  const steps: number[] = [];
  for (let off = 0; steps.length < MOST_WALLS && (near - off >= first || near + off <= last); off += 1) {
    if (near + off <= last) steps.push(near + off);
    if (off > 0 && near - off >= first && steps.length < MOST_WALLS) steps.push(near - off);
  }
  return steps.map((at) => nanometres(at * step));
}
