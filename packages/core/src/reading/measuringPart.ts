import { z } from 'zod';
import { documentPart, type PartValues, storedRecord } from '../document/documentPart.js';
import { personSchema } from '../document/person.js';
import { nanometresSchema, sizeNmSchema } from '../measure/lengthSchema.js';
import { momentSchema } from '../measure/moment.js';
import { nanometres } from '../measure/nanometres.js';
import { eachFeature, FEATURE_TABLE, FEATURES, SLOTS } from '../part/feature.js';
import { READING_MODES } from '../part/reading.js';

const celsiusSchema = z.number().min(-60).max(300).nullable();
const slotsSchema = z.array(z.enum(SLOTS)).min(1);

/** Who said that the caps are on as they must be for a reading, and when. */
export const capsOnSchema = z.strictObject({ by: personSchema, at: momentSchema });
export type CapsOn = z.output<typeof capsOnSchema>;

/** How parts are read. The readings are kept one by one, beside the document. */
export const measuringPart = documentPart({
  members: {
    measuring: z.strictObject({
      order: z.enum(['along', 'down']),
      slots: z.strictObject(eachFeature(() => slotsSchema)),
      /** How far a reading may be off, nm: a disagreement with a mark within it tells nothing. */
      uncertainty: nanometresSchema
        .refine((value) => value >= 0, 'cannot be below zero')
        .describe('Common practice for a micrometer and a bore gauge in good order: 0.002 mm. A setting.'),
      /** How far a main bore may lie from the line of its neighbours before it is told, nm; null: it is not looked at. */
      alongLine: nanometresSchema
        .refine((value) => value > 0, 'is above zero')
        .nullable()
        .optional()
        .describe('Left out: 0.0005 in, common practice. A setting, no limit of a data sheet.'),
      /** By feature of a housing: who said that its caps are in place and direction, lubricated and torqued as the figure asks. */
      capsOn: z.partialRecord(z.enum(FEATURES), capsOnSchema).optional(),
      /** Size the gauge is zeroed on, for readings typed as deviations. */
      setting: z.strictObject(eachFeature(() => sizeNmSchema.nullable())),
      /** How warm the parts are that are read now, °C; null where nobody takes it: sizes are then taken as they are read. */
      celsius: z.strictObject(eachFeature(() => celsiusSchema)),
      gaugeCelsius: celsiusSchema,
      /** How sizes are read now; null where nobody said. */
      mode: z.strictObject(eachFeature(() => z.enum(READING_MODES).nullable())),
    }),
  },
  since: 1,
  blank: () => ({
    measuring: {
      order: 'along' as const,
      slots: eachFeature((feature) => [...FEATURE_TABLE[feature].usualSlots]),
      uncertainty: nanometres(2000),
      setting: eachFeature(() => null),
      celsius: eachFeature(() => null),
      gaugeCelsius: null,
      mode: eachFeature(() => null),
    },
  }),
  upgrades: {
    /** From before temperatures. */
    3: ({ measuring }) => ({
      measuring: { celsius: eachFeature(() => null), gaugeCelsius: null, ...storedRecord(measuring) },
    }),
    /** From before it was asked how sizes are read. */
    5: ({ measuring }) => ({ measuring: { mode: eachFeature(() => null), ...storedRecord(measuring) } }),
  },
});
export type MeasuringMembers = PartValues<typeof measuringPart>;
