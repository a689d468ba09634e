import { isDeepStrictEqual } from 'node:util';
import {
  type Answered,
  gaugeStudy,
  type InstrumentView,
  isInStudy,
  nanometres,
  type Read,
  type StudyEntry,
  type StudyHead,
  type StudyView,
  studyOf,
  studyPlanSchema,
  studySize,
} from '@fettle/core';
import { type EntityManager, In, IsNull } from 'typeorm';
import { personEntity } from '../access/accessEntities.js';
import { nameKey } from '../access/peopleService.js';
import { atMost } from '../database/atMost.js';
import type { Database } from '../database/Database.js';
import { invalidRequest, ProblemError } from '../problem/problem.js';
import { InstrumentService } from './instrumentService.js';
import { type StudyEntryRow, type StudyRow, studyEntity, studyEntryEntity } from './studyEntity.js';

/** Studies of one instrument at most. */
const MOST_STUDIES = 100;

function entryOf({ part, person, trial, text, nm, by, at }: StudyEntryRow): StudyEntry {
  return { part, person, trial, text, nm: nanometres(nm), by, at: at.toISOString() };
}

function headOf({ id, plan, by, at, takenAt }: StudyRow, read: number): StudyHead {
  const parsed = studyPlanSchema.parse(plan);
  return { id, plan: parsed, read, by, at: at.toISOString(), takenAt: takenAt?.toISOString() ?? null };
}

/**
 * In whose names somebody may read: their own, and those of people who have no account. Where nobody signs in, in any.
 *
 * @param who is signed in; null where nobody signs in
 */
async function readersFor(manager: EntityManager, people: readonly string[], who: string | null): Promise<string[]> {
  if (who === null) return [...people];
  const accounts = await manager.find(personEntity, {
    select: { nameKey: true },
    where: { nameKey: In(people.map(nameKey)), retiredAt: IsNull() },
  });
  const taken = new Set(accounts.map((account) => account.nameKey));
  return people.filter((name) => nameKey(name) === nameKey(who) || !taken.has(nameKey(name)));
}

/** Gauge studies: entered blind, worked out once they are whole. */
export class StudyService {
  private readonly database: Database;
  private readonly instruments: InstrumentService;

  constructor(database: Database) {
    this.database = database;
    this.instruments = new InstrumentService(database);
  }

  /** @throws ProblemError `not-found` */
  async list(id: string): Promise<Answered<'listStudies'>> {
    await this.instruments.get(id);
    const { manager } = this.database;
    const rows = await manager.find(studyEntity, { where: { instrumentId: id }, order: { at: 'DESC', id: 'ASC' } });
    const counted: { study_id: string; count: number }[] = await manager.query(
      `SELECT "study_id", count(*)::int AS "count" FROM "study_entry" WHERE "study_id" = ANY($1) GROUP BY 1`,
      [rows.map((row) => row.id)],
    );
    const counts = new Map(counted.map(({ study_id, count }) => [study_id, count]));
    return { studies: rows.map((row) => headOf(row, counts.get(row.id) ?? 0)) };
  }

  /** Begins a study. @throws ProblemError `not-found`, `id-in-use`, `invalid-request` */
  async put(
    id: string,
    studyId: string,
    { by, plan }: Read<'putStudy'>['body'],
    who: string | null,
  ): Promise<{ readonly isNew: boolean; readonly view: StudyView }> {
    await this.instruments.get(id);
    return this.database.transaction(async (manager) => {
      const there = await manager.findOneBy(studyEntity, { id: studyId });
      if (there) {
        if (there.instrumentId !== id || !isDeepStrictEqual(studyPlanSchema.parse(there.plan), plan)) {
          throw new ProblemError('id-in-use', `Study id ${studyId} is already in use.`);
        }
        return { isNew: false, view: await this.get(id, studyId, '', who, manager) };
      }
      const row = { id: studyId, instrumentId: id, plan: plan as never, by, at: new Date(), takenAt: null };
      await manager.insert(studyEntity, row);
      const what = `an instrument has at most ${MOST_STUDIES} gauge studies`;
      await atMost(manager, studyEntity, { most: MOST_STUDIES, where: { instrumentId: id }, path: '/plan', what });
      return { isNew: true, view: await this.get(id, studyId, '', who, manager) };
    });
  }

  /**
   * A study as somebody may see it: with their own readings, and with all of them once it is whole.
   *
   * @param person in whose name they read
   * @param who is signed in; null where nobody signs in
   * @throws ProblemError `not-found`
   */
  async get(
    id: string,
    studyId: string,
    person: string,
    who: string | null,
    manager: EntityManager = this.database.manager,
  ): Promise<StudyView> {
    const row = await this.found(manager, id, studyId);
    const all = (await manager.find(studyEntryEntity, { where: { studyId }, order: { at: 'ASC' } })).map(entryOf);
    const head = headOf(row, all.length);
    const isWhole = all.length === studySize(head.plan);
    const done = Object.fromEntries(
      head.plan.people.map((one) => [one, all.filter((entry) => entry.person === one).length]),
    );
    const readsAs = await readersFor(manager, head.plan.people, who);
    const own = readsAs.includes(person) ? all.filter((entry) => entry.person === person) : [];
    return { ...head, done, readsAs, entries: isWhole ? all : own };
  }

  /**
   * Enters one reading, or corrects it.
   *
   * @param who is signed in; null where nobody signs in
   * @throws ProblemError `not-found`, `invalid-request`, `not-allowed` in the name of another account
   */
  async enter(id: string, studyId: string, entry: Read<'enterStudy'>['body'], who: string | null): Promise<StudyView> {
    return this.database.transaction(async (manager) => {
      const row = await manager.findOne(studyEntity, {
        where: { id: studyId, instrumentId: id },
        lock: { mode: 'pessimistic_write' },
      });
      if (!row) throw new ProblemError('not-found', `Study ${studyId} of this instrument not found.`);
      const plan = studyPlanSchema.parse(row.plan);
      if (!isInStudy(plan, entry)) {
        const message = `part ${entry.part}, reading ${entry.trial} of ${entry.person} is not part of this study`;
        throw invalidRequest([{ path: '/part', message }]);
      }
      if (!(await readersFor(manager, [entry.person], who)).includes(entry.person)) {
        throw new ProblemError('not-allowed', `${entry.person} has an account: only they enter their readings.`);
      }
      const count = await manager.count(studyEntryEntity, { where: { studyId } });
      if (count === studySize(plan)) {
        throw invalidRequest([{ path: '/part', message: 'the study is whole: its readings are not changed any more' }]);
      }
      await manager.upsert(studyEntryEntity, { ...entry, studyId, at: new Date(entry.at) }, [
        'studyId',
        'part',
        'person',
        'trial',
      ]);
      return this.get(id, studyId, entry.person, who, manager);
    });
  }

  /**
   * Takes the result of a study over into its instrument: repeats, and what people add.
   *
   * @throws ProblemError `not-found`, `invalid-request` while readings are missing
   */
  async take(id: string, studyId: string, by: string): Promise<InstrumentView> {
    return this.database.transaction(async (manager) => {
      const study = await this.get(id, studyId, '', null, manager);
      const { plan, entries } = study;
      const read = studyOf(
        entries.map(({ part, person, trial, nm }) => ({ part, person, trial: String(trial), value: nm })),
      );
      if (study.read < studySize(plan) || !read.ok) {
        const message = `${studySize(plan) - study.read} readings are still missing`;
        throw invalidRequest([{ path: '/by', message }]);
      }
      const { repeatability, reproducibility, interaction } = gaugeStudy(read.study);
      const { revision, instrument } = await this.instruments.get(id, manager);
      const view = await this.instruments.putWithin(manager, id, {
        revision,
        by,
        instrument: {
          ...instrument,
          repeatability: nanometres(Math.round(repeatability.sd)),
          operator: nanometres(Math.round(Math.hypot(reproducibility.sd, interaction))),
          basis: `gauge study “${plan.name}” of ${study.at.slice(0, 10)}, ${plan.people.length} people`.slice(0, 200),
        },
      });
      await manager.update(studyEntity, { id: studyId }, { takenAt: new Date() });
      return view;
    });
  }

  private async found(manager: EntityManager, id: string, studyId: string): Promise<StudyRow> {
    const row = await manager.findOneBy(studyEntity, { id: studyId, instrumentId: id });
    if (!row) throw new ProblemError('not-found', `Study ${studyId} of this instrument not found.`);
    return row;
  }
}
