import { formatLength } from './formatLength.js';
import { type Nanometres, nanometres } from './nanometres.js';
import { NANOMETRES_PER, type Unit } from './unit.js';

/** A way in which a right size becomes a wrong figure. */
export type Slip =
  | 'thimble-turn'
  | 'two-turns'
  | 'one-tenth'
  | 'two-tenths'
  | 'range-rod'
  | 'decimal-point'
  | 'wrong-unit'
  | 'swapped-digits'
  | 'mirrored-deviation';

export interface LikelyReading {
  readonly slip: Slip;
  /** What the figure would be without the slip. */
  readonly nm: Nanometres;
  /** The question to put to the fitter. */
  readonly question: string;
}

export interface Misreading {
  /** How far outside the band the figure lies; negative when under it. */
  readonly outsideBy: Nanometres;
  /** Slips that would explain it, likeliest first; may be empty. */
  readonly likely: readonly LikelyReading[];
}

export interface ExpectedSize {
  /** The data sheet's limits for the feature, or the span of what else was read there. */
  readonly low: Nanometres;
  readonly high: Nanometres;
  readonly unit: Unit;
  /** The size the gauge is zeroed on, where the figure was a deviation from it. */
  readonly setting?: Nanometres | null;
}

/**
 * Wear, a reground journal and a bored-out block move a size by less than this; a figure further out cannot be right.
 * A quarter of a millimetre: half a thimble turn. Common practice.
 */
export const BELIEVABLE_WEAR = nanometres(250_000);
/** An explained figure must land this near to the limits to be offered: 0.05 mm. */
const LANDS_WITHIN = 50_000;

function swappedDigits(text: string): string[] {
  const swaps: string[] = [];
  for (let at = 0; at + 1 < text.length; at += 1) {
    const first = text[at]!;
    // Across the point too: it stays where it is.
    const next = text[at + 1] === '.' ? at + 2 : at + 1;
    const second = text[next] ?? '';
    if (/\d/u.test(first) && /\d/u.test(second) && first !== second) {
      swaps.push(text.slice(0, at) + second + text.slice(at + 1, next) + first + text.slice(next + 1));
    }
  }
  return swaps;
}

function slipsOf(read: Nanometres, expected: ExpectedSize): { slip: Slip; nm: number; question: string }[] {
  const { unit, setting } = expected;
  const turn = unit === 'mm' ? 500_000 : 635_000;
  const rod = unit === 'mm' ? 25_000_000 : 25_400_000;
  const one = NANOMETRES_PER[unit];
  const slips: { slip: Slip; nm: number; question: string }[] = [];
  if (setting != null) {
    slips.push({
      slip: 'mirrored-deviation',
      nm: 2 * setting - read,
      question: 'Needle read with the wrong sign?',
    });
    for (const factor of [0.1, 10, 0.01, 100]) {
      const nm = setting + (read - setting) * factor;
      slips.push({ slip: 'decimal-point', nm, question: 'Decimal point of the deviation slipped?' });
    }
  }
  const [turnText, twoText] = unit === 'mm' ? ['0.5 mm', '1 mm'] : ['0.025 in', '0.050 in'];
  const rodText = unit === 'mm' ? '25 mm' : '1 in';
  for (const sign of [1, -1]) {
    slips.push({ slip: 'thimble-turn', nm: read + sign * turn, question: `One thimble turn (${turnText}) off?` });
    if (unit === 'in') {
      slips.push({ slip: 'two-tenths', nm: read + sign * 5_080_000, question: 'Barrel misread by 0.2 in?' });
      slips.push({ slip: 'one-tenth', nm: read + sign * 2_540_000, question: 'Barrel misread by 0.1 in?' });
    }
    slips.push({ slip: 'two-turns', nm: read + 2 * sign * turn, question: `Two thimble turns (${twoText}) off?` });
    slips.push({ slip: 'range-rod', nm: read + sign * rod, question: `One range rod (${rodText}) off?` });
  }
  slips.push({
    slip: 'wrong-unit',
    nm: unit === 'in' ? read / 25.4 : read * 25.4,
    question: unit === 'in' ? 'Typed in millimetres?' : 'Typed in inches?',
  });
  for (const factor of [10, 0.1, 100, 0.01, 1000, 0.001, 1e4, 1e-4, 1e5, 1e-5]) {
    slips.push({ slip: 'decimal-point', nm: read * factor, question: 'Decimal point slipped?' });
  }
  const text = formatLength(read, unit, unit === 'mm' ? 3 : 4);
  for (const swapped of swappedDigits(text)) {
    slips.push({ slip: 'swapped-digits', nm: Math.round(Number(swapped) * one), question: 'Two digits swapped?' });
  }
  return slips;
}

/**
 * Tells whether a figure cannot be the size it is entered as, and which usual slips would explain it: a thimble turn
 * (0.5 mm, 0.025 in), a barrel misread by 0.2 in, a range rod (25 mm, 1 in), the decimal point, the other unit, two digits
 * swapped, a needle read with the wrong sign. The figure itself is never changed.
 *
 * @param read the size as typed
 * @param expected limits of the feature, lowest first
 * @returns null when the figure is believable (inside the limits or within 0.25 mm of them: worn or reground parts are
 *   judged against the limits, not doubted)
 * @example misreadingOf(59_481_000, { low: 59_976_000, high: 59_994_000, unit: 'mm' }).likely[0].nm // 59981000
 */
export function misreadingOf(read: Nanometres, expected: ExpectedSize): Misreading | null {
  const { low, high } = expected;
  const outsideBy = read < low ? read - low : read > high ? read - high : 0;
  if (Math.abs(outsideBy) <= BELIEVABLE_WEAR) return null;
  return { outsideBy: nanometres(outsideBy), likely: likelyOf(read, expected, LANDS_WITHIN) };
}

/** Slips that worn parts are not doubted for, but that are worth a question where they would explain a size outside the limits. */
const WORTH_A_QUESTION: readonly Slip[] = ['swapped-digits', 'mirrored-deviation', 'decimal-point'];

/**
 * Slips that would explain a believable size outside its limits: swapped digits, a needle read with the wrong sign, the point of a
 * deviation. A question to put, never a verdict: the part may just be worn.
 *
 * @returns empty for a size inside its limits, and where no slip leads to inside them
 */
export function questionsOf(read: Nanometres, expected: ExpectedSize): readonly LikelyReading[] {
  const { low, high } = expected;
  if ((read >= low && read <= high) || misreadingOf(read, expected) !== null) return [];
  return likelyOf(read, expected, 0).filter(({ slip }) => WORTH_A_QUESTION.includes(slip));
}

/** Slips after which a figure would lie within the limits or so near to them, likeliest first. */
function likelyOf(read: Nanometres, expected: ExpectedSize, near: number): LikelyReading[] {
  const { low, high } = expected;
  const middle = (low + high) / 2;
  const seen = new Set<number>();
  return slipsOf(read, expected)
    .filter(({ nm }) => nm >= low - near && nm <= high + near)
    .map(({ slip, nm, question }) => ({ slip, nm: nanometres(Math.round(nm)), question }))
    .map((found, order) => ({ ...found, order, inside: found.nm >= low && found.nm <= high }))
    .sort(
      (a, b) =>
        Number(b.inside) - Number(a.inside) || a.order - b.order || Math.abs(a.nm - middle) - Math.abs(b.nm - middle),
    )
    .filter(({ nm }) => !seen.has(nm) && seen.add(nm))
    .slice(0, 3)
    .map(({ slip, nm, question }) => ({ slip, nm, question }));
}
