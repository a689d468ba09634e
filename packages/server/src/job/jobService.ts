import type { JobChange, JobView, Json, PatchStep } from '@fettle/core';
import {
  type Answered,
  changesBetween,
  choiceFaults,
  type JobDocument,
  jobProgress,
  pieceFaults,
  type Read,
  rodCount,
} from '@fettle/core';
import type { EntityManager } from 'typeorm';
import { acting } from '../access/acting.js';
import type { Database } from '../database/Database.js';
import { oneAtATime } from '../database/oneAtATime.js';
import { invalidRequest, ProblemError } from '../problem/problem.js';
import { type JudgedPatch, type PatchTask, recordedBetween, takenFaults, underOwnName } from '../read/judgePatch.js';
import { heldBy, NOTHING_HELD } from '../stock/heldBy.js';
import { release, reserve } from '../stock/reservations.js';
import { coreMark } from './coreMark.js';
import { changeEntity, type JobRow, jobEntity } from './jobEntity.js';
import { listJobs } from './jobList.js';
import { documentOf, found, readingsOf, type Standing, viewOf } from './jobView.js';
import { lockJob } from './lockJob.js';
import { stampsThatStood } from './stampsThatStood.js';

export interface Stamp {
  readonly version: number;
  readonly by: string;
}

/** What lists show of a document, as columns. */
export function headOf(
  document: JobDocument,
): Pick<JobRow, 'name' | 'unit' | 'mains' | 'rods' | 'serial' | 'instruments'> {
  const { name, unit, layout, serial, registered } = document;
  const instruments = Object.keys(registered);
  return { name, unit, mains: layout.mains, rods: rodCount(layout), serial, instruments };
}

function asJson(document: JobDocument): Json {
  return document as unknown as Json;
}

/** The document with nothing chosen from the drawer. */
function withoutChoices(document: JobDocument): JobDocument {
  const { endPlay, crush } = document;
  const joints = Object.fromEntries(
    Object.entries(crush.joints).map(([station, joint]) => [station, { ...joint, choice: null }]),
  );
  return { ...document, choice: null, endPlay: { ...endPlay, choice: null }, crush: { ...crush, joints } };
}

/** Jobs in the database: every change is checked, versioned and kept in the history. */
export class JobService {
  private readonly database: Database;
  private readonly onTouched: (id: string) => void;

  /** @param onTouched told of each engine that was changed: how far it is, is worked out anew */
  constructor(database: Database, onTouched: (id: string) => void = () => {}) {
    this.database = database;
    this.onTouched = onTouched;
  }

  /** A page of the engines on the benches, or of those taken off (see `listJobs`). */
  list(query: Read<'listJobs'>['query']): Promise<Answered<'listJobs'>> {
    return listJobs(this.database.manager, query, this.onTouched);
  }

  async revision(id: string): Promise<number> {
    const row = await this.database.manager.findOne(jobEntity, { where: { id }, select: { id: true, revision: true } });
    if (!row) throw new ProblemError('not-found', `Engine ${id} not found.`);
    return row.revision;
  }

  async get(id: string, manager: EntityManager = this.database.manager): Promise<JobView> {
    const row = await found(manager, id);
    return this.shown(manager, { row, document: documentOf(row), readings: await readingsOf(manager, id) });
  }

  private async shown(manager: EntityManager, standing: Standing): Promise<JobView> {
    const { id } = standing.row;
    const held = (await heldBy(manager, [id])).get(id) ?? NOTHING_HELD;
    return viewOf(standing, { reserved: held.reserved, fitted: held.fitted });
  }

  /** Makes a job. Sending the same one again answers with it; another one under the same id is refused. */
  async create(id: string, by: string, sent: JobDocument): Promise<{ job: JobView; made: boolean }> {
    const document = underOwnName(null, sent, acting().person);
    const faults = takenFaults(document);
    if (faults.length > 0)
      throw invalidRequest(faults.map(({ path, message }) => ({ path: `/document${path}`, message })));
    return this.database.transaction(async (manager) => {
      await oneAtATime(manager, [id]);
      const existing = await manager.findOne(jobEntity, { where: { id }, lock: { mode: 'pessimistic_write' } });
      if (existing) {
        const first = await manager.findOne(changeEntity, { where: { jobId: id, kind: 'created' } });
        const made = first?.changes[0]?.to;
        if (changesBetween(made, asJson(document)).length > 0 || existing.createdBy !== by) {
          throw new ProblemError('id-in-use', `The id ${id} already belongs to another engine; make a new id.`);
        }
        return { job: await this.get(id, manager), made: false };
      }
      const now = new Date();
      const row: JobRow = {
        id,
        version: 1,
        revision: 1,
        document,
        ...headOf(document),
        progress: jobProgress(document, []),
        progressOf: 1,
        progressBuild: coreMark(),
        createdAt: now,
        createdBy: by,
        updatedAt: now,
        updatedBy: by,
        deletedAt: null,
      };
      await manager.insert(jobEntity, row as never);
      const changes = recordedBetween(undefined, document);
      await manager.insert(changeEntity, {
        device: acting().device,
        jobId: id,
        version: 1,
        at: now,
        by,
        kind: 'created',
        changes: changes as never,
      });
      await reserve(manager, [{ jobId: id, document }]);
      return { job: await this.shown(manager, { row, document, readings: [] }), made: true };
    });
  }

  /**
   * Applies a change made from a version. It is judged before the engine is locked: while its version is the same, so is its document.
   *
   * @param judge works out what comes of it
   * @throws ProblemError `stale-version` with what is there now, `not-found`, `invalid-request`
   */
  async patch(
    id: string,
    { version, by }: Stamp,
    steps: readonly PatchStep[],
    judge: (task: PatchTask) => Promise<JudgedPatch>,
  ): Promise<JobView> {
    const { manager: outside } = this.database;
    const { document } = await this.changeable(outside, await found(outside, id), version);
    const task: PatchTask = { document, steps, who: acting().person };
    const first = await judge(task);
    const judged =
      first.kind === 'others'
        ? await judge({ ...task, stood: await stampsThatStood(outside, id, asJson(document), first.stamps) })
        : first;
    if (judged.kind === 'faults') throw invalidRequest(judged.faults);
    if (judged.kind === 'others') throw new Error('a change was judged with the history known, and asks for it again');
    return this.database.transaction(async (manager) => {
      const row = await this.changeable(manager, await lockJob(manager, id), version);
      const written = await this.write(manager, row, { document: judged.document }, by, 'changed', judged.changes);
      if (judged.reserves) await reserve(manager, [{ jobId: id, document: judged.document }]);
      return this.shown(manager, written);
    });
  }

  /**
   * Accepts the choices of several engines together, all or none.
   *
   * @throws ProblemError `stale-version`, `drawer-short`, `halves-fitted`, or `invalid-request` for a choice that its engine cannot have
   */
  async acceptTogether(by: string, jobs: Read<'acceptTogether'>['body']['jobs']): Promise<JobView[]> {
    return this.database.transaction(async (manager) => {
      const takers: { jobId: string; document: JobDocument }[] = [];
      // One order for all who do this, so that nobody waits in a circle.
      for (const { id, version, choice, endPlay } of [...jobs].sort((a, b) => (a.id < b.id ? -1 : 1))) {
        const row = await this.changeable(manager, await lockJob(manager, id), version);
        const before = documentOf(row);
        const chosen = {
          ...before,
          ...(choice === undefined ? {} : { choice }),
          ...(endPlay === undefined ? {} : { endPlay: { ...before.endPlay, choice: endPlay } }),
        };
        const document = underOwnName(before, chosen, acting().person);
        const faults = [
          ...(choice === undefined ? [] : choiceFaults(document)),
          ...(endPlay === undefined ? [] : pieceFaults(document)),
        ];
        if (faults.length > 0) throw invalidRequest(faults);
        await this.write(manager, row, { document }, by, 'changed', recordedBetween(before, document));
        takers.push({ jobId: id, document });
      }
      await reserve(manager, takers);
      const accepted: JobView[] = [];
      for (const { id } of jobs) accepted.push(await this.get(id, manager));
      return accepted;
    });
  }

  /** Takes a job off the benches; `restore` brings it back with everything in it. */
  async remove(id: string, { version, by }: Stamp): Promise<JobView> {
    return this.database.transaction(async (manager) => {
      const row = await this.at(manager, await lockJob(manager, id), version);
      if (!row.deletedAt) {
        await this.write(manager, row, { deletedAt: new Date() }, by, 'deleted', []);
        await release(manager, id);
      }
      return this.get(id, manager);
    });
  }

  async restore(id: string, { version, by }: Stamp): Promise<JobView> {
    return this.database.transaction(async (manager) => {
      const row = await this.at(manager, await lockJob(manager, id), version);
      if (row.deletedAt) await this.bringBack(manager, row, by);
      return this.get(id, manager);
    });
  }

  /** Its halves may be reserved for another engine by now: then it comes back without a choice, which the history tells. */
  private async bringBack(manager: EntityManager, row: JobRow, by: string): Promise<void> {
    const document = documentOf(row);
    try {
      await manager.transaction((inner) => reserve(inner, [{ jobId: row.id, document }]));
      await this.write(manager, row, { deletedAt: null }, by, 'restored', []);
    } catch (error) {
      if (!(error instanceof ProblemError) || error.kind !== 'drawer-short') throw error;
      const without = withoutChoices(document);
      const fields = { deletedAt: null, document: without };
      await this.write(manager, row, fields, by, 'restored', recordedBetween(document, without));
    }
  }

  /** An engine that was read, at the version that a change was made from. @throws ProblemError `stale-version` with what is there now */
  private async at(manager: EntityManager, row: JobRow, version: number): Promise<JobRow> {
    if (row.version !== version) {
      const current = await this.get(row.id, manager);
      const detail = `The change was made from version ${version}; ${row.updatedBy} has since made version ${row.version}.`;
      throw new ProblemError('stale-version', detail, [], { current });
    }
    return row;
  }

  /** The same for one that is on the benches. @throws ProblemError `not-found` as well */
  private async changeable(manager: EntityManager, row: JobRow, version: number): Promise<JobRow> {
    await this.at(manager, row, version);
    if (row.deletedAt) throw new ProblemError('not-found', `“${row.name}” is closed. Reopen it first.`);
    return row;
  }

  private async write(
    manager: EntityManager,
    row: JobRow,
    fields: Partial<Pick<JobRow, 'document' | 'deletedAt'>>,
    by: string,
    kind: 'changed' | 'deleted' | 'restored',
    changes: JobChange['changes'],
  ): Promise<Standing> {
    const now = new Date();
    const [version, revision] = [row.version + 1, row.revision + 1];
    const document = fields.document ?? documentOf(row);
    const readings = await readingsOf(manager, row.id);
    const update = {
      ...fields,
      ...headOf(document),
      version,
      revision,
      updatedAt: now,
      updatedBy: by,
    };
    await manager.update(jobEntity, { id: row.id }, update as never);
    const { device } = acting();
    await manager.insert(changeEntity, {
      device,
      jobId: row.id,
      version,
      at: now,
      by,
      kind,
      changes: changes as never,
    });
    // It is looked at a little later, when this is kept.
    this.onTouched(row.id);
    return { row: { ...row, ...update }, document, readings };
  }
}
