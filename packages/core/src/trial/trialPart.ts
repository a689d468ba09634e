import { z } from 'zod';
import { USUAL_WARM, warmSchema } from '../clearance/temperature.js';
import { documentPart, storedRecord } from '../document/documentPart.js';
import { instrumentSchema, usualInstruments } from '../measure/instrument.js';
import { fastenersSchema, TRIAL_SCHOOLS, trialSchema, UNKNOWN_FASTENERS } from './trialSchema.js';

/** Stations assembled and read before the rest, and what their figures rest on: fasteners, instruments, temperature. */
export const trialPart = documentPart({
  members: {
    /** Stations that were put together and read with their shells in, by station. */
    trials: z.record(z.string().min(1).max(10), trialSchema),
    trialSchool: z.enum(TRIAL_SCHOOLS),
    fasteners: z.strictObject({ main: fastenersSchema, rod: fastenersSchema }),
    instruments: z.strictObject({
      boreGauge: instrumentSchema,
      micrometer: instrumentSchema,
      ballMicrometer: instrumentSchema,
    }),
    warm: warmSchema,
  },
  since: 3,
  blank: ({ unit, isByMarks }) => ({
    trials: {},
    trialSchool: isByMarks ? 'codes' : 'every',
    fasteners: { main: UNKNOWN_FASTENERS, rod: UNKNOWN_FASTENERS },
    instruments: usualInstruments(unit),
    warm: USUAL_WARM,
  }),
  upgrades: {
    /** From before it was asked what an instrument reaches. */
    4: ({ instruments }) => ({
      instruments: Object.fromEntries(
        Object.entries(storedRecord(instruments)).map(([role, one]) => [
          role,
          { range: null, ball: null, ...storedRecord(one) },
        ]),
      ),
    }),
    /** From before fasteners had figures of their own. */
    5: ({ fasteners }) => {
      const { main, rod } = storedRecord(fasteners);
      return {
        fasteners: { main: { figures: [], ...storedRecord(main) }, rod: { figures: [], ...storedRecord(rod) } },
      };
    },
  },
});
