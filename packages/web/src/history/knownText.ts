import { FEATURE_TABLE, type Feature, formatLength, nanometres, type Unit } from '@fettle/core';

/** What is known is told to a tenth of a micrometre, or to a hundred-thousandth of an inch. */
const DECIMALS = { mm: 4, in: 5 } as const;

/** A length that was worked out over engines, without its unit; nothing where there is none. */
export function knownLength(value: number | null, unit: Unit, plus = false): string {
  if (value === null) return '';
  const text = formatLength(nanometres(Math.round(value)), unit, DECIMALS[unit]);
  return plus && value > 0 ? `+${text}` : text;
}

/**
 * A share in per cent.
 *
 * @example percentText(0.0714) // '7 %'
 */
export function percentText(share: number): string {
  return `${Math.round(100 * share)} %`;
}

/** Parts of a feature, as a title says them: `Main bores`. */
export function partsOf(feature: Feature): string {
  return `${FEATURE_TABLE[feature].name}s`;
}

export const HALF_WORDS = { upper: 'upper', lower: 'lower', either: 'upper or lower' } as const;
export const FAMILY_WORDS = { main: 'mains', rod: 'rods' } as const;
