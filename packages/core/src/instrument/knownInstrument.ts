import { z } from 'zod';
import { calibrationSchema } from './calibration.js';
import { registeredInstrumentSchema } from './registeredInstrument.js';
import { zeroCheckSchema } from './zeroCheck.js';

/** Zero checks of one instrument that an engine keeps, the last ones. */
export const MOST_CHECKS = 400;
/** Calibrations of one instrument, in the register and in an engine. */
export const MOST_CALIBRATIONS = 60;

/** An instrument of the workshop as an engine knows it: a copy, so that what was signed says what it was read with. */
export const knownInstrumentSchema = z.strictObject({
  revision: z.int().min(1).describe('Revision of the register that it was copied from.'),
  instrument: registeredInstrumentSchema,
  calibrations: z.array(calibrationSchema).max(MOST_CALIBRATIONS),
  checks: z.array(zeroCheckSchema).max(MOST_CHECKS),
});
export type KnownInstrument = z.output<typeof knownInstrumentSchema>;

/** What an engine takes over of an instrument from the register. */
interface InRegister extends KnownInstrument {
  readonly id?: string;
}

/**
 * An instrument as an engine takes it over: as the register has it, with the zero checks that the engine knew and the register no longer tells.
 *
 * @param before what the engine knew of it; left out: nothing
 */
export function takenOver(
  { revision, instrument, calibrations, checks }: InRegister,
  before?: KnownInstrument | null,
): KnownInstrument {
  const known = new Set(checks.map(({ id }) => id));
  const kept = (before?.checks ?? []).filter(({ id }) => !known.has(id));
  const all = [...kept, ...checks].sort((one, other) => (one.at < other.at ? -1 : one.at > other.at ? 1 : 0));
  return { revision, instrument, calibrations, checks: all.slice(-MOST_CHECKS) };
}
