import { type Nanometres, nanometres } from '../measure/nanometres.js';

export interface GradedFamily {
  /** Wall of the first grade. */
  readonly firstWall: Nanometres;
  /** From one grade to the next; below zero when the first grade is the thickest. */
  readonly step: Nanometres;
  /** How many grades, 1 to 40. */
  readonly count: number;
  /** Names in order; missing ones become their number. */
  readonly names: readonly string[];
}

/**
 * The grades of a family with equal steps: wall n = first wall + (n − 1) · step.
 *
 * @returns one name and wall a grade, or what is wrong: a wall would reach zero, a step of zero, two grades of one name
 * @example gradedWalls({ firstWall: 1_989_000, step: 3_000, count: 3, names: ['Teal'] }).grades[2] // { grade: '3', wall: 1995000 }
 */
export function gradedWalls({
  firstWall,
  step,
  count,
  names,
}: GradedFamily): { ok: true; grades: { grade: string; wall: Nanometres }[] } | { ok: false; message: string } {
  if (!Number.isInteger(count) || count < 1 || count > 40)
    return { ok: false, message: 'Give a count of 1 to 40 grades.' };
  if (step === 0 && count > 1)
    return { ok: false, message: 'The step between grades is zero; enter the difference of two walls.' };
  if (names.length > count) return { ok: false, message: `There are ${names.length} names for ${count} grades.` };
  const grades = Array.from({ length: count }, (_, at) => ({
    grade: names[at] || String(at + 1),
    wall: firstWall + at * step,
  }));
  const thin = grades.find(({ wall }) => wall <= 0);
  if (thin) return { ok: false, message: `Grade ${thin.grade} would have a wall of zero or less; check the step.` };
  const twice = grades.find(({ grade }, at) => grades.findIndex((other) => other.grade === grade) !== at);
  if (twice) return { ok: false, message: `Two grades are named ${twice.grade}; give each its own name.` };
  return { ok: true, grades: grades.map(({ grade, wall }) => ({ grade, wall: nanometres(wall) })) };
}
