import { z } from 'zod';
import { momentSchema } from '../measure/moment.js';
import { LONGEST, type Nanometres } from '../measure/nanometres.js';
import { NEEDLES, parseLength } from '../measure/parseLength.js';
import { unitSchema } from '../measure/unit.js';
import { FEATURES, SLOTS } from './feature.js';

const nullableLengthSchema = z
  .int()
  .min(-LONGEST)
  .max(LONGEST)
  .transform((value) => value as Nanometres)
  .nullable();

/**
 * How a size is read: as a deviation of a gauge that was zeroed on a setting size; with the gauge zeroed in the bore, and the micrometer that
 * was brought to it read; or straight from the instrument. (Zeroed on the journal a gauge shows the clearance, with the shells in: a trial.)
 */
export const READING_MODES = ['setting', 'bore', 'direct'] as const;
export type ReadingMode = (typeof READING_MODES)[number];

const MODE_WORDS: Readonly<Record<ReadingMode, string>> = {
  setting: 'as deviations from a setting size',
  bore: 'zeroed in the bore, read by micrometer',
  direct: 'straight from the instrument',
};

/**
 * How a size is read, in words.
 *
 * @example readingModeWord('direct') // 'straight from the instrument'
 */
export function readingModeWord(mode: ReadingMode): string {
  return MODE_WORDS[mode];
}

/** Why one reading takes the place of another: the part was read again, the one before was wrong, or the part was machined. */
export const READING_REASONS = ['read again', 'typed wrong', 'misread', 'part machined since'] as const;
export type ReadingReason = (typeof READING_REASONS)[number];

/** How a reading was taken, beside what was typed. */
export const takenSchema = z.strictObject({
  instrument: z.string().trim().max(60).describe('Name of the instrument; empty: none.'),
  instrumentId: z
    .uuid()
    .toLowerCase()
    .optional()
    .describe('Its id in the register of the workshop; omitted: an instrument of the engine’s own.'),
  needle: z.enum(NEEDLES).nullable().describe('What a deviation with a + meant; null: nobody had said.'),
  celsius: z.number().min(-60).max(300).nullable().describe('Temperature of the part, °C; null: not measured.'),
  gaugeCelsius: z.number().min(-60).max(300).nullable().describe('Temperature of the instrument, °C.'),
  mode: z.enum(READING_MODES).optional().describe('How it was measured; omitted: not given.'),
  reason: z.string().trim().max(60).describe('Reason for replacing a reading; empty: none given.'),
  confirmed: z
    .boolean()
    .optional()
    .describe('True if it was asked about and is right: a suspect reading counts only then.'),
});
export type Taken = z.output<typeof takenSchema>;

/** A reading as a client sends it. Its id is made by the client, so sending it twice does no harm. */
export const readingDraftSchema = z.strictObject({
  feature: z.enum(FEATURES),
  station: z.int().min(1).max(99),
  slot: z.enum(SLOTS),
  /** As typed; empty when the reading is taken back. */
  text: z.string().max(64, 'at most 64 characters'),
  unit: unitSchema.describe('Unit of the job when it was typed: the unit of a bare figure.'),
  setting: nullableLengthSchema.describe('Size the gauge was zeroed on when it was read, nm, or null.'),
  replaces: z.uuid().toLowerCase().nullable().describe('Reading that was there when this one was typed; null: none.'),
  by: z.string().trim().min(1, 'enter who took the reading').max(60),
  at: momentSchema,
  taken: takenSchema.optional().describe('Omitted: not given.'),
});
export type ReadingDraft = z.infer<typeof readingDraftSchema>;

/** A reading as it is kept. Readings are never changed; a correction is a new one that replaces it. */
export const readingSchema = readingDraftSchema.extend({
  id: z.uuid().toLowerCase(),
  /** The size, or null when the text was taken back or is no size. */
  nm: nullableLengthSchema,
});
export type Reading = z.infer<typeof readingSchema>;

/**
 * The size a draft means, or null when its text is empty or no size.
 *
 * @example sizeOfDraft({ text: '+1.2', unit: 'mm', setting: 64_000_000 }) // 64012000
 */
export function sizeOfDraft({
  text,
  unit,
  setting,
  taken,
}: Pick<ReadingDraft, 'text' | 'unit' | 'setting' | 'taken'>): Nanometres | null {
  const parsed = parseLength(text, { unit, setting, needle: taken?.needle });
  return parsed.ok ? parsed.nm : null;
}

/**
 * The reading that a draft becomes: what the server stores and answers, and what the page shows until it does. Its size is worked out
 * here and nowhere else, from the whole draft.
 */
export function readingOfDraft(id: string, draft: ReadingDraft): Reading {
  return { ...draft, id, nm: sizeOfDraft(draft), at: new Date(draft.at).toISOString() };
}

/** Names a place that holds one current reading. */
export function slotKey({ feature, station, slot }: Pick<Reading, 'feature' | 'station' | 'slot'>): string {
  return `${feature}:${station}:${slot}`;
}
