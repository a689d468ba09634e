import { type ChoiceLimits, hasEnded } from '../fit/search/choiceLimits.js';
import { DrawnEngines } from './DrawnEngines.js';
import { chanceOf, type KitChance } from './kitChance.js';
import type { KitQuestion } from './kitQuestion.js';

/** Halves that are bought together: an upper and a lower of one wall, two that fit either side, or a single one without its like. */
export interface KitUnit {
  /** Their ids in the question; one that fits either side stands there twice. */
  readonly shells: readonly string[];
  /** What the unit costs; 0 where no prices are given. */
  readonly price: number;
}

/** A kit with one unit more or less. */
export interface KitStep extends KitUnit {
  /** Chance with the kit changed by this unit. */
  readonly chance: KitChance;
  /** By how much the chance changes, above zero for more, below for less. */
  readonly by: number;
}

export interface KitAdvice {
  /** Halves that should be on the shelf, those that are there already included, by shell of the question. */
  readonly shelf: readonly { readonly id: string; readonly count: number }[];
  /** What of them is not on the shelf yet. */
  readonly order: readonly { readonly id: string; readonly count: number }[];
  readonly price: number;
  /** Of the kit, on engines that it was not made from. */
  readonly chance: KitChance;
  /** With what is on the shelf already. */
  readonly before: KitChance;
  /** With as many of every grade as wanted: no kit can do better. */
  readonly ceiling: KitChance;
  /** True if the kit reaches what was asked for on the engines it was made from. */
  readonly isReached: boolean;
  /** What one more unit would bring, the best first; those that bring nothing are left out. */
  readonly more: readonly KitStep[];
  /** What one unit less would cost in chance, the dearest first. */
  readonly less: readonly KitStep[];
}

export interface KitProgress {
  readonly stage: 'drawing' | 'trimming' | 'checking';
  /** Share of the stage that is done, 0 to 1. */
  readonly done: number;
}

/** Engines that the kit is made from; the chance is told from others, of which there are as many as the question asks for. */
const TRIMMED_ON = 2000;
const PER_REPORT = 200;

/** The units that a question's shells can be bought in, in the order of the shells. */
function unitsOf(question: KitQuestion): number[][] {
  const { shells } = question;
  const like = (one: number, other: number) =>
    shells[one]!.family === shells[other]!.family &&
    shells[one]!.series === shells[other]!.series &&
    shells[one]!.undersize === shells[other]!.undersize &&
    shells[one]!.wall === shells[other]!.wall &&
    JSON.stringify(shells[one]!.positions) === JSON.stringify(shells[other]!.positions);
  const taken = new Set<number>();
  return shells.flatMap((shell, at): number[][] => {
    if (taken.has(at)) return [];
    taken.add(at);
    if (shell.half === 'either') return [[at, at]];
    const other = shells.findIndex(
      ({ half }, next) => !taken.has(next) && half !== 'either' && half !== shell.half && like(at, next),
    );
    if (other === -1) return [[at]];
    taken.add(other);
    return [[at, other]];
  });
}

function withUnit(shelf: readonly number[], unit: readonly number[], sign: 1 | -1): number[] {
  const changed = [...shelf];
  for (const shell of unit) changed[shell]! += sign;
  return changed;
}

/** What every stage of the advice works with. */
interface KitRun {
  readonly question: KitQuestion;
  readonly units: readonly number[][];
  /** Halves there are already, by number of the shell in the question. */
  readonly onShelf: readonly number[];
  readonly unlimited: readonly number[];
  readonly limits: ChoiceLimits;
  readonly isStopped: () => boolean;
  readonly report: (stage: KitProgress['stage'], done: number) => void;
}

/** A kit: halves by number of the shell in the question. */
type Shelf = readonly number[];

function priceOf({ question }: KitRun, unit: readonly number[]): number {
  return unit.reduce((sum, shell) => sum + question.shells[shell]!.price, 0);
}

/** Engines that were drawn, and a shelf from which each of them is fitted that can be; null once time is up. */
function drawnShelf(run: KitRun, count: number, random: () => number): { made: DrawnEngines; shelf: Shelf } | null {
  const made = new DrawnEngines(run.question, run.limits);
  let shelf = [...run.onShelf];
  for (let at = 0; at < count; at += 1) {
    if (run.isStopped()) return null;
    const engine = made.draw(random);
    if (made.fits(engine, run.unlimited)) {
      for (const { known } of engine) shelf = shelf.map((most, shell) => Math.max(most, known[0]![shell]!));
    }
    if (at % PER_REPORT === 0) run.report('drawing', at / count);
  }
  // Halves are bought by the unit: of an upper and its lower as many.
  for (const unit of run.units) {
    if (unit.length === 1 || unit[0] === unit[1]) continue;
    const most = Math.max(...unit.map((shell) => shelf[shell]!));
    for (const shell of unit) shelf[shell] = most;
  }
  return { made, shelf };
}

/** Takes the unit away that the fewest engines need, and again, for as long as enough of them can be fitted; null once time is up. */
function trimmed(
  run: KitRun,
  made: DrawnEngines,
  full: Shelf,
  needed: number,
): { shelf: Shelf; isReached: boolean } | null {
  let shelf = full;
  let covered = made.engines.filter((engine) => made.fits(engine, shelf));
  const isReached = covered.length >= needed;
  const least = Math.min(needed, covered.length);
  const dearestFirst = [...run.units].sort((a, b) => priceOf(run, b) - priceOf(run, a) || b.length - a.length);
  const begun = shelf.reduce((sum, halves) => sum + halves, 0);
  // What a unit cost when it was last tried: it hardly ever costs less on a smaller shelf, so the others can wait their turn.
  const lostBefore = new Map(dearestFirst.map((unit) => [unit, 0]));
  const open = new Set(dearestFirst);
  while (open.size > 0) {
    let best: { unit: number[]; shelf: Shelf; covered: typeof covered; lost: number } | null = null;
    for (const unit of [...open].sort((a, b) => lostBefore.get(a)! - lostBefore.get(b)!)) {
      if (run.isStopped()) return null;
      if (best && lostBefore.get(unit)! >= best.lost) break;
      const fewer = withUnit(shelf, unit, -1);
      if (unit.some((shell) => fewer[shell]! < run.onShelf[shell]!)) {
        open.delete(unit);
        continue;
      }
      // Engines that fell out stay out: a smaller shelf fits no more of them.
      const may = covered.length - least;
      let lost = 0;
      const still = covered.filter((engine) => {
        if (lost > may) return false;
        const isIn = made.fits(engine, fewer);
        if (!isIn) lost += 1;
        return isIn;
      });
      lostBefore.set(unit, lost);
      // A unit that cannot be spared now cannot be spared later.
      if (lost > may) open.delete(unit);
      else if (!best || lost < best.lost) best = { unit, shelf: fewer, covered: still, lost };
    }
    if (!best) break;
    ({ shelf, covered } = best);
    run.report('trimming', 1 - shelf.reduce((sum, halves) => sum + halves, 0) / begun);
  }
  return { shelf, isReached };
}

/** How many of fresh engines a kit fits, before and at best, and what a unit more or less does to that; null once time is up. */
function checked(
  run: KitRun,
  shelf: Shelf,
  random: () => number,
): Pick<KitAdvice, 'chance' | 'before' | 'ceiling' | 'more' | 'less'> | null {
  const { question, units, onShelf, unlimited } = run;
  const fresh = new DrawnEngines(question, run.limits);
  let [hitsBefore, hitsCeiling] = [0, 0];
  const fitting: typeof fresh.engines = [];
  for (let at = 0; at < question.engines; at += 1) {
    if (run.isStopped()) return null;
    const engine = fresh.draw(random);
    const isFitting = fresh.fits(engine, shelf);
    if (isFitting || fresh.fits(engine, unlimited)) hitsCeiling += 1;
    if (isFitting) {
      fitting.push(engine);
      if (fresh.fits(engine, onShelf)) hitsBefore += 1;
    }
    if (at % PER_REPORT === 0) run.report('checking', at / question.engines);
  }
  const chance = chanceOf(fitting.length, question.engines);
  const step = (unit: readonly number[], sign: 1 | -1): KitStep => {
    const changed = withUnit(shelf, unit, sign);
    const within = sign === 1 ? fresh.engines : fitting;
    const share = chanceOf(within.filter((engine) => fresh.fits(engine, changed)).length, question.engines);
    return {
      shells: unit.map((shell) => question.shells[shell]!.id),
      price: priceOf(run, unit),
      chance: share,
      by: share.chance - chance.chance,
    };
  };
  const more = units.map((unit) => step(unit, 1)).filter(({ by }) => by > 0);
  const less = units.filter((unit) => unit.every((shell) => shelf[shell]! > 0)).map((unit) => step(unit, -1));
  if (run.isStopped()) return null;
  return {
    chance,
    before: chanceOf(hitsBefore, question.engines),
    ceiling: chanceOf(hitsCeiling, question.engines),
    more: more.sort((a, b) => b.by - a.by),
    less: less.sort((a, b) => a.by - b.by),
  };
}

/**
 * Which halves should be on the shelf so that an engine known by its bands can be fitted with a chance of at least `target`. Engines
 * are drawn from the bands; the kit begins with all that they take and is trimmed unit by unit, always the one that costs least
 * chance (dearest first among equals), until none can go. It is therefore a kit of which no unit can be left out, not proven to be the
 * smallest of all. Its chance is told from engines that were drawn afresh, so that it does not flatter itself.
 *
 * @param question its stock is what is on the shelf already: null counts as none; the kit never goes below it
 * @param target chance asked for, 0 to 1
 * @param random numbers in [0, 1): the core has no randomness of its own
 * @returns null when it was stopped
 */
export function kitAdvice(
  question: KitQuestion,
  target: number,
  random: () => number,
  limits: ChoiceLimits & { readonly onKitProgress?: (progress: KitProgress) => void } = {},
): KitAdvice | null {
  const onShelf = question.shells.map(({ stock }) => stock ?? 0);
  const run: KitRun = {
    question,
    units: unitsOf(question),
    onShelf,
    unlimited: question.shells.map(() => Number.POSITIVE_INFINITY),
    limits,
    isStopped: () => hasEnded(limits),
    report: (stage, done) => limits.onKitProgress?.({ stage, done }),
  };
  const count = Math.min(TRIMMED_ON, question.engines);
  const drawn = drawnShelf(run, count, random);
  const kit = drawn && trimmed(run, drawn.made, drawn.shelf, Math.ceil(target * count - 1e-9));
  const found = kit && checked(run, kit.shelf, random);
  if (!found) return null;
  const listed = (counts: readonly number[]) =>
    counts.flatMap((halves, shell) => (halves > 0 ? [{ id: question.shells[shell]!.id, count: halves }] : []));
  const order = kit.shelf.map((halves, shell) => Math.max(0, halves - onShelf[shell]!));
  return {
    shelf: listed(kit.shelf),
    order: listed(order),
    price: order.reduce((sum, halves, shell) => sum + halves * question.shells[shell]!.price, 0),
    isReached: kit.isReached,
    ...found,
  };
}
