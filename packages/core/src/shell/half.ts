import { z } from 'zod';
import { sizeBandSchema, sizeNmSchema } from '../measure/lengthSchema.js';
import { FAMILY_TABLE, familySchema } from '../part/family.js';
import { positionSchema } from './position.js';
import { sideSchema } from './side.js';

/** What tells a half shell, wherever it lies: in an engine's own box, in the workshop's drawer, in a kit or on an order. */
export const halfFields = z.strictObject({
  family: familySchema,
  series: z.string().trim().min(1, 'enter the series').max(60).describe("One maker's material and coating."),
  grade: z.string().trim().min(1, 'enter the grade').max(40),
  half: sideSchema,
  wall: sizeNmSchema.describe('Wall thickness, nm; the middle of its band if it has one.'),
  width: sizeNmSchema.optional().describe('Width over the flanges of a flanged shell; omitted: no flanges.'),
  band: sizeBandSchema.optional().describe('Range of the wall, if known by its grade only.'),
  undersize: z
    .string()
    .trim()
    .min(1)
    .max(20)
    .optional()
    .describe('Undersize, such as 0.25; omitted: standard. Undersizes never mix in a station.'),
  positions: z
    .array(positionSchema)
    .min(1)
    .max(10)
    .optional()
    .describe('Positions it is made for; omitted: every station of its family.'),
});
export type Shell = z.output<typeof halfFields>;

/** The fields that tell a half, in the order of a table. */
export const HALF_FIELDS = Object.keys(halfFields.shape) as (keyof Shell)[];

/** What tells a half, taken out of a record that says more of it; fields that it does not have are left out. */
export function halfOf(from: Shell): Shell {
  return Object.fromEntries(
    HALF_FIELDS.flatMap((field) => (from[field] === undefined ? [] : [[field, from[field]]])),
  ) as Shell;
}

type Kind = Readonly<Pick<Shell, 'family' | 'series' | 'grade' | 'half' | 'undersize' | 'positions'>>;

/** The places of a text that lists them, as it stands; empty for none, `rear, thrust` for two. */
export function placesOfText(text: string): string[] {
  return text
    .split(/[,;]/u)
    .map((place) => place.trim())
    .filter((place) => place !== '');
}

/**
 * Reads the places that a text lists.
 *
 * @returns them, undefined for an empty text; or what is wrong with one of them
 * @example readPlaces('Rear, thrust') // { ok: true, positions: ['rear', 'thrust'] }
 */
export function readPlaces(
  text: string,
): { readonly ok: true; readonly positions: Shell['positions'] } | { readonly ok: false; readonly message: string } {
  const listed = placesOfText(text);
  const read = halfFields.shape.positions.safeParse(listed.length === 0 ? undefined : listed);
  return read.success ? { ok: true, positions: read.data } : { ok: false, message: read.error.issues[0]!.message };
}

function places({ positions }: Pick<Shell, 'positions'>): string {
  return [...(positions ?? [])].sort().join('\n');
}

/** True if two halves are of one kind: the same family, series, grade, side, undersize and places. */
export function isSameKind(one: Kind, other: Kind): boolean {
  return (
    one.family === other.family &&
    one.series === other.series &&
    one.grade === other.grade &&
    one.half === other.half &&
    one.undersize === other.undersize &&
    places(one) === places(other)
  );
}

/** What a half is called on screen and in a plan: its grade, its family where it is a rod's, side, place and series. */
export function shellLabel(half: Kind): string {
  const undersize = half.undersize === undefined ? '' : ` ${half.undersize} under`;
  const place = half.positions === undefined ? '' : `${half.positions.join('/')} `;
  return `${half.grade} ${FAMILY_TABLE[half.family].halfWord}${place}${half.half} (${half.series}${undersize})`;
}
