import { z } from 'zod';
import { documentPart, type PartValues } from '../document/documentPart.js';
import { personSchema } from '../document/person.js';
import { momentSchema } from '../measure/moment.js';
import { FEATURES } from '../part/feature.js';
import { settingSchemas, settingUpgrades, usualSettings } from '../stage/settingRow.js';
import { MEASURING_SETTINGS } from './measuringSettings.js';

/** Who said that the caps are on as they must be for a reading, and when. */
export const capsOnSchema = z.strictObject({ by: personSchema, at: momentSchema });
export type CapsOn = z.output<typeof capsOnSchema>;

/** How parts are read. The readings are kept one by one, beside the document. */
export const measuringPart = documentPart({
  members: {
    measuring: z.strictObject({
      ...settingSchemas(MEASURING_SETTINGS),
      /** By feature of a housing: who said that its caps are in place and direction, lubricated and torqued as the figure asks. */
      capsOn: z.partialRecord(z.enum(FEATURES), capsOnSchema).optional(),
    }),
  },
  since: 1,
  blank: () => ({ measuring: usualSettings(MEASURING_SETTINGS, null) }),
  upgrades: settingUpgrades(MEASURING_SETTINGS, 'measuring'),
});
export type MeasuringMembers = PartValues<typeof measuringPart>;
