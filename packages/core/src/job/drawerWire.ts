import { z } from 'zod';
import { drawerHalfSchema } from '../shell/workshopDrawer.js';
import { acceptedChoiceSchema } from './jobDocument.js';
import { personSchema } from './jobWire.js';

export const drawerPutSchema = z.strictObject({
  version: z.int().min(0).describe('The version the change was made from; 0 for a new kind of half.'),
  by: personSchema,
  half: drawerHalfSchema,
});

/** Choices of several engines, accepted together or not at all. */
export const acceptTogetherSchema = z.strictObject({
  by: personSchema,
  jobs: z
    .array(z.strictObject({ id: z.uuid(), version: z.int().min(1), choice: acceptedChoiceSchema }))
    .min(1)
    .max(5000),
});

export const fittedSchema = z.strictObject({
  by: personSchema,
  fitted: z
    .boolean()
    .describe('true: the reserved halves go into the engine and leave the drawer; false takes that back.'),
});
