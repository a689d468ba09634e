import type { Family, JobDocument, Paint } from '@fettle/core';

/** The paint that tells a grade on the job's data sheet; null where it tells none. */
export function paintOf({ sheet }: Pick<JobDocument, 'sheet'>, family: Family, grade: string): Paint | null {
  return sheet?.[family].grades.find(({ mark }) => mark === grade)?.paint ?? null;
}
