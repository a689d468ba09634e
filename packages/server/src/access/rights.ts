import type { EntityManager } from 'typeorm';
import { z } from 'zod';
import { tokenHash } from './secrets.js';

/** The channel of PostgreSQL that processes on one database tell each other by. */
export const CHANNEL = 'fettle';

/** Whose rights ended, or changed: one of the three. */
export const rightsSchema = z.strictObject({
  kind: z.literal('rights'),
  person: z.string().optional(),
  device: z.string().optional(),
  session: z.string().optional(),
});
type Whose = Omit<z.output<typeof rightsSchema>, 'kind'>;

/** What stands for a session where others may read it. */
export function sessionMark(id: string): string {
  return tokenHash(id);
}

/**
 * Tells every server that somebody may do less than before: streams that are open for them end. It is told with the transaction, or not at all,
 * and whoever changes rights does so by this, the command line too.
 */
export async function tellRights(manager: EntityManager, whose: Whose): Promise<void> {
  await manager.query('SELECT pg_notify($1, $2)', [CHANNEL, JSON.stringify([{ kind: 'rights', ...whose }])]);
}
