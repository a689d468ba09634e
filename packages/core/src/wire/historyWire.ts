import { z } from 'zod';
import { momentSchema } from '../measure/moment.js';
import { endpoint } from './endpoint.js';
import { jobIdSchema } from './jobWire.js';

/** A build of an engine with a serial number. */
const buildSchema = z.strictObject({
  id: jobIdSchema,
  name: z.string(),
  serial: z.string(),
  createdAt: momentSchema,
  closedAt: momentSchema.nullable(),
  signed: z
    .strictObject({ revision: z.int().min(1), hash: z.string(), at: momentSchema })
    .nullable()
    .describe('Its last signed build sheet; null: never signed.'),
});
export type KnownBuild = z.output<typeof buildSchema>;

/** What the workshop knows from its engines. */
export const HISTORY_ENDPOINTS = {
  listBuilds: endpoint({
    method: 'get',
    at: '/api/builds',
    needs: 'read',
    summary: 'Builds of the engine with a serial number, closed ones too, the latest first',
    query: z.object({ serial: z.string().trim().min(1, 'enter the serial number').max(40) }),
    answer: z.strictObject({ builds: z.array(buildSchema) }),
    problems: ['invalid-request'],
    topics: ['benches', 'sheets'],
    isTagged: true,
  }),
} as const;
