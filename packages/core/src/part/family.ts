import { z } from 'zod';
import { FAMILY_ROWS, type FamilyRow } from './bearingRows.js';

/** Main bearings, or rod (big-end) bearings. */
export type Family = keyof typeof FAMILY_ROWS;

/** Every family, in the order of the work. */
export const FAMILIES = Object.keys(FAMILY_ROWS) as [Family, ...Family[]];
export const familySchema = z.enum(FAMILIES);

/** The key of the limit of a family's oil clearance. */
export type ClearanceKey = (typeof FAMILY_ROWS)[Family]['clearance']['key'];

/** Everything that follows from which family it is. */
export const FAMILY_TABLE: Readonly<
  Record<Family, FamilyRow & { readonly clearance: { readonly key: ClearanceKey } }>
> = FAMILY_ROWS;

/** A value a family. */
export function eachFamily<Value>(of: (family: Family) => Value): Readonly<Record<Family, Value>> {
  return Object.fromEntries(FAMILIES.map((family) => [family, of(family)])) as Record<Family, Value>;
}
