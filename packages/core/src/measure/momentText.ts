/** How much of a moment is told. */
export type MomentParts = 'day' | 'day and time' | 'to the second' | 'weekday' | 'time';

const STYLES: Readonly<Record<MomentParts, Intl.DateTimeFormatOptions>> = {
  day: { dateStyle: 'medium' },
  'day and time': { dateStyle: 'medium', timeStyle: 'short' },
  'to the second': { dateStyle: 'medium', timeStyle: 'medium' },
  weekday: { dateStyle: 'full' },
  time: { timeStyle: 'short' },
};

/** Who reads it: the language and country of the device, and its clock. What is left out is that of this machine. */
export interface MomentReader {
  /** BCP 47, such as `en-GB`. */
  readonly locale?: string;
  /** A time zone by its name, such as `Europe/Lisbon`. */
  readonly zone?: string;
}

/** A formatter is dear to make and cheap to use; there are as many as readers and parts. */
const made = new Map<string, Intl.DateTimeFormat>();
/** A server writes for many devices: beyond this many formatters it starts anew. */
const MOST = 100;

/**
 * A moment as the reader's device writes dates.
 *
 * @param at ISO 8601
 * @example momentText('2026-11-30T08:05:00Z', 'day and time', { locale: 'en-GB', zone: 'UTC' }) // '30 Nov 2026, 08:05'
 */
export function momentText(
  at: string,
  parts: MomentParts = 'day and time',
  { locale, zone }: MomentReader = {},
): string {
  const key = `${locale ?? ''} ${zone ?? ''} ${parts}`;
  let format = made.get(key);
  if (!format) {
    if (made.size >= MOST) made.clear();
    format = new Intl.DateTimeFormat(locale, { ...STYLES[parts], ...(zone === undefined ? {} : { timeZone: zone }) });
    made.set(key, format);
  }
  return format.format(new Date(at));
}
