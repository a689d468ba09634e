import { divideRounded, type Nanometres, nanometres } from './nanometres.js';
import { type EntryUnit, NANOMETRES_PER, UNIT_SUFFIXES, type Unit } from './unit.js';

/** Which way a needle goes: what a deviation with a + means. */
export const NEEDLES = ['bigger', 'smaller'] as const;
export type Needle = (typeof NEEDLES)[number];

/** What the figure is read against. */
export interface ParseContext {
  /** Unit of a figure that has no suffix. */
  readonly unit: Unit;
  /**
   * The size the gauge is zeroed on, where the row has one. A figure with a leading + or − is then a deviation from it:
   * in thou (inch job) or hundredths of a millimetre (millimetre job) unless it has a suffix of its own.
   */
  readonly setting?: Nanometres | null;
  /** What + on the needle means; left out: a bigger bore. null: nobody has said yet, and no deviation is read. */
  readonly needle?: Needle | null | undefined;
  /**
   * What a leading sign means: `deviation` from the setting size (readings), or the `sign` of the figure itself
   * (offsets, extras).
   */
  readonly signed?: 'deviation' | 'sign';
  /** The longest figure taken, 10 m unless said otherwise: more only to find out what a figure was meant to be. */
  readonly longest?: Nanometres;
}

export interface ParsedLength {
  readonly ok: true;
  /** The length itself; for a deviation the setting size plus the deviation. */
  readonly nm: Nanometres;
  /** The unit it was written in. */
  readonly unit: EntryUnit | 'hundredth';
  /** The typed deviation where the figure was one, else null. */
  readonly deviation: Nanometres | null;
  /** The digits as typed, with a point for a comma, and the nanometres that `1` there is. */
  readonly digits: string;
  readonly perOne: number;
  /** True if the figure was finer than a nanometre and had to be rounded (half away from zero). */
  readonly rounded: boolean;
}

export type LengthFaultCode =
  | 'empty'
  | 'not-a-number'
  | 'two-separators'
  | 'unknown-unit'
  | 'no-setting'
  | 'no-needle'
  | 'too-large';

export interface LengthFault {
  readonly ok: false;
  readonly code: LengthFaultCode;
  /** The text as it was typed. */
  readonly text: string;
  /** What is wrong and what would be right, for the person who typed it. */
  readonly message: string;
}

/** Sign, figure, and a unit that may be written with a point behind it: `2.45 in.` */
const FIGURE = /^([+\-−–]?)(\d*(?:[.,]\d*)?)(\s*|\s*[^\d.,\s][^\d.,]*\.?)$/u;
const HUNDREDTH_OF_A_MILLIMETRE = 10_000;
/** Nothing on a bench is longer than 10 m: a longer figure has a slipped point or the wrong unit. */
const LONGEST_TYPED = nanometres(10_000_000_000);

/**
 * Reads a length as people write it at the bench: `2.4487`, `.0015`, `62,003`, `62.003 mm`, `1.5 thou`, `3 tenths`,
 * `48 µm`, and `+2.5` as a deviation from the setting size. A decimal comma and a decimal point mean the same. The
 * result is exact; only a figure finer than a nanometre is rounded, and says so.
 *
 * @param text as typed; surrounding blanks are ignored
 * @param context unit of a bare figure and the setting size, if any
 * @returns the length, or what is wrong with the text; it never throws on text and never guesses
 * @example parseLength('2.4487', { unit: 'in' }) // { ok: true, nm: 62196980, unit: 'in', deviation: null, digits: '2.4487', perOne: 25400000, rounded: false }
 */
export function parseLength(text: string, context: ParseContext): ParsedLength | LengthFault {
  const fault = (code: LengthFaultCode, message: string): LengthFault => ({ ok: false, code, text, message });
  const trimmed = text.trim();
  if (trimmed === '') return fault('empty', 'Nothing entered.');

  const match = FIGURE.exec(trimmed.replace(/^([+\-−–])\s+/u, '$1'));
  if (!match) {
    return /[.,].*[.,]/u.test(trimmed)
      ? fault(
          'two-separators',
          `“${trimmed}” has more than one decimal point or comma. Write it with one, like 62.003.`,
        )
      : fault(
          'not-a-number',
          `“${trimmed}” is not a size. Write digits with at most one decimal point, like 62.003 mm.`,
        );
  }
  const [, sign = '', digits = '', suffix = ''] = match;
  if (!/\d/u.test(digits)) return fault('not-a-number', `“${trimmed}” has no digits. Write a size like 62.003.`);

  const written = suffix.trim().toLowerCase().replace(/\.$/u, '');
  const suffixUnit = written === '' ? null : Object.hasOwn(UNIT_SUFFIXES, written) ? UNIT_SUFFIXES[written] : undefined;
  if (suffixUnit === undefined) {
    return fault('unknown-unit', `“${suffix.trim()}” is not a unit used here. Use mm, in, thou, tenths or µm.`);
  }

  const isDeviation = sign !== '' && context.signed !== 'sign';
  const setting = context.setting ?? null;
  if (isDeviation && setting === null) {
    return fault(
      'no-setting',
      `“${trimmed}” is a deviation, but this row has no setting size. Enter the size the gauge is zeroed on, or the whole size.`,
    );
  }

  if (isDeviation && context.needle === null) {
    return fault(
      'no-needle',
      `“${trimmed}” is a deviation, but the needle direction is not set. Set what + means on this gauge.`,
    );
  }

  const bareDeviation = isDeviation && suffixUnit === null;
  const unit = bareDeviation ? (context.unit === 'mm' ? 'hundredth' : 'thou') : (suffixUnit ?? context.unit);
  const factor = BigInt(unit === 'hundredth' ? HUNDREDTH_OF_A_MILLIMETRE : NANOMETRES_PER[unit]);

  const [whole = '', decimals = ''] = digits.split(/[.,]/u);
  const mantissa = BigInt(whole + decimals) * factor * (sign !== '' && sign !== '+' ? -1n : 1n);
  const scale = 10n ** BigInt(decimals.length);
  const exact = divideRounded(mantissa, scale);
  const deviation = context.needle === 'smaller' ? -exact : exact;
  const total = isDeviation ? deviation + BigInt(setting ?? 0) : exact;
  const longest = context.longest ?? LONGEST_TYPED;
  if (total > longest || total < -longest) {
    return fault('too-large', `“${trimmed}” is longer than 10 m. Check the decimal point and the unit.`);
  }
  return {
    ok: true,
    // Longer than a length in a document only where more is explicitly taken.
    nm: Number(total) as Nanometres,
    unit,
    deviation: isDeviation ? nanometres(Number(deviation)) : null,
    digits: digits.replace(',', '.'),
    perOne: Number(factor),
    rounded: exact * scale !== mantissa,
  };
}
