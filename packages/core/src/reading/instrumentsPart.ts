import { z } from 'zod';
import { USUAL_WARM, warmSchema } from '../clearance/temperature.js';
import { documentPart, type PartValues, storedRecord } from '../document/documentPart.js';
import { instrumentSchema, usualInstruments } from '../measure/instrument.js';

/** What sizes are read with, and how parts and instruments grow with warmth. */
export const instrumentsPart = documentPart({
  members: {
    instruments: z.strictObject({
      boreGauge: instrumentSchema,
      micrometer: instrumentSchema,
      ballMicrometer: instrumentSchema,
    }),
    warm: warmSchema,
  },
  since: 3,
  blank: ({ unit }) => ({ instruments: usualInstruments(unit), warm: USUAL_WARM }),
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
  },
});
export type InstrumentsMembers = PartValues<typeof instrumentsPart>;
