import type { EntityManager } from 'typeorm';

/**
 * Lets one transaction at a time make a thing of an id: there is no row to lock yet. Of two that make it at the same moment, the second waits
 * for the first and finds it there.
 */
export async function oneAtATime(manager: EntityManager, ids: readonly string[]): Promise<void> {
  // In one order for all who do this, so that nobody waits in a circle.
  for (const id of [...ids].sort()) {
    await manager.query('SELECT pg_advisory_xact_lock(hashtextextended($1, 0))', [id]);
  }
}
