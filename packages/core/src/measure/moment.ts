import { z } from 'zod';

/** Years that a device's clock may say: before and after, a date is a slip, or meant to break what reads it. */
const FIRST_YEAR = 1900;
const LAST_YEAR = 2999;

function isLikely(text: string): boolean {
  const year = Number(text.slice(0, 4));
  return year >= FIRST_YEAR && year <= LAST_YEAR;
}

const WORDS = `a date lies in the years from ${FIRST_YEAR} to ${LAST_YEAR}`;

/** A moment, UTC, as ISO 8601 writes it. */
export const momentSchema = z.iso.datetime().refine(isLikely, WORDS);

/** A day, as ISO 8601 writes it. */
export const daySchema = z.iso.date().refine(isLikely, WORDS);
