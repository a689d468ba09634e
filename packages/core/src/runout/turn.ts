import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Turn } from './runoutSchema.js';

export interface TurnRead {
  /** How many readings there are. */
  readonly count: number;
  /** Total indicator reading: the largest less the smallest. */
  readonly tir: Nanometres;
  /**
   * How many times worse the angles tell what swings once a turn than as many evenly spaced ones would: 1 at best, Infinity where they do
   * not tell it at all.
   */
  readonly condition: number;
  /** What swings once a turn, `mean + swing · cos(angle − at)`; null where the readings do not tell it. */
  readonly once: {
    /** Half of what the dial swings once a turn: how far the axis is off, nm. */
    readonly swing: number;
    /** Angle at which it is highest, degrees, 0 to below 360. */
    readonly at: number;
    readonly mean: number;
  } | null;
  /** Total indicator reading of what is left when that is taken out: the part is out of round, or dirty; null where it is not told. */
  readonly rest: Nanometres | null;
}

/** Readings over a turn tell what swings once in it only where they go round it: four at least, no gap of half a turn. */
const FEWEST = 4;
const WIDEST_GAP = 180;
/** Angles that lie in a cluster make a swing out of the scatter of the readings: worse than this they are refused. A setting of ours. */
const WORST_CONDITION = 1.5;

/** Solves three linear equations by elimination with the largest pivot first; null where they do not tell. */
function solved(rows: number[][]): number[] | null {
  for (let at = 0; at < 3; at += 1) {
    const pivot = [...rows.keys()]
      .slice(at)
      .sort((one, other) => Math.abs(rows[other]![at]!) - Math.abs(rows[one]![at]!))[0]!;
    [rows[at], rows[pivot]] = [rows[pivot]!, rows[at]!];
    if (Math.abs(rows[at]![at]!) < 1e-9) return null;
    for (let other = 0; other < 3; other += 1) {
      if (other === at) continue;
      const share = rows[other]![at]! / rows[at]![at]!;
      for (let column = at; column < 4; column += 1) rows[other]![column]! -= share * rows[at]![column]!;
    }
  }
  return rows.map((row, at) => row[3]! / row[at]!);
}

/** How many times worse some angles tell the swing than as many evenly spaced ones: by the larger axis of its covariance. */
function conditionOf(normal: readonly (readonly number[])[], count: number): number {
  const column = (at: number) => solved(normal.map((row, own) => [...row, own === at ? 1 : 0]));
  const [cosine, sine] = [column(1), column(2)];
  if (!cosine || !sine) return Number.POSITIVE_INFINITY;
  const [a, b, d] = [cosine[1]!, cosine[2]!, sine[2]!];
  const largest = (a + d) / 2 + Math.hypot((a - d) / 2, b);
  return Math.sqrt((largest * count) / 2);
}

/**
 * What a dial showed round a turn: its total reading, and by least squares the part that comes once a turn, which an axis that is off makes,
 * apart from what a part that is out of round makes.
 *
 * @returns null with fewer than two readings
 */
export function turnRead(turn: Turn): TurnRead | null {
  const read = Object.entries(turn)
    .flatMap(([angle, { nm }]) => (nm === null ? [] : [{ angle: Number(angle), nm: nm as number }]))
    .sort((one, other) => one.angle - other.angle);
  if (read.length < 2) return null;
  const values = read.map(({ nm }) => nm);
  const tir = nanometres(Math.max(...values) - Math.min(...values));
  const gaps = read.map(({ angle }, at) => (at === 0 ? angle + 360 - read.at(-1)!.angle : angle - read[at - 1]!.angle));
  const basis = (angle: number) => {
    const radians = (angle * Math.PI) / 180;
    return [1, Math.cos(radians), Math.sin(radians)];
  };
  const rows = [0, 1, 2].map((row) => [
    ...[0, 1, 2].map((column) => read.reduce((sum, { angle }) => sum + basis(angle)[row]! * basis(angle)[column]!, 0)),
    read.reduce((sum, { angle, nm }) => sum + basis(angle)[row]! * nm, 0),
  ]);
  const condition = conditionOf(
    rows.map((row) => row.slice(0, 3)),
    read.length,
  );
  const isTold = read.length >= FEWEST && Math.max(...gaps) < WIDEST_GAP && condition <= WORST_CONDITION;
  const found = isTold ? solved(rows) : null;
  if (!found) return { count: read.length, tir, condition, once: null, rest: null };
  const [mean, cosine, sine] = found as [number, number, number];
  const left = read.map(({ angle, nm }) => nm - basis(angle).reduce((sum, one, at) => sum + one * found[at]!, 0));
  const at = (Math.atan2(sine, cosine) * 180) / Math.PI;
  return {
    count: read.length,
    tir,
    condition,
    once: { swing: Math.hypot(cosine, sine), at: (at + 360) % 360, mean },
    rest: nanometres(Math.round(Math.max(...left) - Math.min(...left))),
  };
}

/**
 * How far a shaft is bent where a dial was read while it turned on its two outer mains: half of the total reading. Common practice.
 *
 * @example bentBy(76_200) // 38100
 */
export function bentBy(tir: number): Nanometres {
  return nanometres(Math.round(tir / 2));
}
