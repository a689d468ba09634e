import { type DrawerHalf, type DrawerLine, shellLabel } from '@fettle/core';
import { type DataSource, type EntityManager, In } from 'typeorm';
import { jobEntity } from '../job/jobEntity.js';
import { lockJob } from '../job/lockJob.js';
import { ProblemError } from '../problem/problem.js';
import { drawerEntity, reservationEntity } from './drawerEntity.js';

/** The workshop's drawer in the database. */
export class DrawerService {
  private readonly database: DataSource;

  constructor(database: DataSource) {
    this.database = database;
  }

  /** Every kind of half with who has reserved or used how many. */
  async list(manager: EntityManager = this.database.manager): Promise<DrawerLine[]> {
    const lines = await manager.find(drawerEntity, { order: { id: 'ASC' } });
    const reservations = await manager.find(reservationEntity);
    const jobIds = [...new Set(reservations.map(({ jobId }) => jobId))];
    const jobs = await manager.find(jobEntity, { where: { id: In(jobIds) } });
    const names = new Map(jobs.map(({ id, document }) => [id, document.name]));
    return lines.map(({ id, version, half }) => ({
      id,
      version,
      half,
      reservations: reservations
        .filter(({ lineId }) => lineId === id)
        .map(({ jobId, count, state }) => ({ job: jobId, name: names.get(jobId) ?? '', count, state }))
        .sort((a, b) => (a.name < b.name ? -1 : 1)),
    }));
  }

  /** Puts a kind of half into the drawer or changes it. @throws ProblemError `stale-version`, `drawer-short` */
  async put(id: string, version: number, by: string, half: DrawerHalf): Promise<DrawerLine> {
    return this.database.transaction(async (manager) => {
      const row = await manager.findOne(drawerEntity, { where: { id }, lock: { mode: 'pessimistic_write' } });
      if ((row?.version ?? 0) !== version) throw await this.stale(manager, id, row?.updatedBy ?? 'Somebody');
      await this.checkReserved(manager, id, half);
      const fields = { version: version + 1, half: half as never, updatedAt: new Date(), updatedBy: by };
      if (row) await manager.update(drawerEntity, { id }, fields);
      else await manager.insert(drawerEntity, { id, ...fields });
      return this.line(manager, id);
    });
  }

  /** Takes a kind of half out of the drawer. @throws ProblemError `drawer-short` while an engine holds some */
  async remove(id: string, version: number): Promise<void> {
    await this.database.transaction(async (manager) => {
      const row = await manager.findOne(drawerEntity, { where: { id }, lock: { mode: 'pessimistic_write' } });
      if (!row) throw new ProblemError('not-found', `There is no such half in the drawer: ${id}.`);
      if (row.version !== version) throw await this.stale(manager, id, row.updatedBy);
      const { reservations } = await this.line(manager, id);
      if (reservations.length > 0) {
        const names = reservations.map(({ name, count }) => `${count} for ${name}`).join(', ');
        throw new ProblemError('drawer-short', `Engines hold some of it (${names}). Let them choose again first.`);
      }
      await manager.delete(drawerEntity, { id });
    });
  }

  /**
   * Marks the halves that an engine has reserved as fitted into it: they leave the drawer. Or takes that back.
   *
   * @throws ProblemError `not-found` when the engine has nothing reserved, or nothing fitted
   */
  async setFitted(jobId: string, isFitted: boolean, by: string): Promise<DrawerLine[]> {
    return this.database.transaction(async (manager) => {
      await lockJob(manager, jobId);
      const [from, to] = isFitted ? (['reserved', 'used'] as const) : (['used', 'reserved'] as const);
      const held = await manager.find(reservationEntity, { where: { jobId, state: from }, order: { lineId: 'ASC' } });
      if (held.length === 0) throw new ProblemError('not-found', `This engine has no halves that are ${from}.`);
      for (const { lineId, count } of held) {
        const row = await manager.findOneOrFail(drawerEntity, {
          where: { id: lineId },
          lock: { mode: 'pessimistic_write' },
        });
        const half = { ...row.half, onHand: row.half.onHand + (isFitted ? -count : count) };
        const fields = { version: row.version + 1, half: half as never, updatedAt: new Date(), updatedBy: by };
        await manager.update(drawerEntity, { id: lineId }, fields);
        await manager.update(reservationEntity, { jobId, lineId }, { state: to });
      }
      return this.list(manager);
    });
  }

  private async line(manager: EntityManager, id: string): Promise<DrawerLine> {
    const line = (await this.list(manager)).find((one) => one.id === id);
    if (!line) throw new ProblemError('not-found', `There is no such half in the drawer: ${id}.`);
    return line;
  }

  private async stale(manager: EntityManager, id: string, by: string): Promise<ProblemError> {
    const current = (await this.list(manager)).find((line) => line.id === id) ?? null;
    return new ProblemError('stale-version', `${by} has changed this half since it was read.`, [], { current });
  }

  private async checkReserved(manager: EntityManager, id: string, half: DrawerHalf): Promise<void> {
    const rows = await manager.find(reservationEntity, { where: { lineId: id, state: 'reserved' } });
    const reserved = rows.reduce((sum, { count }) => sum + count, 0);
    if (half.onHand >= reserved) return;
    const label = shellLabel(half);
    const message = `${reserved} of ${label} are reserved for engines; ${half.onHand} would leave too few`;
    throw new ProblemError('drawer-short', `${message}. Let an engine choose again first.`, [
      { path: '/half/onHand', message },
    ]);
  }
}
