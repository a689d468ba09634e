import { type PressureVerdict, pressureLimitText, pressureText } from '@fettle/core';

/** How a pressure stands to its limit: `too low, limit at least 1 bar`, `inside 1 to 5 bar`. */
export function stateWords({ state, limit }: PressureVerdict): string {
  if (limit === null) return 'no limit entered';
  const text = pressureLimitText(limit);
  return state === 'inside' ? `inside ${text}` : `too ${state === 'under' ? 'low' : 'high'}, limit ${text}`;
}

/** Differences smaller than this part of the pressure are not told: a gauge does not tell them apart. A setting of ours. */
const LEAST = 0.02;

/** How a pressure has changed since the first of its kind: `0.6 bar less than the first`; empty where it has not. */
export function fellText({ fell, read }: PressureVerdict): string {
  if (fell === null || Math.abs(fell) < LEAST * Math.max(read.value, Math.abs(fell))) return '';
  const by = { value: Number(Math.abs(fell).toPrecision(2)), unit: read.unit };
  return `${pressureText(by)} ${fell > 0 ? 'less' : 'more'} than the first`;
}
