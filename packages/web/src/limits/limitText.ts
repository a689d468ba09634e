import { formatExactLength, INSTRUMENT_DECIMALS, type Limit, parseLength, type Unit } from '@fettle/core';

/** Limits as they are typed. */
export interface LimitText {
  readonly low: string;
  readonly high: string;
  readonly source: string;
}

export const EMPTY_LIMIT: LimitText = { low: '', high: '', source: '' };

export function textOfLimit(limit: Limit | null, unit: Unit): LimitText {
  if (!limit) return EMPTY_LIMIT;
  const text = (value: Limit['low']) => formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit]).replace('−', '-');
  return { low: text(limit.low), high: text(limit.high), source: limit.source };
}

export interface LimitFaults {
  readonly low?: string;
  readonly high?: string;
  readonly source?: string;
}

/**
 * Reads typed limits. Empty as a whole is allowed (not on the sheet yet); half of it is not, and each box says what it
 * lacks.
 */
export function readLimit({ low, high, source }: LimitText, unit: Unit): { limit: Limit | null; faults: LimitFaults } {
  if (low.trim() === '' && high.trim() === '' && source.trim() === '') return { limit: null, faults: {} };
  const parsed = { low: parseLength(low, { unit, signed: 'sign' }), high: parseLength(high, { unit, signed: 'sign' }) };
  const faults: { low?: string; high?: string; source?: string } = {};
  for (const side of ['low', 'high'] as const) {
    const value = parsed[side];
    if (!value.ok) faults[side] = value.code === 'empty' ? `The ${side} limit is missing.` : value.message;
  }
  if (source.trim() === '') faults.source = 'Enter the book and page.';
  if (parsed.low.ok && parsed.high.ok && parsed.low.nm > parsed.high.nm)
    faults.low = 'Above the high limit; swap them.';
  if (!parsed.low.ok || !parsed.high.ok || Object.keys(faults).length > 0) return { limit: null, faults };
  return { limit: { low: parsed.low.nm, high: parsed.high.nm, source: source.trim() }, faults };
}
