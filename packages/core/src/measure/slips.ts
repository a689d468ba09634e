import { NANOMETRES_PER, type Unit } from './unit.js';

/** A way in which a right size becomes a wrong figure, the likeliest first. Common practice. */
export const SLIPS = [
  'sign-left-out',
  'mirrored-deviation',
  'thimble-turn',
  'frame-size',
  'tenth',
  'digits-swapped',
  'decimal-slip',
  'other-unit',
] as const;
export type Slip = (typeof SLIPS)[number];

/** What a figure would be without a slip, and the question to put to the fitter. */
export interface Unslipped {
  readonly slip: Slip;
  readonly nm: number;
  readonly question: string;
}

/** A figure as it was read: of a deviation the size it leads to. */
export interface TypedFigure {
  readonly nm: number;
  readonly unit: Unit;
  /** Digits as typed, with at most one point and without sign or unit; left out where only the size is known. */
  readonly digits?: string | undefined;
  /** Nanometres of one in the last place but those digits: what `1` typed there would be. */
  readonly perOne?: number | undefined;
  /** What the instrument tells apart, nm; left out, 0.001 mm or 0.0001 in. */
  readonly resolution?: number | undefined;
  /** The size the gauge is zeroed on, where the figure was a deviation from it. */
  readonly setting?: number | null | undefined;
  /** The size the gauge is zeroed on, where the figure was none: a few digits without a sign may have been meant as one. */
  readonly zeroedOn?: number | null | undefined;
}

/** One of a deviation without a unit: a hundredth of a millimetre, a thou. */
const ONE_OF_A_DEVIATION: Readonly<Record<Unit, number>> = { mm: 10_000, in: 25_400 };

/** One in the last place that is read. */
const LAST_PLACE: Readonly<Record<Unit, number>> = { mm: 1_000, in: 2_540 };
/** A length that digits of a figure tell: turns, graduations and frames of a micrometer. */
const THIMBLE_TURN: Readonly<Record<Unit, number>> = { mm: 500_000, in: 635_000 };
const FRAME: Readonly<Record<Unit, number>> = { mm: 25_000_000, in: 25_400_000 };
const TENTH: Readonly<Record<Unit, number>> = { mm: 1_000_000, in: 2_540_000 };
/** Tenths of an inch up to the next inch, whole millimetres up to the next frame. */
const MOST_TENTHS: Readonly<Record<Unit, number>> = { mm: 24, in: 9 };

const TURN_WORDS: Readonly<Record<Unit, readonly [string, string]>> = {
  mm: ['One thimble turn (0.5 mm) off?', 'Two thimble turns (1 mm) off?'],
  in: ['One thimble turn (0.025 in) off?', 'Two thimble turns (0.050 in) off?'],
};
const FRAME_WORDS: Readonly<Record<Unit, string>> = {
  mm: 'One frame or range rod (25 mm) off?',
  in: 'One frame or range rod (1 in) off?',
};

/** Digits with two neighbouring ones changed over; the point stays where it is. */
function swappedDigits(digits: string): string[] {
  const swaps: string[] = [];
  for (let at = 0; at + 1 < digits.length; at += 1) {
    const first = digits[at]!;
    const next = digits[at + 1] === '.' ? at + 2 : at + 1;
    const second = digits[next] ?? '';
    if (/\d/u.test(first) && /\d/u.test(second) && first !== second) {
      swaps.push(digits.slice(0, at) + second + digits.slice(at + 1, next) + first + digits.slice(next + 1));
    }
  }
  return swaps;
}

/** Zeros that nobody writes at the end of a figure, up to the last place that is read: a digit may have been changed over with one. */
function withZeros(digits: string, perOne: number, resolution: number): string[] {
  const places = digits.includes('.') ? digits.length - digits.indexOf('.') - 1 : null;
  const read = Math.round(Math.log10(perOne / resolution));
  return places === null || places >= read ? [digits] : [digits, digits + '0'.repeat(read - places)];
}

function tenthsWords(unit: Unit, tenths: number): string {
  return unit === 'in' ? `Barrel misread by 0.${tenths} in?` : `Sleeve misread by ${tenths} mm?`;
}

/**
 * Every size that a figure would be if one of the usual slips had been made: the sign of a deviation left out, a needle read with the wrong sign, a thimble turn or two
 * (0.5 mm, 0.025 in), a frame or range rod (25 mm, 1 in), the tenths of the barrel (0.1 to 0.9 in, whole millimetres), two neighbouring
 * digits changed over, the decimal point moved by one or two places or left out, the other unit. Common practice.
 *
 * @returns in nanometres, not rounded; the likeliest kind of slip first
 */
export function slipsOf({
  nm,
  unit,
  digits,
  perOne,
  setting,
  zeroedOn,
  resolution = LAST_PLACE[unit],
}: TypedFigure): Unslipped[] {
  const slips: Unslipped[] = [];
  const add = (slip: Slip, value: number, question: string) => slips.push({ slip, nm: value, question });
  const from = setting ?? 0;
  const isDeviation = setting != null;
  if (zeroedOn != null && digits !== undefined) {
    const off = Number(digits) * ONE_OF_A_DEVIATION[unit];
    for (const sign of off === 0 ? [1] : [1, -1]) {
      const question =
        off === 0 ? 'No deviation from the setting?' : `A deviation of ${sign > 0 ? '+' : '−'}${digits}?`;
      add('sign-left-out', zeroedOn + sign * off, question);
    }
  }
  if (isDeviation) add('mirrored-deviation', 2 * setting - nm, 'Needle sign reversed?');
  for (const turns of [1, 2] as const) {
    for (const sign of [1, -1])
      add('thimble-turn', nm + sign * turns * THIMBLE_TURN[unit], TURN_WORDS[unit][turns - 1]!);
  }
  for (const sign of [1, -1]) add('frame-size', nm + sign * FRAME[unit], FRAME_WORDS[unit]);
  for (let tenths = 1; tenths <= MOST_TENTHS[unit]; tenths += 1) {
    for (const sign of [1, -1]) add('tenth', nm + sign * tenths * TENTH[unit], tenthsWords(unit, tenths));
  }
  if (digits !== undefined && perOne !== undefined) {
    const sign = nm - from < 0 ? -1 : 1;
    for (const written of withZeros(digits, perOne, resolution)) {
      for (const swapped of swappedDigits(written)) {
        add('digits-swapped', from + sign * Number(swapped) * perOne, 'Two digits swapped?');
      }
    }
  }
  const what = isDeviation ? 'Decimal point of the deviation slipped?' : 'Decimal point slipped?';
  for (const factor of [10, 0.1, 100, 0.01]) add('decimal-slip', from + (nm - from) * factor, what);
  if (digits !== undefined && !digits.includes('.')) {
    for (let places = 3; places < digits.length; places += 1) {
      add('decimal-slip', from + (nm - from) / 10 ** places, 'Decimal point left out?');
    }
  }
  const factor = NANOMETRES_PER.in / NANOMETRES_PER.mm;
  if (!isDeviation) {
    if (unit === 'in') add('other-unit', nm / factor, 'Typed in millimetres?');
    else add('other-unit', nm * factor, 'Typed in inches?');
  }
  return slips;
}
