import type { Use } from './reorderLevel.js';

/** What is asked of the time ahead. */
export interface Ahead {
  /** How far ahead, months, above 0. */
  readonly months: number;
  /** Engines on the benches that have no shells selected yet: those come for certain. */
  readonly onBench: number;
  /** Pieces that are free in stock. */
  readonly free: number;
  /** Wanted chance that they last, above 0, below 1. */
  readonly service: number;
}

/** What will be needed of something, by chance. */
export interface NeedAhead {
  /** Pieces that are expected to be needed. */
  readonly expected: number;
  /** Chance that what is free lasts. */
  readonly lasts: number;
  /** The smallest stock that lasts with the wanted chance. */
  readonly wanted: number;
}

/** What is left out of the engines that may come, as a chance. */
const LEFT_OUT = 1e-9;
/** More engines than this are not looked for. */
const MOST_ENGINES = 3000;
/** No stock above it is looked for. */
const MOST_PIECES = 10_000;

/**
 * How many engines are selected in the time ahead, by chance: as many as came before make likely (a negative binomial, as in `reorderLevel`), and those
 * on the benches at the least.
 *
 * @returns chances from `onBench` engines on, their sum 1
 */
function enginesAhead(engines: number, months: number, { months: ahead, onBench }: Ahead): number[] {
  const shape = engines + 1 / 2;
  const share = ahead / (months + ahead);
  // In logarithms: the chance of none may be too small for a number.
  let log = shape * Math.log(1 - share);
  let first = 0;
  const chances: number[] = [];
  for (let count = 0; count <= MOST_ENGINES; count += 1) {
    if (count > 0) log += Math.log(((shape + count - 1) / count) * share);
    if (count < onBench) continue;
    if (count === onBench) first = log;
    const chance = Math.exp(log - first);
    chances.push(chance);
    // Past the most likely number each is less likely than the one before, by a factor that only falls.
    const factor = ((shape + count) / (count + 1)) * share;
    if (factor < 1 && (chance * factor) / (1 - factor) < LEFT_OUT * chances.reduce((sum, one) => sum + one, 0)) break;
  }
  const whole = chances.reduce((sum, one) => sum + one, 0);
  return chances.map((chance) => chance / whole);
}

/**
 * What will be needed of a kind of shell in the time ahead, against what is free: engines on the benches for certain, others by how many came before, each
 * taking as many pieces as engines before it did.
 *
 * @example needAhead({ engines: 0, months: 12, taken: [] }, { months: 1, onBench: 0, free: 0, service: 0.9 }).wanted // 0
 */
export function needAhead({ engines, months, taken }: Use, ahead: Ahead): NeedAhead {
  const whole = Math.max(1, engines);
  const chances = taken.map(({ pieces, engines: count }) => ({ pieces, chance: count / whole }));
  const none = 1 - chances.reduce((sum, { chance }) => sum + chance, 0);
  const each = chances.reduce((sum, { pieces, chance }) => sum + pieces * chance, 0);
  const square = chances.reduce((sum, { pieces, chance }) => sum + pieces ** 2 * chance, 0);
  const counts = enginesAhead(engines, months, ahead);
  const mean = counts.reduce((sum, chance, at) => sum + chance * (at + ahead.onBench), 0);
  const spread = counts.reduce((sum, chance, at) => sum + chance * (at + ahead.onBench - mean) ** 2, 0);
  const deviation = Math.sqrt(mean * (square - each ** 2) + spread * each ** 2);
  const most = Math.min(MOST_PIECES, Math.ceil(mean * each + 12 * deviation) + 20);
  // Pieces that so many engines take, by chance, engine after engine.
  let taking = new Float64Array(most + 1);
  taking[0] = 1;
  const needed = new Float64Array(most + 1);
  const last = ahead.onBench + counts.length - 1;
  for (let count = 0; count <= last; count += 1) {
    const chance = counts[count - ahead.onBench];
    if (chance !== undefined) for (let at = 0; at <= most; at += 1) needed[at]! += chance * taking[at]!;
    if (count === last) break;
    const next = new Float64Array(most + 1);
    for (let at = 0; at <= most; at += 1) {
      let sum = none * taking[at]!;
      for (const { pieces, chance: own } of chances) if (pieces <= at) sum += own * taking[at - pieces]!;
      next[at] = sum;
    }
    taking = next;
  }
  let reached = 0;
  let lasts = 0;
  let wanted = most;
  for (let at = 0; at <= most; at += 1) {
    reached += needed[at]!;
    if (at <= ahead.free) lasts = reached;
    if (reached >= ahead.service && wanted === most) wanted = at;
  }
  return { expected: mean * each, lasts: Math.min(1, lasts), wanted };
}
