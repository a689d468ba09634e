import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { LinePoint } from '../measure/straightLine.js';
import type { CrankLayout } from '../part/crankLayout.js';
import type { Runout } from '../runout/runoutSchema.js';
import { bentBy, turnRead } from '../runout/turn.js';
import type { MainLine } from './mainLinePart.js';
import { offNeighbours, type Straightness, straightness } from './straightness.js';

/** A direction in which the line of the mains is read. */
export const LINE_DIRECTIONS = ['height', 'side'] as const;
export type LineDirection = (typeof LINE_DIRECTIONS)[number];

/** What is known of one main in one direction. */
export interface MainOff {
  /** `M3`. */
  readonly main: string;
  /** As it was read off the bar, nm. */
  readonly read: Nanometres;
  /** What it is off the least-squares line of all, nm. */
  readonly offLine: Nanometres;
  /** What it is off the straight line through the mains beside it, nm; null at the ends, or where one of those was not read. */
  readonly offNeighbours: Nanometres | null;
  /** What it is off the straight line through the first and the last main, nm; null where one of those was not read. */
  readonly offEnds: Nanometres | null;
}

/** The line of the mains in one direction. */
export interface LineRead {
  readonly direction: LineDirection;
  readonly mains: readonly MainOff[];
  readonly straightness: Straightness;
  /** True if the mains are taken as evenly spaced, because their distances were not given. */
  readonly isEven: boolean;
}

/** The mains of an engine by name, from the front. */
export function mainNames({ mains }: Pick<CrankLayout, 'mains'>): string[] {
  return Array.from({ length: mains }, (_, at) => `M${at + 1}`);
}

/** Where each main lies along the shaft: as it was given, or evenly where any distance is missing, or they do not grow from front to rear. */
function placesOf(
  names: readonly string[],
  { place }: MainLine,
): { readonly places: readonly number[]; readonly isEven: boolean } {
  const given = names.map((name, at) => (at === 0 ? 0 : (place[name]?.nm ?? null)));
  const isGiven = given.every((value, at) => value !== null && (at === 0 || value > given[at - 1]!));
  return isGiven ? { places: given as number[], isEven: false } : { places: names.map((_, at) => at), isEven: true };
}

const round = (value: number) => nanometres(Math.round(value));

/**
 * The line of the mains in one direction.
 *
 * @returns null with fewer than three mains read: two always lie in a line
 */
export function lineRead(
  layout: Pick<CrankLayout, 'mains'>,
  line: MainLine,
  direction: LineDirection,
): LineRead | null {
  const names = mainNames(layout);
  const { places, isEven } = placesOf(names, line);
  const points = names.map((name, at): LinePoint | null => {
    const value = line[direction][name]?.nm ?? null;
    return value === null ? null : { at: places[at]!, value };
  });
  const read = points.flatMap((point, at) => (point ? [{ point, at }] : []));
  if (read.length < 3) return null;
  const whole = straightness(read.map(({ point }) => point));
  const [first, last] = [points[0] ?? null, points.at(-1) ?? null];
  const mains = read.map(({ point, at }, nth): MainOff => {
    const [before, after] = [points[at - 1] ?? null, points[at + 1] ?? null];
    return {
      main: names[at]!,
      read: round(point.value),
      offLine: round(whole.off[nth]!),
      offNeighbours: before && after ? round(offNeighbours(before, point, after)) : null,
      offEnds:
        first && last
          ? point === first || point === last
            ? round(0)
            : round(offNeighbours(first, point, last))
          : null,
    };
  });
  return { direction, mains, straightness: whole, isEven };
}

/** What the bends of line and shaft may take from the oil clearance of one main. */
export interface BendTakes {
  readonly main: string;
  /** The least and the most of it over a turn, nm. */
  readonly low: Nanometres;
  readonly high: Nanometres;
}

/**
 * What the bends of line and shaft may take from the oil clearance of each main, as a range over a turn. A stiff shaft that its two outer mains
 * carry stands off the middle of a bore by what the bore is off their line, `e`, and by the bend of the shaft there, half its total reading,
 * which turns with it: together between `|e − TIR/2|` and `e + TIR/2`, of which the clearance, a diameter, loses twice. A shaft that gives way
 * loses less. Common practice; a model of a stiff shaft.
 *
 * @returns the mains where the line or the runout was read, from the front; those at the ends carry the shaft, and lose nothing
 */
export function bendTakes(
  layout: Pick<CrankLayout, 'mains'>,
  line: MainLine,
  runout: Pick<Runout, 'mains'>,
): BendTakes[] {
  const directions = LINE_DIRECTIONS.map((direction) => lineRead(layout, line, direction));
  const offAt = (main: string) =>
    directions.map((read) => read?.mains.find((one) => one.main === main)?.offEnds ?? null);
  return mainNames(layout).flatMap((main): BendTakes[] => {
    const offs = offAt(main);
    const turn = turnRead(runout.mains[main] ?? {});
    if (offs.every((off) => off === null) && turn === null) return [];
    const off = Math.hypot(...offs.map((one) => one ?? 0));
    const bend = turn ? bentBy(turn.tir) : 0;
    return [{ main, low: round(2 * Math.abs(off - bend)), high: round(2 * (off + bend)) }];
  });
}
