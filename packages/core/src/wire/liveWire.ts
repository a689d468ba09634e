import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { STAGES } from '../job/stageName.js';
import { jobIdSchema } from './benchWire.js';
import { endpoint } from './endpoint.js';
import { TOPICS } from './topics.js';

/** An id that a page makes for itself when it is loaded. */
export const tabSchema = z.string().regex(/^[\w-]{8,40}$/u, 'an id of letters, digits and hyphens');

/** Where somebody is. */
export const presenceSchema = z.strictObject({
  tab: tabSchema,
  name: z.string().max(60),
  engine: jobIdSchema.nullable().describe('Engine that is open; null: none.'),
  stage: z.enum(STAGES).nullable(),
  part: z
    .string()
    .max(12)
    .regex(/^[MPR]\d{1,2}$/u, 'a part such as M3, P2 or R1')
    .nullable()
    .describe('Part being worked on; null: none.'),
});
export type Presence = z.output<typeof presenceSchema>;

/** What a page hears. */
export const liveEventSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('changed'),
    topics: z.array(z.enum(TOPICS)),
    engine: jobIdSchema.nullable(),
    tab: tabSchema.nullable().describe('The page that changed it, which knows already.'),
  }),
  z.strictObject({ kind: z.literal('here'), who: presenceSchema }),
  z.strictObject({ kind: z.literal('gone'), tab: tabSchema }),
  /** Something may have been changed that was not heard. */
  z.strictObject({ kind: z.literal('missed') }),
]);
export type LiveEvent = z.output<typeof liveEventSchema>;

export const LIVE_ENDPOINTS = {
  sayWhere: endpoint({
    method: 'put',
    at: '/api/presence',
    needs: 'read',
    summary: 'Tell the others at the same engine where you are; not stored',
    body: z.strictObject({ ...presenceSchema.omit({ name: true }).shape, by: personSchema }),
    answer: z.strictObject({ said: z.literal(true) }),
    problems: ['invalid-request'],
    largestMb: 0.01,
  }),
} as const;
