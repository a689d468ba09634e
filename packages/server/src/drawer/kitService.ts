import { isDeepStrictEqual } from 'node:util';
import type { Kit, KitView } from '@fettle/core';
import { tellEvent } from '../access/events.js';
import { atMost } from '../database/atMost.js';
import type { Database } from '../database/Database.js';
import { oneAtATime } from '../database/oneAtATime.js';
import { ProblemError } from '../problem/problem.js';
import { kitEntity } from '../stock/drawerEntity.js';

/** Kits at most. */
const MOST_KITS = 200;

/** The workshop's kits in the database: halves that are bought together, by a name. */
export class KitService {
  private readonly database: Database;

  constructor(database: Database) {
    this.database = database;
  }

  async list(): Promise<KitView[]> {
    const rows = await this.database.manager.find(kitEntity);
    return rows
      .map(({ id, version, kit }) => ({ id, version, kit }))
      .sort((a, b) => a.kit.name.localeCompare(b.kit.name, 'en'));
  }

  /** Keeps a kit, or takes it away with null. @throws ProblemError `stale-version`, `invalid-request` */
  async put(id: string, version: number, by: string, kit: Kit | null): Promise<KitView[]> {
    await this.database.transaction(async (manager) => {
      if (version === 0) await oneAtATime(manager, [id]);
      const row = await manager.findOne(kitEntity, { where: { id }, lock: { mode: 'pessimistic_write' } });
      if ((row?.version ?? 0) !== version) {
        // Sent twice, it is kept once.
        if (version === 0 && row?.version === 1 && row.updatedBy === by && isDeepStrictEqual(row.kit, kit)) return;
        throw new ProblemError(
          'stale-version',
          `${row?.updatedBy ?? 'Someone'} has changed this kit since it was read.`,
        );
      }
      if (kit === null) await manager.delete(kitEntity, { id });
      else await manager.save(kitEntity, { id, version: version + 1, kit, updatedAt: new Date(), updatedBy: by });
      const told = kit === null ? 'kit-removed' : 'kit-kept';
      const subject = (kit ?? row?.kit)?.name ?? '';
      await tellEvent({ manager }, { kind: 'drawer', what: told, subject, subjectId: id, by });
      if (version > 0) return;
      const what = `kit limit (${MOST_KITS}) reached; remove one first`;
      await atMost(manager, kitEntity, { most: MOST_KITS, path: '/kit', what });
    });
    return this.list();
  }
}
