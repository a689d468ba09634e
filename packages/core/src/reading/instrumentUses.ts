import type { InstrumentRole } from '../measure/instrument.js';
import { FEATURE_TABLE, FEATURES, type Feature } from '../part/feature.js';

/** What instruments are chosen for: each measured feature, walls of shells, and stations with their shells in. */
export const INSTRUMENT_USES = [...FEATURES, 'walls', 'trials'] as const;
export type InstrumentUse = (typeof INSTRUMENT_USES)[number];

/** The kind of instrument that reads it. */
export function roleOfUse(use: InstrumentUse): InstrumentRole {
  if (use === 'walls') return 'ballMicrometer';
  if (use === 'trials') return 'boreGauge';
  return FEATURE_TABLE[use].role === 'housing' ? 'boreGauge' : 'micrometer';
}

/**
 * What is read, in words.
 *
 * @example wordsOfUse('mainBore') // 'main bores'
 */
export function wordsOfUse(use: InstrumentUse): string {
  if (use === 'walls') return 'walls';
  if (use === 'trials') return 'clearances with the shells in';
  return `${FEATURE_TABLE[use as Feature].name.toLowerCase()}s`;
}
