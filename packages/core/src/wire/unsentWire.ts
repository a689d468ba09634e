import { z } from 'zod';
import { momentSchema } from '../measure/moment.js';
import { jobIdSchema } from './benchWire.js';
import { endpoint } from './endpoint.js';

/** Changes that are named one by one; more are counted. */
export const MOST_UNSENT = 50;
const LONGEST_WORDS = 200;

const browserSchema = z.uuid('the id of a browser is a UUID').toLowerCase();
const byBrowser = z.object({ browser: browserSchema });

const unsentChangeSchema = z.strictObject({
  id: z.uuid().toLowerCase().describe('Id of the change, under which the server takes it once.'),
  kind: z.enum(['create', 'reading', 'document']),
  engine: jobIdSchema,
  words: z.string().min(1).max(LONGEST_WORDS).describe('What it is, as a person says it.'),
});
export type UnsentChange = z.output<typeof unsentChangeSchema>;

const unsentSchema = z.strictObject({
  changes: z.array(unsentChangeSchema).max(MOST_UNSENT),
  more: z.int().min(0).max(1_000_000).describe('How many there are beside these.'),
});
export type Unsent = z.output<typeof unsentSchema>;

const missingSchema = z.strictObject({ browser: browserSchema, toldAt: momentSchema, ...unsentSchema.shape });
/** What another browser of the same person had not sent when it was heard of last, and what has not come since. */
export type Missing = z.output<typeof missingSchema>;

/** Words for a change, cut to what the server takes. */
export function unsentWords(words: string): string {
  return words.length <= LONGEST_WORDS
    ? words
    : `${words.slice(0, LONGEST_WORDS - 1).replace(/[\ud800-\udbff]$/u, '')}…`;
}

export const UNSENT_ENDPOINTS = {
  tellUnsent: endpoint({
    method: 'put',
    at: '/api/unsent/{browser}',
    needs: 'read',
    summary: 'Report the changes that wait in a browser: after its data is cleared, the next one shows what is missing',
    path: byBrowser,
    body: unsentSchema,
    answer: z.strictObject({ noted: z.literal(true) }),
    problems: ['invalid-request'],
    largestMb: 0.1,
  }),
  listMissing: endpoint({
    method: 'get',
    at: '/api/unsent',
    needs: 'read',
    summary: 'List the changes that other browsers of the same person had waiting and that have not come',
    query: byBrowser,
    answer: z.strictObject({ missing: z.array(missingSchema) }),
    problems: ['invalid-request'],
    topics: ['unsent'],
  }),
  forgetUnsent: endpoint({
    method: 'delete',
    at: '/api/unsent/{browser}',
    needs: 'read',
    summary: 'Forget what a browser had waiting: typed again, or not needed',
    path: byBrowser,
    answer: z.strictObject({ noted: z.literal(true) }),
    problems: ['invalid-request'],
    topics: ['unsent'],
  }),
} as const;
