import { z } from 'zod';
import { calibrationOn, calibrationSchema } from './calibration.js';
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

/**
 * An instrument as an engine takes it over: as the register has it, with what counts for readings since a moment. That is the last calibration and
 * the last zero check before it, and all after it; zero checks that the engine knew and the register no longer tells stay.
 *
 * @param since when the engine was first read with it; now, where it was not yet
 * @param before what the engine knew of it; left out: nothing
 */
export function takenOver(
  { revision, instrument, calibrations, checks }: KnownInstrument,
  since: string,
  before?: KnownInstrument | null,
): KnownInstrument {
  const known = new Set(checks.map(({ id }) => id));
  const kept = (before?.checks ?? []).filter(({ id }) => !known.has(id));
  const all = [...kept, ...checks].sort((one, other) => (one.at < other.at ? -1 : one.at > other.at ? 1 : 0));
  const first = all.findLastIndex(({ at }) => at <= since);
  const valid = calibrationOn(calibrations, since);
  return {
    revision,
    instrument,
    calibrations: calibrations.filter((one) => one === valid || one.on > since.slice(0, 10)),
    checks: all.slice(Math.max(0, first)).slice(-MOST_CHECKS),
  };
}

/**
 * When an engine was first read with an instrument.
 *
 * @param otherwise where it was not yet
 */
export function readSince(
  readings: readonly {
    readonly at: string;
    readonly taken?: { readonly instrumentId?: string | undefined } | undefined;
  }[],
  id: string,
  otherwise: string,
): string {
  return readings.reduce((first, { at, taken }) => (taken?.instrumentId === id && at < first ? at : first), otherwise);
}
