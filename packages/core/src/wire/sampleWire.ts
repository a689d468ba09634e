import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { endpoint } from './endpoint.js';

const removedSchema = z.strictObject({
  engines: z.int().min(0).describe('Sample engines closed; each can be reopened.'),
  types: z.int().min(0).describe('Sample engine types archived; each can be restored.'),
  instruments: z.int().min(0).describe('Sample instruments retired; each can be taken into use again.'),
  stock: z.int().min(0).describe('Kinds of sample stock removed; the stock history undoes it.'),
  kept: z.array(z.string()).describe('Sample stock that stays, and why: an engine of the workshop has reserved it.'),
});
/** What removing the samples did. */
export type SamplesRemoved = z.output<typeof removedSchema>;

export const SAMPLE_ENDPOINTS = {
  removeSamples: endpoint({
    method: 'post',
    at: '/api/samples/remove',
    needs: 'bench',
    summary:
      'Close the sample engines, archive the sample engine types, retire the sample instruments, remove the sample stock',
    body: z.strictObject({ by: personSchema }),
    answer: removedSchema,
    problems: ['invalid-request'],
    topics: ['benches', 'drawer', 'movements', 'types', 'instruments', 'history'],
  }),
} as const;
