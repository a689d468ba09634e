import type { Doing } from '../document/typedLength.js';
import { studentQuantile } from '../measure/distributions.js';
import { nanometres } from '../measure/nanometres.js';
import type { Unit } from '../measure/unit.js';
import type { JobShell } from './jobShell.js';

/** What the walls of a grade were in this workshop’s engines. */
export interface WallsSeen {
  /** Mean over engines, nm. */
  readonly mean: number;
  /** Standard deviation from engine to engine, nm; null: of one. */
  readonly deviation: number | null;
  readonly engines: number;
}

/** With fewer engines nothing is said of the next shell. A setting of ours. */
export const LEAST_WALLS = 5;

/**
 * Within which the wall of the next shell of a grade lies, as an even band that stands for the same standard uncertainty: the mean of those seen, and
 * their spread with that of the mean, `s √(1 + 1/n)`, widened by Student’s distribution for how few there are. An even band of half-width a has
 * the standard uncertainty a/√3 (GUM, JCGM 100:2008, 4.3.7).
 *
 * @returns nm; null with fewer than `LEAST_WALLS` engines
 */
export function bandSeen({ mean, deviation, engines }: WallsSeen): { low: number; high: number } | null {
  if (deviation === null || engines < LEAST_WALLS) return null;
  // At 95 %, as the spread were known: 1.96 standard deviations.
  const widened = studentQuantile(0.975, engines - 1) / 1.959964;
  const half = Math.sqrt(3) * deviation * Math.sqrt(1 + 1 / engines) * widened;
  return { low: Math.round(mean - half), high: Math.round(mean + half) };
}

/** What a wall that was worked out is rounded to, nm: a tenth of a micrometre, or a hundred-thousandth of an inch. */
const STEP = { mm: 100, in: 254 } as const;

/**
 * The same shell, counted with the wall that its grade has in this workshop, rounded as its unit is read.
 *
 * @returns null where it was measured, or too little is known
 */
export function countedAsSeen(shell: JobShell, walls: WallsSeen, unit: Unit, { by, at }: Doing): JobShell | null {
  const band = bandSeen(walls);
  const was = shell.seen?.was ?? (shell.band ? { wall: shell.wall, band: shell.band } : null);
  if (band === null || was === null || band.low <= 0) return null;
  const step = STEP[unit];
  const wall = nanometres(Math.round((band.low + band.high) / 2 / step) * step);
  const half = Math.ceil((band.high - band.low) / 2 / step) * step;
  const [low, high] = [nanometres(wall - half), nanometres(wall + half)];
  return { ...shell, wall, band: { low, high }, seen: { engines: walls.engines, was, by, at } };
}

/** The same shell, counted by the band of its grade again; a measured one stays. */
export function countedByGrade(shell: JobShell): JobShell {
  const { seen, ...others } = shell;
  return seen ? { ...others, wall: seen.was.wall, band: seen.was.band } : shell;
}
