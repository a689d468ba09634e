import { z } from 'zod';
import { isInBand, NOT_IN_BAND } from '../measure/lengthSchema.js';
import { halfFields, isSameKind, type Shell } from '../shell/half.js';

/** What the workshop keeps of anything on its shelf, beside what it is. */
export const shelfFields = z.strictObject({
  number: z.string().trim().min(1).max(20).optional().describe('A numbered shell: its own wall was measured.'),
  onHand: z
    .int('a whole number')
    .min(0, 'cannot be below zero')
    .max(99_999)
    .describe('Number in stock, reserved ones included; fitted ones have left it.'),
  bin: z.string().trim().max(40).default('').describe('Storage place.'),
  supplier: z.string().trim().max(120).default('').describe('Supplier and how to order it.'),
  price: z.number().min(0).max(1e6).nullable().default(null).describe('Price of one; null when not known.'),
  least: z.int().min(0).max(9999).default(0).describe('Minimum: order when fewer are free.'),
  findings: z
    .string()
    .trim()
    .max(300)
    .default('')
    .describe('Problem found on receipt: a wrong wall, a half-covered oil hole.'),
});
const drawerHalfFields = halfFields.extend(shelfFields.shape);
/** One kind of half in the workshop's drawer. */
export const drawerHalfSchema = drawerHalfFields.refine(isInBand, NOT_IN_BAND);
export type DrawerHalf = z.infer<typeof drawerHalfSchema>;

/** What an engine has reserved of one kind of half by its accepted choice. */
export const reservationSchema = z.strictObject({
  job: z.uuid().toLowerCase(),
  name: z.string(),
  count: z.int().min(1),
});

/** One kind of half in the drawer, with who has reserved how many. What was fitted has left the drawer and is only counted. */
export const drawerLineSchema = z.strictObject({
  id: z.uuid().toLowerCase(),
  version: z.int().min(1),
  half: drawerHalfSchema,
  reservations: z.array(reservationSchema),
  used: z.int().min(0).describe('Shells of it fitted into engines so far.'),
  fittedHere: z
    .int()
    .min(0)
    .describe('How many of these are fitted in the engine asked about; 0: none, or no engine given.'),
});
export type DrawerLine = z.infer<typeof drawerLineSchema>;

/**
 * Halves of one kind that engines have reserved; of all engines, or of all but one.
 *
 * @example reservedHalves({ reservations: [{ job: 'a', count: 3 }, { job: 'b', count: 2 }] }, 'a') // 2
 */
export function reservedHalves(
  { reservations }: Pick<DrawerLine, 'reservations'>,
  except: string | null = null,
): number {
  return reservations.filter(({ job }) => job !== except).reduce((sum, { count }) => sum + count, 0);
}

/**
 * How many of one kind on the shelf, halves or pieces, a job may take: what is on hand less what other engines have reserved. What the
 * job itself has reserved, or fitted already, it may take again.
 *
 * @param line as it was asked for that job, so that it tells what was fitted into it
 * @param job its id; null for what nobody has reserved
 * @example freeOnShelf(10, { reservations: [{ job: 'a', count: 3 }, { job: 'b', count: 2 }], fittedHere: 1 }, 'a') // 9
 */
export function freeOnShelf(
  onHand: number,
  line: Pick<DrawerLine, 'reservations' | 'fittedHere'>,
  job: string | null,
): number {
  const fitted = job === null ? 0 : line.fittedHere;
  return Math.max(0, onHand - reservedHalves(line, job)) + fitted;
}

/**
 * Halves of one kind that a job may take.
 *
 * @example freeHalves({ half: { onHand: 4 }, reservations: [{ job: 'b', count: 6 }], fittedHere: 0 }, 'a') // 0
 */
export function freeHalves(line: Pick<DrawerLine, 'half' | 'reservations' | 'fittedHere'>, job: string | null): number {
  return freeOnShelf(line.half.onHand, line, job);
}

/** A named list of halves that are bought, or put on the shelf, together. */
export const kitSchema = z.strictObject({
  name: z.string().trim().min(1, 'enter a name for the kit').max(80),
  note: z.string().trim().max(300).default(''),
  halves: z
    .array(
      z.strictObject({
        ...halfFields.shape,
        count: z.int().min(1).max(9999),
      }),
    )
    .min(1, 'a kit needs at least one shell')
    .max(200),
});
export type Kit = z.infer<typeof kitSchema>;

/** True if two halves of the drawer are one line of it: of one kind, and neither a numbered one of its own. */
export function isSameLine(
  one: Shell & Pick<DrawerHalf, 'number'>,
  other: Shell & Pick<DrawerHalf, 'number'>,
): boolean {
  return isSameKind(one, other) && one.number === other.number;
}
