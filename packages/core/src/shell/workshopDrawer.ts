import { z } from 'zod';
import { familySchema, halfSchema } from '../fit/fitRequest.js';
import { LONGEST, type Nanometres } from '../measure/nanometres.js';

/** One kind of half in the workshop's drawer. */
export const drawerHalfSchema = z.strictObject({
  family: familySchema,
  series: z.string().trim().min(1, 'name the series').max(60),
  grade: z.string().trim().min(1, 'name the grade').max(40),
  half: halfSchema,
  wall: z
    .int()
    .min(1, 'a wall is above zero')
    .max(LONGEST)
    .transform((value) => value as Nanometres)
    .meta({ description: 'Wall thickness in whole nanometres.' }),
  onHand: z
    .int('a whole number of halves')
    .min(0, 'cannot be below zero')
    .max(99_999)
    .describe('Halves in the drawer, reserved ones included; fitted ones have left it.'),
});
export type DrawerHalf = z.infer<typeof drawerHalfSchema>;

/** What an engine holds of one kind of half: reserved by its accepted choice, or fitted into it. */
export const reservationSchema = z.strictObject({
  job: z.uuid(),
  name: z.string(),
  count: z.int().min(1),
  state: z.enum(['reserved', 'used']),
});
export type Reservation = z.infer<typeof reservationSchema>;

export const drawerLineSchema = z.strictObject({
  id: z.uuid(),
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

/** Halves of one kind that stand in a state, over all engines. */
export function halvesIn({ reservations }: DrawerLine, state: Reservation['state']): number {
  return reservations.filter((one) => one.state === state).reduce((sum, { count }) => sum + count, 0);
}
