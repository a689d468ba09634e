import {
  FAMILIES,
  type Family,
  gradedWalls,
  type JobShell,
  jobShellSchema,
  parseLength,
  readPlaces,
  THRUST_PLACE,
  type Unit,
} from '@fettle/core';
import type { Sides } from './halfOptions.js';

/** A graded family of halves as it stands in the boxes of its form. */
export interface FamilyText {
  readonly family: Family;
  readonly series: string;
  readonly sides: Sides;
  readonly first: string;
  readonly step: string;
  readonly count: string;
  readonly stock: string;
  readonly names: string;
  readonly undersize: string;
  readonly width: string;
  readonly places: string;
}

export const BLANK_FAMILY: FamilyText = {
  family: FAMILIES[0],
  series: '',
  sides: 'both',
  first: '',
  step: '',
  count: '',
  stock: '',
  names: '',
  undersize: '',
  width: '',
  places: '',
};

export type FamilyFaults = Partial<Record<keyof FamilyText, string>>;

/** Halves to add, or none of them and what is wrong, box by box. */
interface ReadFamily {
  readonly shells: readonly JobShell[];
  readonly faults: FamilyFaults;
}

const blankOr = (text: string, read: (text: string) => number) => (text.trim() === '' ? null : read(text.trim()));
const wholeNumber = (text: string) => (/^\d+$/u.test(text) ? Number(text) : Number.NaN);

/**
 * The halves of a graded family from what was typed: a wall for each grade, the first one and a step apart.
 *
 * @param unit - of lengths that name none
 * @param isCounted - false if a blank count means as many as wanted
 * @returns one half for each grade and side, thinnest or thickest first, as the sign of the step says
 */
export function familyOfText(text: FamilyText, unit: Unit, isCounted: boolean): ReadFamily {
  const faults: FamilyFaults = {};
  const first = parseLength(text.first, { unit, signed: 'sign' });
  const count = wholeNumber(text.count.trim());
  const step =
    count === 1 && text.step.trim() === ''
      ? ({ ok: true, nm: 0 } as const)
      : parseLength(text.step, { unit, signed: 'sign' });
  const stock = blankOr(text.stock, wholeNumber);
  if (!first.ok) faults.first = first.message;
  if (!step.ok) faults.step = step.message;
  if (Number.isNaN(count)) faults.count = 'Enter a whole number of grades.';
  const width = text.width.trim() === '' ? null : parseLength(text.width, { unit, signed: 'sign' });
  if (width && !width.ok) faults.width = width.message;
  else if (width?.ok && width.nm <= 0) faults.width = 'Enter a width above 0.';
  if (text.undersize.trim().length > 20) faults.undersize = 'Enter at most 20 characters.';
  if (text.series.trim() === '') faults.series = 'Enter the series.';
  const readStock = jobShellSchema.shape.stock.safeParse(stock);
  if (!readStock.success)
    faults.stock = isCounted ? 'Enter a whole number.' : 'Enter a whole number, or leave blank for unlimited.';
  else if (isCounted && stock === null) faults.stock = 'Enter a whole number.';
  const names = text.names.split(/[,;]/u).map((name) => name.trim());
  if (names.at(-1) === '') names.pop();
  // A flanged half sits at the thrust main, unless it is said where.
  const named = readPlaces(text.places);
  if (!named.ok) faults.places = named.message;
  const positions = (named.ok ? named.positions : undefined) ?? (width?.ok ? [THRUST_PLACE] : undefined);
  if (!first.ok || !step.ok || Object.keys(faults).length > 0) return { shells: [], faults };
  const walls = gradedWalls({ firstWall: first.nm, step: step.nm as typeof first.nm, count, names });
  if (!walls.ok) return { shells: [], faults: { count: walls.message } };
  const halves = text.sides === 'both' ? (['upper', 'lower'] as const) : [text.sides];
  const shells: JobShell[] = halves.flatMap((half) =>
    walls.grades.map(({ grade, wall }) => ({
      family: text.family,
      series: text.series.trim(),
      grade,
      half,
      wall,
      ...(text.undersize.trim() === '' ? {} : { undersize: text.undersize.trim() }),
      ...(width?.ok ? { width: width.nm } : {}),
      ...(positions ? { positions } : {}),
      stock,
      line: null,
    })),
  );
  return { shells, faults };
}
