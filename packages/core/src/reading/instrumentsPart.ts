import { z } from 'zod';
import { USUAL_WARM, warmSchema } from '../clearance/temperature.js';
import { documentPart, type PartValues, storedRecord } from '../document/documentPart.js';
import { personSchema } from '../document/person.js';
import { knownInstrumentSchema } from '../instrument/knownInstrument.js';
import { instrumentSchema, usualInstruments } from '../measure/instrument.js';
import { momentSchema } from '../measure/moment.js';
import { INSTRUMENT_USES } from './instrumentUses.js';

const idSchema = z.uuid().toLowerCase();

/** What was decided about the readings between two zero checks that differ: corrected evenly in time, or left as they were read. */
const driftDecisionSchema = z.strictObject({ isCorrected: z.boolean(), by: personSchema, at: momentSchema });

/** Instruments of the workshop that one engine is read with. */
const MOST_INSTRUMENTS = 40;

/** What sizes are read with, and how parts and instruments grow with warmth. */
export const instrumentsPart = documentPart({
  members: {
    instruments: z.strictObject({
      boreGauge: instrumentSchema,
      micrometer: instrumentSchema,
      ballMicrometer: instrumentSchema,
    }),
    warm: warmSchema,
    /** Instruments of the workshop, by id, as they were when the engine took them over last. */
    registered: z
      .record(idSchema, knownInstrumentSchema)
      .refine(
        (all) => Object.keys(all).length <= MOST_INSTRUMENTS,
        `at most ${MOST_INSTRUMENTS} instruments an engine`,
      ),
    /** What each thing is read with now, by id; left out: the engine's own instrument of its kind. */
    using: z.partialRecord(z.enum(INSTRUMENT_USES), idSchema),
    /** By the zero check that ended a span in which an instrument moved: what was decided about the readings in it. */
    drifts: z.record(idSchema, driftDecisionSchema),
  },
  since: 3,
  blank: ({ unit }) => ({
    instruments: usualInstruments(unit),
    warm: USUAL_WARM,
    registered: {},
    using: {},
    drifts: {},
  }),
  upgrades: {
    /** From before the workshop had a register: the engine's own instruments stay. */
    7: () => ({ registered: {}, using: {}, drifts: {} }),
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
