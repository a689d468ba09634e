import { randomUUID } from 'node:crypto';
import type { DeviceView } from '@fettle/core';
import { IsNull, Not } from 'typeorm';
import { atMost } from '../database/atMost.js';
import type { Database } from '../database/Database.js';
import { ProblemError } from '../problem/problem.js';
import { type DeviceRow, deviceEntity } from './accessEntities.js';
import { tellEvent } from './events.js';
import { tellRights } from './rights.js';
import { newToken, tokenHash } from './secrets.js';

/** How long a code lets a device in, s. */
const INVITED_S = 120;
/** When a device was here last is kept to so many seconds. */
const SEEN_EVERY_S = 300;
/** Devices let in at a time at most; of those that were let in before, so many are told. */
const MOST_DEVICES = 200;

function viewOf(row: DeviceRow, here: string | null): DeviceView {
  return {
    id: row.id,
    name: row.name,
    letInAt: row.letInAt.toISOString(),
    letInBy: row.letInBy,
    seenAt: row.seenAt.toISOString(),
    revokedAt: row.revokedAt?.toISOString() ?? null,
    isThis: row.id === here,
  };
}

/** Devices that were let in by somebody who was in already. */
export class DeviceService {
  private readonly database: Database;

  constructor(database: Database) {
    this.database = database;
  }

  async list(here: string | null): Promise<DeviceView[]> {
    const { manager } = this.database;
    const now = await manager.find(deviceEntity, { where: { revokedAt: IsNull() }, order: { letInAt: 'DESC' } });
    const before = await manager.find(deviceEntity, {
      where: { revokedAt: Not(IsNull()) },
      order: { revokedAt: 'DESC' },
      take: MOST_DEVICES,
    });
    const rows = [...now, ...before].sort((one, other) => other.letInAt.getTime() - one.letInAt.getTime());
    return rows.map((row) => viewOf(row, here));
  }

  /** The device that holds a token; null for a strange one, and for one that is let in no longer. */
  async byToken(token: string): Promise<DeviceRow | null> {
    const row = await this.database.manager.findOneBy(deviceEntity, { token: tokenHash(token), revokedAt: IsNull() });
    if (row && Date.now() - row.seenAt.getTime() > SEEN_EVERY_S * 1000) {
      await this.database.manager.update(deviceEntity, { id: row.id }, { seenAt: new Date() });
    }
    return row;
  }

  /** A code that lets one device in, once. @param owner id of the owner who does, and has just typed their password; null for anybody else */
  async invite(by: string, to: string, owner: string | null): Promise<{ code: string; until: Date }> {
    const code = newToken();
    await this.database.manager.query(`DELETE FROM "invitation" WHERE "until" < now()`);
    const [{ until }]: [{ until: Date }] = await this.database.manager.query(
      `INSERT INTO "invitation" ("code", "by", "to", "by_id", "until") VALUES ($1, $2, $3, $4, now() + make_interval(secs => $5))
       RETURNING "until"`,
      [tokenHash(code), by, to, owner, INVITED_S],
    );
    await tellEvent(this.database, { what: 'device-invited', subject: 'any device', detail: to });
    return { code, until };
  }

  /**
   * Lets a device in.
   *
   * @throws ProblemError `not-signed-in` for a code that was used, is too old, or never was; `invalid-request` where too many are let in
   */
  async letIn(code: string, name: string): Promise<{ device: DeviceRow; token: string; to: string }> {
    return this.database.transaction(async (manager) => {
      // Taken away as it is used: of two who have it, one is let in.
      const [[used]]: [{ by: string; to: string; by_id: string | null }[]] = await manager.query(
        `DELETE FROM "invitation" WHERE "code" = $1 AND "until" > now() RETURNING "by", "to", "by_id"`,
        [tokenHash(code)],
      );
      if (!used) {
        throw new ProblemError('not-signed-in', 'Code used or expired. Get a new one under Open on phone.');
      }
      const token = newToken();
      const now = new Date();
      const device: DeviceRow = {
        id: randomUUID(),
        name,
        token: tokenHash(token),
        letInAt: now,
        letInBy: used.by,
        letInById: used.by_id,
        seenAt: now,
        revokedAt: null,
      };
      await manager.insert(deviceEntity, device);
      const what = `Device limit (${MOST_DEVICES}) reached. Remove one first.`;
      await atMost(manager, deviceEntity, { most: MOST_DEVICES, where: { revokedAt: IsNull() }, path: '/code', what });
      const told = { what: 'device-let-in', subject: name, subjectId: device.id, by: used.by, device: device.id };
      await tellEvent({ manager }, told);
      return { device, token, to: used.to };
    });
  }

  async revoke(id: string, here: string | null): Promise<DeviceView[]> {
    const row = await this.database.manager.findOneBy(deviceEntity, { id });
    if (!row) throw new ProblemError('not-found', `Device ${id} not found.`);
    if (!row.revokedAt) {
      await this.database.transaction(async (manager) => {
        await manager.update(deviceEntity, { id }, { revokedAt: new Date() });
        await tellEvent({ manager }, { what: 'device-revoked', subject: row.name, subjectId: id });
        await tellRights(manager, { device: id });
      });
    }
    return this.list(here);
  }
}
