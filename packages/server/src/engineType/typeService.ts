import { isDeepStrictEqual } from 'node:util';
import type { Answered, Read, TypeRevision, TypeSummary, TypeView } from '@fettle/core';
import { type EngineType, engineTypeSchema, headOfType } from '@fettle/core';
import type { EntityManager } from 'typeorm';
import { acting } from '../access/acting.js';
import { tellEvent } from '../access/events.js';
import { atMost } from '../database/atMost.js';
import type { Database } from '../database/Database.js';
import { likeWords } from '../database/likeWords.js';
import { oneAtATime } from '../database/oneAtATime.js';
import { withinBytes } from '../database/withinBytes.js';
import { invalidRequest, ProblemError } from '../problem/problem.js';
import { type TypeRevisionRow, type TypeRow, typeEntity, typeRevisionEntity } from './typeEntity.js';

const LISTED_LINES = 4;
/** Types at most, with the archived ones. */
const MOST_TYPES = 5000;

interface ListedRow extends Pick<TypeRow, 'id' | 'revision'>, Pick<TypeRevisionRow, 'head' | 'at' | 'by' | 'lines'> {
  readonly archived_at: Date | null;
}

/** A revision as a page of them has it. */
interface RevisionRow {
  readonly revision: number;
  readonly at: Date;
  readonly by: string;
  readonly type: unknown;
  /** How many there are for this page and the next. */
  readonly there: number;
}

const REVISIONS = withinBytes(
  `SELECT "revision", "at", "by", "type" FROM "type_revision"
   WHERE "type_id" = $1 AND ($2::int IS NULL OR "revision" < $2) ORDER BY "revision" DESC LIMIT $3`,
  '"type"',
  '"revision" DESC',
);

function revisionOf({ revision, at, by, type }: RevisionRow): TypeRevision {
  return { revision, at: at.toISOString(), by, type: engineTypeSchema.parse(type) };
}

/** A sheet as it was kept, with fields that have come since filled in. */
function typeOf({ type }: TypeRevisionRow): EngineType {
  return engineTypeSchema.parse(type);
}

function viewOf(row: TypeRow, latest: TypeRevisionRow): TypeView {
  return {
    id: row.id,
    revision: row.revision,
    type: typeOf(latest),
    archivedAt: row.archivedAt?.toISOString() ?? null,
    updatedAt: latest.at.toISOString(),
    updatedBy: latest.by,
  };
}

/** The library of engine types in the database. */
export class TypeService {
  private readonly database: Database;

  constructor(database: Database) {
    this.database = database;
  }

  /**
   * The types of the library by name. With words, only those whose sheets hold every one of them, with the lines where they stand.
   *
   * A page of them, by the alphabet.
   */
  async list({ archived, words, after, most }: Read<'listTypes'>['query']): Promise<Answered<'listTypes'>> {
    const { manager } = this.database;
    const wanted = likeWords(words);
    const before = Number(after ?? 0);
    const rows: ListedRow[] = await manager.query(
      `SELECT "engine_type"."id", "engine_type"."revision", "archived_at", "head", "at", "by",
         CASE WHEN cardinality($2::text[]) = 0 THEN '' ELSE "lines" END AS "lines"
       FROM "engine_type" JOIN "type_revision"
         ON "type_id" = "engine_type"."id" AND "type_revision"."revision" = "engine_type"."revision"
       WHERE ("archived_at" IS NOT NULL) = $1 AND "lines" ILIKE ALL ($2)
       ORDER BY "head"->>'name' COLLATE "en-x-icu", "engine_type"."id" OFFSET $3 LIMIT $4`,
      [archived === 'true', wanted, before, most + 1],
    );
    const typed = words.toLowerCase().split(/\s+/u).filter(Boolean);
    const types = rows.slice(0, most).map(
      ({ id, revision, archived_at, head, at, by, lines }): TypeSummary => ({
        id,
        revision,
        ...head,
        found: this.foundIn(lines.split('\n'), typed),
        archivedAt: archived_at?.toISOString() ?? null,
        updatedAt: at.toISOString(),
        updatedBy: by,
      }),
    );
    return { types, goesOn: rows.length > most ? String(before + most) : null };
  }

  /** @throws ProblemError `not-found` */
  async get(id: string, manager: EntityManager = this.database.manager): Promise<TypeView> {
    const row = await manager.findOneBy(typeEntity, { id });
    if (!row) throw new ProblemError('not-found', `Engine type ${id} not found.`);
    return viewOf(row, await this.latest(manager, row));
  }

  /** A page of the revisions of a type, the last one first. @throws ProblemError `not-found`, `invalid-request` */
  async revisions(id: string, { after, most }: Read<'typeRevisions'>['query']): Promise<Answered<'typeRevisions'>> {
    if (after !== undefined && !/^\d{1,9}$/u.test(after)) {
      throw invalidRequest([{ path: '/after', message: 'use the `goesOn` of the page before' }]);
    }
    await this.get(id);
    const rows: RevisionRow[] = await this.database.manager.query(REVISIONS, [id, after ?? null, most + 1]);
    const isAll = rows.length <= most && rows.length === (rows[0]?.there ?? 0);
    // Otherwise the last one is told only to say what the one after it changed.
    const shown = isAll ? rows : rows.slice(0, Math.max(1, rows.length - 1));
    const before = rows[shown.length];
    return {
      revisions: shown.map(revisionOf),
      before: before ? revisionOf(before) : null,
      goesOn: isAll ? null : String(shown.at(-1)!.revision),
    };
  }

  /** Keeps a new type (revision 0), or the next revision of one. @throws ProblemError `stale-version`, `invalid-request` */
  async put(id: string, revision: number, by: string, type: EngineType): Promise<TypeView> {
    return this.database.transaction(async (manager) => {
      if (revision === 0) await oneAtATime(manager, [id]);
      const row = await manager.findOne(typeEntity, { where: { id }, lock: { mode: 'pessimistic_write' } });
      if ((row?.revision ?? 0) !== revision) {
        // Sent twice, it is made once.
        if (revision === 0 && row?.revision === 1) {
          const made = await this.latest(manager, row);
          if (made.by === by && isDeepStrictEqual(typeOf(made), type)) return this.get(id, manager);
        }
        const current = row ? await this.get(id, manager) : null;
        const who = current ? `${current.updatedBy} has made revision ${current.revision}` : 'It is not in the library';
        throw new ProblemError('stale-version', `${who}; this change was made from revision ${revision}.`, [], {
          current,
        });
      }
      const next = revision + 1;
      if (row) await manager.update(typeEntity, { id }, { revision: next });
      else {
        await manager.insert(typeEntity, { id, revision: next, archivedAt: null });
        const what = `library limit (${MOST_TYPES} engine types) reached, archived ones included; change an existing one`;
        await atMost(manager, typeEntity, { most: MOST_TYPES, path: '/type', what });
      }
      const { head, lines } = headOfType(type);
      await manager.insert(typeRevisionEntity, {
        device: acting().device,
        typeId: id,
        revision: next,
        type: type as never,
        head: head as never,
        lines,
        at: new Date(),
        by,
      });
      return this.get(id, manager);
    });
  }

  /** Archives a type, or takes it out of the archive. Jobs that copied it are not touched. @throws ProblemError `not-found` */
  async setArchived(id: string, archived: boolean, by: string): Promise<TypeView> {
    await this.get(id);
    await this.database.manager.update(typeEntity, { id }, { archivedAt: archived ? new Date() : null });
    const view = await this.get(id);
    const what = archived ? 'archived' : 'unarchived';
    await tellEvent(this.database, { kind: 'type', what, subject: view.type.name, subjectId: id, by });
    return view;
  }

  /** The lines in which words stand, those with the most of them first. */
  private foundIn(lines: readonly string[], words: readonly string[]): string[] {
    return lines
      .map((line) => ({ line, hits: words.filter((word) => line.toLowerCase().includes(word)).length }))
      .filter(({ hits }) => hits > 0)
      .sort((a, b) => b.hits - a.hits)
      .slice(0, LISTED_LINES)
      .map(({ line }) => line);
  }

  private latest(manager: EntityManager, { id, revision }: TypeRow): Promise<TypeRevisionRow> {
    return manager.findOneByOrFail(typeRevisionEntity, { typeId: id, revision });
  }
}
