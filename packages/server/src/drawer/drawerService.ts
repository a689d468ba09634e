import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import type { Answered, DrawerItem, DrawerLine, DrawerMove, DrawerMovement, PieceLine, Read } from '@fettle/core';
import { drawerItemLabel, drawerItemSchema, isPiece } from '@fettle/core';
import { type EntityManager, In } from 'typeorm';
import { acting } from '../access/acting.js';
import { atMost } from '../database/atMost.js';
import { cursorText, readCursor } from '../database/cursor.js';
import type { Database } from '../database/Database.js';
import { oneAtATime } from '../database/oneAtATime.js';
import { withinBytes } from '../database/withinBytes.js';
import { jobEntity } from '../job/jobEntity.js';
import { lockJob } from '../job/lockJob.js';
import { ProblemError } from '../problem/problem.js';
import { type DrawerRow, drawerEntity, movementEntity, reservationEntity } from '../stock/drawerEntity.js';
import { drawerLines, lineTold, type Moved, movedLines, pieceLines } from './drawerLines.js';
import { takenBack } from './takenBack.js';

type ItemChange = DrawerMovement['changes'][number];
const linesOf = (changes: readonly ItemChange[]) => changes.map(({ line }) => line);

/** A movement as the list has it, its moment yet to be written out. */
type Found = Omit<DrawerMovement, 'at'> & { readonly at: Date; readonly there: number };

/** Movements, the last first, of one kind of half or of all; keys are compared byte by byte. */
const LAST_FIRST = '"at" DESC, "id"::text COLLATE "C" DESC';
const MOVEMENTS = withinBytes(
  `SELECT "id", "at", "by", "kind", "note", "changes",
    EXISTS (SELECT FROM "drawer_movement" AS other WHERE other."undoes" = one."id") AS "undone"
  FROM "drawer_movement" AS one
  WHERE ($1::text IS NULL OR "changes" @> jsonb_build_array(jsonb_build_object('line', $1::text)))
    AND ($2::timestamptz IS NULL OR "at" < $2 OR ("at" = $2 AND "id"::text COLLATE "C" < $3 COLLATE "C"))
  ORDER BY ${LAST_FIRST}
  LIMIT $4`,
  '"changes"',
  LAST_FIRST,
);

/** Kinds in the drawer at most: one of every maker's grades has some hundreds. */
const MOST_LINES = 5000;

/** The workshop's drawer in the database: every change is one movement, which can be taken back. */
export class DrawerService {
  private readonly database: Database;
  private readonly onTouched: (id: string) => void;

  /** @param onTouched told of each engine whose halves were fitted, or taken out again */
  constructor(database: Database, onTouched: (id: string) => void = () => {}) {
    this.database = database;
    this.onTouched = onTouched;
  }

  /** Every kind of half (see `drawerLines`). */
  list(job: string | null = null, manager: EntityManager = this.database.manager): Promise<DrawerLine[]> {
    return drawerLines(manager, job);
  }

  /** Every kind of washer, flanged half and shim. */
  listPieces(job: string | null = null, manager: EntityManager = this.database.manager): Promise<PieceLine[]> {
    return pieceLines(manager, job);
  }

  /** A page of what was done to the drawer, or to one kind of half in it, the last first. */
  async history({ line, after, most }: Read<'drawerHistory'>['query']): Promise<Answered<'drawerHistory'>> {
    const from = readCursor(after);
    const found: Found[] = await this.database.manager.query(MOVEMENTS, [
      line ?? null,
      from?.at ?? null,
      from?.key ?? null,
      most + 1,
    ]);
    const shown = found.slice(0, most);
    const last = shown.at(-1);
    return {
      entries: shown.map(({ id, at, by, kind, note, changes, undone }) => ({
        ...{ id, by, kind, note, changes, undone },
        at: at.toISOString(),
      })),
      goesOn: last && last.there > shown.length ? cursorText({ at: last.at, key: last.id }) : null,
    };
  }

  /**
   * Does something to the drawer, all of it or nothing.
   *
   * @throws ProblemError `stale-version`, `drawer-short`, `not-found`; faults name the place in `changes`
   */
  async move({ by, kind, note, changes }: DrawerMove): Promise<Moved> {
    return this.database.transaction(async (manager) => {
      if (await this.isAllThere(manager, by, changes))
        return movedLines(
          manager,
          changes.map(({ id }) => id),
        );
      const done: ItemChange[] = [];
      for (const { id, version, half, piece } of [...changes].sort((a, b) => (a.id < b.id ? -1 : 1))) {
        const item = half ?? piece ?? null;
        const row = await this.locked(manager, id);
        if ((row?.version ?? 0) !== version) {
          const label = row || item ? drawerItemLabel((row?.item ?? item)!) : 'What you changed';
          const current = await lineTold(manager, id);
          const who = row ? `${row.updatedBy} has changed ${label}` : `${label} is no longer in stock`;
          throw new ProblemError('stale-version', `${who} since it was read.`, [], { current });
        }
        await this.write(manager, id, row, item, by, kind === 'count');
        done.push({ line: id, before: row?.item ?? null, after: item });
      }
      await this.record(manager, by, kind, note, done, null);
      await this.keepTellable(manager, done, '/changes');
      return movedLines(manager, linesOf(done));
    });
  }

  /** True if a movement that only puts new kinds in was done already: sent twice, it is done once. */
  private async isAllThere(manager: EntityManager, by: string, changes: DrawerMove['changes']): Promise<boolean> {
    if (changes.some(({ version }) => version > 0)) return false;
    const ids = changes.map(({ id }) => id);
    await oneAtATime(manager, ids);
    const rows = new Map((await manager.findBy(drawerEntity, { id: In(ids) })).map((row) => [row.id, row]));
    return changes.every(({ id, half, piece }) => {
      const row = rows.get(id);
      const item: unknown = JSON.parse(JSON.stringify(half ?? piece ?? null));
      return row?.version === 1 && row.updatedBy === by && isDeepStrictEqual(row.item, item);
    });
  }

  /**
   * Takes a movement back. Counts are put back by their difference, so that what came and went since stays; anything else must be as
   * the movement left it.
   *
   * @throws ProblemError `not-found`, `stale-version`, `drawer-short`
   */
  async undo(id: string, by: string): Promise<Moved> {
    return this.database.transaction(async (manager) => {
      const movement = await manager.findOne(movementEntity, { where: { id }, lock: { mode: 'pessimistic_write' } });
      if (!movement) throw new ProblemError('not-found', `Stock entry ${id} not found.`);
      if (movement.kind === 'fitted' || movement.kind === 'unfitted') {
        throw new ProblemError('halves-fitted', 'Fitted shells are undone in their engine, not here.');
      }
      if (await manager.findOneBy(movementEntity, { undoes: id })) {
        throw new ProblemError('stale-version', 'Already undone.');
      }
      const done: ItemChange[] = [];
      for (const { line, before, after } of [...movement.changes].sort((a, b) => (a.line < b.line ? -1 : 1))) {
        const row = await this.locked(manager, line);
        const back = takenBack(row, before, after);
        await this.write(manager, line, row, back, by);
        done.push({ line, before: row?.item ?? null, after: back });
      }
      await this.record(manager, by, 'undo', movement.note, done, id);
      await this.keepTellable(manager, done, '');
      return movedLines(manager, linesOf(done));
    });
  }

  /** Keeps the drawer from growing beyond what is told at once. @param path of what put the kinds in */
  private async keepTellable(manager: EntityManager, done: readonly ItemChange[], path: string): Promise<void> {
    if (done.every(({ before, after }) => before !== null || after === null)) return;
    const what = `stock limit (${MOST_LINES} kinds) reached; remove unused ones first`;
    await atMost(manager, drawerEntity, { most: MOST_LINES, path, what });
  }

  /**
   * Marks the halves that an engine has reserved as fitted into it: they leave the drawer. Or takes that back.
   *
   * @throws ProblemError `not-found` when the engine has nothing reserved, or nothing fitted
   */
  async setFitted(jobId: string, isFitted: boolean, by: string): Promise<Moved> {
    return this.database.transaction(async (manager) => {
      const { document } = await lockJob(manager, jobId);
      const [from, to] = isFitted ? (['reserved', 'used'] as const) : (['used', 'reserved'] as const);
      const held = await manager.find(reservationEntity, { where: { jobId, state: from }, order: { lineId: 'ASC' } });
      if (held.length === 0) throw new ProblemError('not-found', `This engine has no shells that are ${from}.`);
      const done: ItemChange[] = [];
      for (const { lineId, count } of held) {
        const row = (await this.locked(manager, lineId))!;
        const item = { ...row.item, onHand: row.item.onHand + (isFitted ? -count : count) };
        if (item.onHand < 0) {
          const label = drawerItemLabel(item);
          const detail = `Cannot fit ${count} × ${label}: only ${row.item.onHand} in stock. Correct the count.`;
          throw new ProblemError('drawer-short', detail);
        }
        await manager.update(drawerEntity, { id: lineId }, this.fields(row.version, item, by));
        await manager.update(reservationEntity, { jobId, lineId }, { state: to });
        done.push({ line: lineId, before: row.item, after: item });
      }
      // Who has the engine open is told of it.
      await manager.increment(jobEntity, { id: jobId }, 'revision', 1);
      this.onTouched(jobId);
      await this.record(manager, by, isFitted ? 'fitted' : 'unfitted', document.name, done, null);
      return movedLines(manager, linesOf(done), jobId);
    });
  }

  private async locked(manager: EntityManager, id: string): Promise<DrawerRow | null> {
    const row = await manager.findOne(drawerEntity, { where: { id }, lock: { mode: 'pessimistic_write' } });
    return row && { ...row, item: drawerItemSchema.parse(row.item) };
  }

  private fields(version: number, item: DrawerItem, by: string) {
    return { version: version + 1, item: item as never, updatedAt: new Date(), updatedBy: by };
  }

  private async write(
    manager: EntityManager,
    id: string,
    row: DrawerRow | null,
    item: DrawerItem | null,
    by: string,
    isCount = false,
  ): Promise<void> {
    if (item === null) {
      if (!row) throw new ProblemError('not-found', `Stock line ${id} not found.`);
      const holders: { name: string; count: number }[] = await manager.query(
        `SELECT "job"."name", "count" FROM "reservation" JOIN "job" ON "job"."id" = "job_id" WHERE "line_id" = $1`,
        [id],
      );
      if (holders.length > 0) {
        const names = holders.map(({ name, count }) => `${count} for ${name}`).join(', ');
        throw new ProblemError('drawer-short', `Reserved by ${names}. Select again there first.`);
      }
      await manager.delete(drawerEntity, { id });
      return;
    }
    // What was counted is true, whoever has reserved more: the engines that are left short are told of it.
    if (!isCount) await this.checkReserved(manager, id, item);
    if (row) await manager.update(drawerEntity, { id }, this.fields(row.version, item, by));
    else await manager.insert(drawerEntity, { id, ...this.fields(0, item, by) });
  }

  private async record(
    manager: EntityManager,
    by: string,
    kind: DrawerMovement['kind'],
    note: string,
    changes: readonly ItemChange[],
    undoes: string | null,
  ): Promise<void> {
    await manager.insert(movementEntity, {
      id: randomUUID(),
      device: acting().device,
      at: new Date(),
      by,
      kind,
      note,
      changes: changes as never,
      undoes,
    });
  }

  private async checkReserved(manager: EntityManager, id: string, item: DrawerItem): Promise<void> {
    const rows = await manager.find(reservationEntity, { where: { lineId: id, state: 'reserved' } });
    const reserved = rows.reduce((sum, { count }) => sum + count, 0);
    if (item.onHand >= reserved) return;
    const label = drawerItemLabel(item);
    const message = `${reserved} of ${label} are reserved for engines; ${item.onHand} would leave too few`;
    throw new ProblemError('drawer-short', `${message}. Change a selection first.`, [
      { path: isPiece(item) ? '/piece/onHand' : '/half/onHand', message },
    ]);
  }
}
