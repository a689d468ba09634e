import { setTimeout as wait } from 'node:timers/promises';
import type { EngineEvidence } from '@fettle/core';
import type { Logger } from 'pino';
import type { EntityManager } from 'typeorm';
import type { Database } from '../database/Database.js';
import { WorkerPool } from '../worker/WorkerPool.js';
import { coreMark } from './coreMark.js';
import type { Unread, WorkedOut } from './progressWorker.js';

/** How far an engine is, is worked out so long after it was touched, ms: once for what is typed in one go. */
const AFTER_MS = 250;
/** Engines that are worked out together. */
const TOGETHER = 25;
/** After a fault of the database it is tried again, ms. */
const AGAIN_MS = 5000;

const BOUNDS = { threads: 1, isLazy: true, mostMb: 250, longestS: 60 };
const WORDS = { what: 'How far the engines are', remedy: 'It is worked out later.' };

/** Engines with their current readings, written out by the database: what is large is parsed in the worker only. */
const UNREAD = `
  SELECT job."id", job."revision", job."document"::text AS "document",
    coalesce((SELECT jsonb_agg(jsonb_build_object(
      'id', r."id", 'feature', r."feature", 'station', r."station", 'slot', r."slot", 'text', r."text", 'unit', r."unit",
      'setting', r."setting", 'nm', r."nm", 'replaces', r."replaces", 'by', r."by", 'at', r."at", 'taken', r."taken"))
    FROM "reading" AS r WHERE r."job_id" = job."id" AND r."replaced_by" IS NULL), '[]')::text AS "readings"
  FROM "job" AS job WHERE job."id" = ANY($1)`;

/** Whoever changed an engine meanwhile has made another revision of it, which is worked out by itself. */
const KEEP = `
  UPDATE "job" SET "progress" = done."progress", "progress_of" = done."revision", "progress_build" = $2
  FROM jsonb_to_recordset($1::jsonb) AS done("id" uuid, "revision" int, "progress" jsonb)
  WHERE "job"."id" = done."id" AND "job"."revision" = done."revision"
  RETURNING "job"."id"`;

/** What another build has said, or what is of an earlier revision; the engines touched last come first. */
const STALE = `
  SELECT "id" FROM "job"
  WHERE "progress" IS NULL OR "progress_of" IS DISTINCT FROM "revision" OR "progress_build" IS DISTINCT FROM $1
  ORDER BY ("deleted_at" IS NOT NULL), "updated_at" DESC`;

/** Keeps what some engines tell the workshop, in the transaction that keeps how far they are. */
export type KeepEvidence = (
  manager: EntityManager,
  engines: readonly { readonly id: string; readonly evidence: EngineEvidence | null }[],
) => Promise<void>;

/**
 * Keeps with each engine how far it is, for the lists, and what it tells the workshop: after every change, and after a start for what another build has said. All of it is worked
 * out in a thread of its own and kept many at a time; no list waits for it.
 */
export class ProgressKeeper {
  private readonly database: Database;
  private readonly log: Logger;
  private readonly onKept: () => void;
  private readonly keepEvidence: KeepEvidence;
  private readonly pool = new WorkerPool(import.meta.url, './progressWorker', BOUNDS);
  /** Touched now, and left over from another build: the first come first. */
  private touchedNow = new Set<string>();
  private leftOver: string[] = [];
  private timer: NodeJS.Timeout | null = null;
  private working: Promise<void> | null = null;
  private readonly closed = new AbortController();

  /** @param onKept told when lists show another state than before */
  constructor(database: Database, log: Logger, onKept: () => void, keepEvidence: KeepEvidence) {
    this.database = database;
    this.log = log;
    this.onKept = onKept;
    this.keepEvidence = keepEvidence;
  }

  /** An engine was changed, or has another reading. */
  touched(jobId: string): void {
    this.touchedNow.add(jobId);
    this.soon(AFTER_MS);
  }

  /** Begins with what another build has said, or what a server that ended has left. */
  async begin(): Promise<void> {
    try {
      const rows: { id: string }[] = await this.database.manager.query(STALE, [coreMark()]);
      this.leftOver = rows.map(({ id }) => id);
      if (rows.length > 0) this.soon(0);
    } catch (error) {
      this.log.warn({ err: error }, 'the progress of the engines is worked out later');
    }
  }

  private soon(ms: number): void {
    if (this.closed.signal.aborted || this.working) return;
    this.timer ??= setTimeout(() => {
      this.timer = null;
      this.working = this.work().finally(() => {
        this.working = null;
        if (this.touchedNow.size > 0) this.soon(AFTER_MS);
      });
    }, ms);
  }

  private async work(): Promise<void> {
    while (!this.closed.signal.aborted) {
      const now = [...this.touchedNow].slice(0, TOGETHER);
      const ids = now.length > 0 ? now : this.leftOver.splice(0, TOGETHER);
      if (ids.length === 0) return;
      for (const id of now) this.touchedNow.delete(id);
      try {
        await this.workOut(ids);
        this.onKept();
      } catch (error) {
        if (this.closed.signal.aborted) return;
        this.log.warn({ err: error }, 'how far some engines are is worked out later');
        this.leftOver.push(...ids);
        await wait(AGAIN_MS, undefined, { signal: this.closed.signal }).catch(() => undefined);
      }
    }
  }

  /** @returns how many of them could not be worked out; the log says why */
  private async workOut(ids: readonly string[]): Promise<number> {
    const rows: (Unread & { revision: number })[] = await this.database.manager.query(UNREAD, [ids]);
    const asker = { client: 'progress', gone: this.closed.signal };
    const engines = rows.map(({ id, document, readings }): Unread => ({ id, document, readings }));
    const worked = await this.pool.run<WorkedOut[]>('default', engines, asker, WORDS);
    const revisions = new Map(rows.map(({ id, revision }) => [id, revision]));
    const done = worked.flatMap((one) => {
      if ('progress' in one) return [{ ...one, revision: revisions.get(one.id) }];
      this.log.error({ engine: one.id }, `how far an engine is cannot be worked out: ${one.fault}`);
      return [];
    });
    await this.database.transaction(async (manager) => {
      const kept = new Set(
        (await manager.query(KEEP, [JSON.stringify(done), coreMark()]))[0].map(({ id }: { id: string }) => id),
      );
      await this.keepEvidence(
        manager,
        done.filter(({ id }) => kept.has(id)),
      );
    });
    return worked.length - done.length;
  }

  /**
   * Works out all engines anew, closed ones too, whoever else does so meanwhile.
   *
   * @param onProgress told after each part how many of how many are done
   * @returns how many there are, and how many of them could not be worked out
   * @throws what the database, or the worker, throws
   */
  async all(onProgress: (done: number, of: number) => void): Promise<{ engines: number; faults: number }> {
    let faults = 0;
    const rows: { id: string }[] = await this.database.manager.query(
      `SELECT "id" FROM "job" ORDER BY "updated_at" DESC`,
    );
    for (let at = 0; at < rows.length; at += TOGETHER) {
      faults += await this.workOut(rows.slice(at, at + TOGETHER).map(({ id }) => id));
      onProgress(Math.min(rows.length, at + TOGETHER), rows.length);
    }
    return { engines: rows.length, faults };
  }

  async close(): Promise<void> {
    this.closed.abort();
    if (this.timer) clearTimeout(this.timer);
    // What was under way is worked out again after the next start.
    await this.pool.close();
    await this.working;
  }
}
