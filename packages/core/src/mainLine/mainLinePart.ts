import { z } from 'zod';
import { documentPart, type PartValues } from '../document/documentPart.js';
import { typedLengthSchema } from '../document/typedLength.js';

const byMain = z.record(z.string().regex(/^M[1-9]\d?$/u, 'a main by its name, M1 at the front'), typedLengthSchema);

/** Where each main bore lies, read from a bar or a straight edge along the line of the mains. */
export const mainLineSchema = z.strictObject({
  height: byMain.describe('Height of each bore off the bar; above zero: higher, with the caps down.'),
  side: byMain.describe('The same to one side; above zero: to the left, seen from the front.'),
  place: byMain.describe('Distance of the middle of each main from that of the first.'),
});
export type MainLine = z.output<typeof mainLineSchema>;

/** The line of the mains. */
export const mainLinePart = documentPart({
  members: { mainLine: mainLineSchema },
  since: 7,
  blank: () => ({ mainLine: { height: {}, side: {}, place: {} } }),
});
export type MainLineMembers = PartValues<typeof mainLinePart>;
