import { type Nanometres, nanometres } from './nanometres.js';
import { slipsOf } from './slips.js';
import { NANOMETRES_PER, type Unit } from './unit.js';

/** What a figure can be: from the least to the most, nm. */
export interface Span {
  readonly low: number;
  readonly high: number;
}

/** What a figure may have been meant as, and the question to put. */
export interface LikelyFigure {
  readonly nm: Nanometres;
  readonly question: string;
}

/** Maximum figures offered. */
const MOST_OFFERED = 3;

/**
 * What a figure may have been meant as where it cannot be right: its decimal point moved by one to three places, or the other unit. Common
 * practice; the figure itself is never changed.
 *
 * @param span what it can be
 * @returns null for a figure that can be right; else what lies in the span, which may be nothing
 * @example likelyFigures(3_000_000, 'mm', { low: 0, high: 500_000 })[0].nm // 30000
 */
export function likelyFigures(nm: Nanometres, unit: Unit, { low, high }: Span): readonly LikelyFigure[] | null {
  if (nm >= low && nm <= high) return null;
  const factor = NANOMETRES_PER.in / NANOMETRES_PER.mm;
  const all = [
    ...[10, 0.1, 100, 0.01, 1_000, 0.001].map((by) => ({ value: nm * by, question: 'Decimal point slipped?' })),
    unit === 'in'
      ? { value: nm / factor, question: 'Typed in millimetres?' }
      : { value: nm * factor, question: 'Typed in inches?' },
  ];
  const found = all.flatMap(({ value, question }) =>
    value !== 0 && value >= low && value <= high ? [{ nm: nanometres(Math.round(value)), question }] : [],
  );
  // What is nearest to the middle of what it can be, in proportion, is the likeliest.
  const middle = Math.sqrt(Math.max(1, low, high / 100) * high);
  const off = ({ nm: one }: LikelyFigure) => Math.abs(Math.log(one / middle));
  return found.sort((one, other) => off(one) - off(other)).slice(0, MOST_OFFERED);
}

/** The lengths of a sum: bore, journal and walls. */
export type SumPart = 'bore' | 'journal' | 'upper' | 'lower';

/** One part of a sum with another figure, and the clearance that it leads to. */
export interface LikelyPart extends LikelyFigure {
  readonly part: SumPart;
  readonly clearance: Nanometres;
}

/** A clearance that is no oil clearance, whichever the limits: a figure of the sum is wrong. 0.25 mm; common practice. */
const NO_CLEARANCE = 250_000;
/** What an oil clearance may be where no limits were typed. */
const ANY_CLEARANCE: Span = { low: 5_000, high: 150_000 };

/**
 * Which single figure of `bore − journal − walls` would, with one of the usual slips undone, give a clearance that can be right; null where the
 * clearance can be right as it is.
 *
 * @param limits of the clearance; null where none are known
 */
export function likelyParts(
  parts: Readonly<Record<SumPart, Nanometres>>,
  unit: Unit,
  limits: Span | null,
): readonly LikelyPart[] | null {
  const sumOf = ({ bore, journal, upper, lower }: Readonly<Record<SumPart, number>>) => bore - journal - upper - lower;
  const clearance = sumOf(parts);
  if (Math.abs(clearance - (limits?.high ?? 0)) <= NO_CLEARANCE) return null;
  const { low, high } = limits ?? ANY_CLEARANCE;
  const all = (Object.keys(parts) as SumPart[]).flatMap((part) =>
    slipsOf({ nm: parts[part], unit }).map(({ nm, question }) => ({ part, nm: nanometres(Math.round(nm)), question })),
  );
  return all
    .flatMap((one) => {
      const after = sumOf({ ...parts, [one.part]: one.nm });
      return after >= low && after <= high ? [{ ...one, clearance: nanometres(after) }] : [];
    })
    .slice(0, MOST_OFFERED);
}
