import { z } from 'zod';
import { nanometresSchema, notNegativeNmSchema, sizeNmSchema } from '../measure/lengthSchema.js';
import { nanometres } from '../measure/nanometres.js';
import { FAMILY_TABLE } from '../part/family.js';
import { eachFeature, FEATURE_TABLE, type Feature, SLOTS } from '../part/feature.js';
import { READING_MODES } from '../part/reading.js';
import type { SettingRow } from '../stage/settingRow.js';

/** A feature whose settings are looked at. */
interface MeasuredFeature {
  readonly feature: Feature;
}

/** A row of the settings of measuring. One that is kept by feature names the feature, too: `setting size for the pins`. */
interface MeasuringRow<Schema extends z.ZodType = z.ZodType>
  extends Omit<SettingRow<Schema, unknown, MeasuredFeature>, 'place'> {
  readonly place: string | ((words: string) => string);
}

function row<Schema extends z.ZodType>(settings: MeasuringRow<Schema>): MeasuringRow<Schema> {
  return settings;
}

const celsiusSchema = z.number().min(-60).max(300).nullable();
const slotsSchema = z.array(z.enum(SLOTS)).min(1);

/** How far apart main bores are alike along the line where nobody said: 0.0005 in; common practice. */
export const ALONG_LINE = nanometres(12_700);

/** How parts are read. A new setting is a row here, and what asks for it. */
export const MEASURING_SETTINGS = {
  order: row({
    schema: z.enum(['along', 'down']),
    usual: () => 'along' as const,
    place: 'order of measuring',
    field: {
      kind: 'one-of',
      label: 'Enter moves',
      options: ({ feature }) => [
        { value: 'along', label: 'along the shaft' },
        {
          value: 'down',
          label: FAMILY_TABLE[FEATURE_TABLE[feature].family].housingsMove
            ? 'down one column at a time'
            : 'down each main',
        },
      ],
    },
  }),
  slots: row({
    schema: z.strictObject(eachFeature(() => slotsSchema)),
    usual: () => eachFeature((feature) => [...FEATURE_TABLE[feature].usualSlots]),
    place: (words) => `where the ${words} are read`,
  }),
  /** How far a reading may be off, nm: a disagreement with a mark within it tells nothing. */
  uncertainty: row({
    schema: notNegativeNmSchema.describe(
      'Common practice for a micrometer and a bore gauge in good order: 0.002 mm. A setting.',
    ),
    usual: () => nanometres(2000),
    place: 'uncertainty of a reading',
    field: { kind: 'length', label: 'Allow reading error of ±', isOptional: false },
  }),
  /** How far a main bore may lie from the line of its neighbours before it is told, nm; null: it is not looked at. */
  alongLine: row({
    schema: nanometresSchema
      .refine((value) => value > 0, 'is above zero')
      .nullable()
      .optional()
      .describe('Left out: 0.0005 in, common practice. A setting, no limit of a data sheet.'),
    place: 'how far a main bore may lie from the line of its neighbours',
    field: {
      kind: 'length',
      label: 'Bores alike along the line within',
      isOptional: true,
      isSize: true,
      shown: ALONG_LINE,
    },
    isOf: ({ feature }) => feature === 'mainBore',
  }),
  /** Size the gauge is zeroed on, for readings typed as deviations. */
  setting: row({
    schema: z.strictObject(eachFeature(() => sizeNmSchema.nullable())),
    usual: () => eachFeature(() => null),
    place: (words) => `setting size for the ${words}`,
  }),
  /** How warm the parts are that are read now, °C; null where nobody takes it: sizes are then taken as they are read. */
  celsius: row({
    schema: z.strictObject(eachFeature(() => celsiusSchema)),
    since: 3,
    usual: () => eachFeature(() => null),
    place: (words) => `temperature of the ${words}`,
  }),
  gaugeCelsius: row({
    schema: celsiusSchema,
    since: 3,
    usual: () => null,
    place: 'temperature of the instruments',
    field: { kind: 'celsius', label: 'Instrument temperature, °C (blank: 20)' },
  }),
  /** How sizes are read now; null where nobody said. */
  mode: row({
    schema: z.strictObject(eachFeature(() => z.enum(READING_MODES).nullable())),
    since: 5,
    usual: () => eachFeature(() => null),
    place: 'how sizes are read',
  }),
} as const;

/**
 * What a setting of measuring is called in the history of an engine; null for what is none.
 *
 * @param words what the parts are called that it is of
 */
export function measuringPlace(key: string, words: string): string | null {
  if (!Object.hasOwn(MEASURING_SETTINGS, key)) return null;
  const { place } = MEASURING_SETTINGS[key as keyof typeof MEASURING_SETTINGS];
  return typeof place === 'string' ? place : place(words);
}
