import { z } from 'zod';
import { familySchema, halfSchema } from '../fit/fitRequest.js';
import { isInBand, NOT_IN_BAND, sizeBandSchema, sizeNmSchema } from '../measure/lengthSchema.js';

const drawerHalfFields = z.strictObject({
  family: familySchema,
  series: z.string().trim().min(1, 'name the series').max(60),
  grade: z.string().trim().min(1, 'name the grade').max(40),
  half: halfSchema,
  wall: sizeNmSchema.describe('Wall thickness in whole nanometres; the middle of its band where it has one.'),
  band: sizeBandSchema.optional().describe('What the wall may be, where it is only known by its grade.'),
  undersize: z.string().trim().min(1).max(20).optional().describe('Name of the undersize, as 0.25; not for standard.'),
  number: z
    .string()
    .trim()
    .min(1)
    .max(20)
    .optional()
    .describe('A single half with a number of its own: its wall is its own measured one.'),
  onHand: z
    .int('a whole number of halves')
    .min(0, 'cannot be below zero')
    .max(99_999)
    .describe('Halves in the drawer, reserved ones included; fitted ones have left it.'),
  bin: z.string().trim().max(40).default('').describe('Where it lies.'),
  supplier: z.string().trim().max(120).default('').describe('Supplier and how to order it.'),
  price: z.number().min(0).max(1e6).nullable().default(null).describe('Price of one half; null when not known.'),
  least: z.int().min(0).max(9999).default(0).describe('Fewer free ones than this are to be ordered.'),
  findings: z
    .string()
    .trim()
    .max(300)
    .default('')
    .describe('What was found on receipt: a wrong wall, a half-covered oil hole.'),
});
/** One kind of half in the workshop's drawer. */
export const drawerHalfSchema = drawerHalfFields.refine(isInBand, NOT_IN_BAND);
export type DrawerHalf = z.infer<typeof drawerHalfSchema>;

/** What an engine holds of one kind of half: reserved by its accepted choice, or fitted into it. */
export const reservationSchema = z.strictObject({
  job: z.uuid().toLowerCase(),
  name: z.string(),
  count: z.int().min(1),
  state: z.enum(['reserved', 'used']),
});
export type Reservation = z.infer<typeof reservationSchema>;

export const drawerLineSchema = z.strictObject({
  id: z.uuid().toLowerCase(),
  version: z.int().min(1),
  half: drawerHalfSchema,
  reservations: z.array(reservationSchema),
});
export type DrawerLine = z.infer<typeof drawerLineSchema>;

/**
 * Halves of one kind that a job may take: what is on hand less what other engines have reserved. What the job itself has
 * reserved, or fitted already, it may take again.
 *
 * @param job its id; null for what nobody has reserved
 */
export function freeHalves({ half, reservations }: DrawerLine, job: string | null): number {
  const reserved = reservations
    .filter((one) => one.state === 'reserved' && one.job !== job)
    .reduce((sum, { count }) => sum + count, 0);
  const fitted = reservations
    .filter((one) => one.state === 'used' && one.job === job)
    .reduce((sum, { count }) => sum + count, 0);
  return Math.max(0, half.onHand - reserved) + fitted;
}

/** What was done to the drawer; `change` is any other edit. */
export const MOVEMENTS = [
  'receive',
  'use',
  'return',
  'count',
  'number',
  'change',
  'add',
  'remove',
  'import',
  'fitted',
  'unfitted',
  'undo',
] as const;

/** One thing that was done to the drawer, with what each kind of half was before and after it. */
export const drawerMovementSchema = z.strictObject({
  id: z.uuid().toLowerCase(),
  at: z.iso.datetime(),
  by: z.string(),
  kind: z.enum(MOVEMENTS),
  note: z.string(),
  changes: z.array(
    z.strictObject({
      line: z.uuid().toLowerCase(),
      before: drawerHalfSchema.nullable().describe('Null where it was not there.'),
      after: drawerHalfSchema.nullable().describe('Null where it is gone.'),
    }),
  ),
  undone: z.boolean().describe('Whether it has been taken back.'),
});
export type DrawerMovement = z.infer<typeof drawerMovementSchema>;

/** A named list of halves that are bought, or put on the shelf, together. */
export const kitSchema = z.strictObject({
  name: z.string().trim().min(1, 'name the kit').max(80),
  note: z.string().trim().max(300).default(''),
  halves: z
    .array(
      z.strictObject({
        ...drawerHalfFields.pick({
          family: true,
          series: true,
          grade: true,
          half: true,
          wall: true,
          band: true,
          undersize: true,
        }).shape,
        count: z.int().min(1).max(9999),
      }),
    )
    .min(1, 'a kit has at least one half')
    .max(200),
});
export type Kit = z.infer<typeof kitSchema>;

type Kind = Readonly<Pick<DrawerHalf, 'family' | 'series' | 'grade' | 'half' | 'undersize' | 'number'>>;

/** Whether two halves are of one kind: the same family, series, grade, side and undersize, and neither a numbered one of its own. */
export function isSameKind(one: Kind, other: Kind): boolean {
  return (
    one.family === other.family &&
    one.series === other.series &&
    one.grade === other.grade &&
    one.half === other.half &&
    one.undersize === other.undersize &&
    one.number === other.number
  );
}

/** Halves of one kind that stand in a state, over all engines. */
export function halvesIn({ reservations }: DrawerLine, state: Reservation['state']): number {
  return reservations.filter((one) => one.state === state).reduce((sum, { count }) => sum + count, 0);
}
