import { chanceInside } from '../clearance/chanceInside.js';
import type { ClearanceInterval } from '../clearance/clearanceOfBands.js';
import { markedBands } from '../codes/markedBands.js';
import { cellInterval, codesOfFamily, gradesOfCell, type SelectionCodes } from '../codes/selectionTable.js';
import { clearanceKey, limitAt } from '../engineType/limits.js';
import { familiesOf } from '../part/familiesOf.js';
import { FAMILY_TABLE, type Family } from '../part/family.js';
import { featureOf, partName } from '../part/feature.js';
import type { SelectionJob } from './selectionJob.js';
import { NO_WISHES } from './selectionPart.js';

/** What the data sheet's table calls for at a station whose two marks are known. */
export interface CodedStation {
  readonly family: Family;
  readonly housing: string;
  readonly journal: string;
  /** Null where the table has no such cell. */
  readonly grades: { readonly upper: string; readonly lower: string } | null;
  /** What its bands imply; null where a grade is not known. */
  readonly interval: ClearanceInterval | null;
  /** Chance that the clearance is inside its limits; null without an interval or limits. */
  readonly inside: number | null;
}

/** What a table calls for with two marks. */
export function codedCell(family: Family, codes: SelectionCodes, housing: string, journal: string): CodedStation {
  const cell = codes.table[housing]?.[journal];
  const grades = cell === undefined ? null : gradesOfCell(cell);
  const interval = cellInterval(codes, housing, journal);
  const band = (list: SelectionCodes['grades'], mark: string) => list.find((one) => one.mark === mark)!;
  const inside =
    interval && grades && codes.limits
      ? chanceInside(
          {
            bore: band(codes.housing, housing),
            journal: band(codes.journal, journal),
            upper: band(codes.grades, grades.upper),
            lower: band(codes.grades, grades.lower),
          },
          codes.limits,
        )
      : null;
  return { family, housing, journal, grades, interval, inside };
}

/**
 * The codes of a job's family with the limits that the job goes by; null without a data sheet.
 *
 * @param number of the main whose limits hold; left out, the limits of the sheet
 */
export function codesOfJob(
  job: Pick<SelectionJob, 'sheet' | 'limits' | 'mainLimits'>,
  family: Family,
  number: number | null = null,
): SelectionCodes | null {
  const { sheet } = job;
  return sheet && codesOfFamily(sheet[family], sheet.unit, limitAt(job, clearanceKey(family), number));
}

/**
 * What the table calls for at every station whose marks are known: each by its number, pins with the rod that is placed
 * there.
 *
 * @param placed per pin (`P1`) the number of its rod
 */
export function codedStations(job: SelectionJob, placed: Readonly<Record<string, number>>): Map<string, CodedStation> {
  const found = new Map<string, CodedStation>();
  const put = (family: Family, number: number, housing: string | undefined, journal: string | undefined) => {
    const codes = codesOfJob(job, family, number);
    if (codes && housing !== undefined && journal !== undefined)
      found.set(partName(featureOf(family, 'journal'), number), codedCell(family, codes, housing, journal));
  };
  for (const family of familiesOf(job)) {
    const [housing, journal] = [featureOf(family, 'housing'), featureOf(family, 'journal')];
    const housings = markedBands(job, housing);
    for (const [number, { mark }] of markedBands(job, journal)) {
      const own = FAMILY_TABLE[family].housingsMove ? placed[partName(journal, number)] : number;
      put(family, number, own === undefined ? undefined : housings.get(own)?.mark, mark);
    }
  }
  return found;
}

/** The halves that the table calls for, held at every station whose marks are known; or the halves that the engine's drawer lacks. */
export type HeldAsCoded =
  | { readonly ok: true; readonly wishes: SelectionJob['wishes'] }
  | { readonly ok: false; readonly missing: readonly string[] };

/**
 * Holds at each station what the table calls for, so that the choice is the table's. What is forbidden at a station stays.
 *
 * @returns the wishes of the whole job, or, by grade and side, the halves that the engine's drawer does not have
 */
export function heldAsCoded(job: SelectionJob, coded: ReadonlyMap<string, CodedStation>): HeldAsCoded {
  const missing = new Set<string>();
  const wishes = { ...job.wishes };
  for (const [station, { family, grades }] of coded) {
    if (!grades) continue;
    const [upper, lower] = (['upper', 'lower'] as const).map((side) => {
      const grade = grades[side];
      const found = Object.entries(job.shells).find(
        ([, shell]) =>
          shell.family === family &&
          shell.grade === grade &&
          (shell.half === side || shell.half === 'either') &&
          shell.undersize === undefined,
      );
      if (!found) missing.add(`${grade} ${family} ${side}`);
      return found?.[0] ?? null;
    }) as [string | null, string | null];
    const before = job.wishes[station] ?? NO_WISHES;
    wishes[station] = { ...before, upper, lower };
  }
  return missing.size > 0 ? { ok: false, missing: [...missing] } : { ok: true, wishes };
}
