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
