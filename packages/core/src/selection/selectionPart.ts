import { z } from 'zod';
import { documentPart, type PartValues } from '../document/documentPart.js';
import type { EngineStart } from '../engineType/enginePart.js';
import { acceptedChoiceSchema } from '../shell/acceptedChoice.js';
import { jobRulesSchema, RULE_UPGRADES, usualRules } from './ruleTable.js';

/** What the fitter holds or forbids at one station. */
export const stationWishSchema = z.strictObject({
  upper: z.string().nullable(),
  lower: z.string().nullable(),
  noShells: z.array(z.string()).max(200),
  unmixed: z.boolean(),
});
export type StationWishes = z.infer<typeof stationWishSchema>;
export const NO_WISHES: StationWishes = { upper: null, lower: null, noShells: [], unmixed: false };

/** By which rules halves are selected, what is locked, and what was accepted. */
export const selectionPart = documentPart({
  members: {
    rules: jobRulesSchema,
    /** By station. */
    wishes: z.record(z.string().min(1).max(10), stationWishSchema),
    choice: acceptedChoiceSchema.nullable(),
  },
  since: 1,
  blank: (start: EngineStart) => ({
    rules: usualRules(start),
    wishes: {},
    choice: null,
  }),
  upgrades: RULE_UPGRADES,
});
export type SelectionMembers = PartValues<typeof selectionPart>;
