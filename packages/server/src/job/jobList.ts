import { type Answered, type JobProgress, jobProgressSchema, type Read } from '@fettle/core';
import type { EntityManager } from 'typeorm';
import { cursorText, readCursor } from '../database/cursor.js';
import { likeWords } from '../database/likeWords.js';
import { type HeldByJob, heldBy, NOTHING_HELD } from '../stock/heldBy.js';
import { coreMark } from './coreMark.js';
import { type JobRow, jobEntity } from './jobEntity.js';

/** Maximum names in the list of who edited last. */
const MOST_PEOPLE = 50;

/** Who has touched an engine last, by the alphabet: from one name to the next by the index, however many engines there are. */
const peopleOf = (isOff: boolean) => {
  const where = `"deleted_at" IS ${isOff ? 'NOT ' : ''}NULL`;
  return `
    WITH RECURSIVE people AS (
      (SELECT "updated_by" AS "name" FROM "job" WHERE ${where} ORDER BY 1 LIMIT 1)
      UNION ALL
      SELECT (SELECT "updated_by" FROM "job" WHERE ${where} AND "updated_by" > people."name" ORDER BY 1 LIMIT 1)
      FROM people WHERE people."name" IS NOT NULL
    )
    SELECT "name" FROM people WHERE "name" IS NOT NULL LIMIT $1`;
};

/** What is said of an engine that another version has left without a word of how far it is. */
const NOT_YET: JobProgress = {
  next: 'data',
  todo: 'Open it: the next step is being worked out',
  stages: {},
  reminders: [],
};

/** How far an engine is by what was kept last: another build may have kept it in another form. */
function progressOf({ progress, progressBuild }: Pick<JobRow, 'progress' | 'progressBuild'>): JobProgress {
  if (progress === null || progressBuild === coreMark()) return progress ?? NOT_YET;
  return jobProgressSchema.safeParse(progress).data ?? NOT_YET;
}

/** The columns that a list reads. */
const LISTED = [
  'id',
  'version',
  'revision',
  'name',
  'unit',
  'mains',
  'rods',
  'progress',
  'progressOf',
  'progressBuild',
  'updatedAt',
  'updatedBy',
  'deletedAt',
] as const satisfies (keyof JobRow)[];
type Listed = Pick<JobRow, (typeof LISTED)[number]>;

function heldOf({ reserved, fitted, short }: HeldByJob) {
  return { held: { reserved, fitted }, short: [...short] };
}

/**
 * A page of the engines on the benches, last touched first; or of those taken off. No document is read for it, and nothing is worked out: how
 * far they are is what was kept last.
 */
export async function listJobs(
  manager: EntityManager,
  { deleted, words, stage, person, after, most }: Read<'listJobs'>['query'],
  onTouched: (id: string) => void,
): Promise<Answered<'listJobs'>> {
  const from = readCursor(after);
  const query = manager
    .createQueryBuilder(jobEntity, 'job')
    .select(LISTED.map((column) => `job.${column}`))
    .where(deleted === 'true' ? 'job.deletedAt IS NOT NULL' : 'job.deletedAt IS NULL')
    .orderBy('job.updatedAt', 'DESC')
    .addOrderBy('job.id', 'ASC')
    .limit(most + 1);
  for (const [at, pattern] of likeWords(words).entries()) {
    query.andWhere(`(job.name ILIKE :word${at} OR job.serial ILIKE :word${at})`, { [`word${at}`]: pattern });
  }
  if (stage !== undefined) query.andWhere(`job.progress->>'next' = :stage`, { stage });
  if (person !== undefined) query.andWhere('job.updatedBy = :person', { person });
  if (from) {
    query.andWhere('(job.updatedAt < :at OR (job.updatedAt = :at AND job.id > :key))', {
      at: from.at,
      key: from.key,
    });
  }
  const found: Listed[] = await query.getMany();
  const rows = found.slice(0, most);
  for (const { id, progressOf, revision } of rows) if (progressOf !== revision) onTouched(id);
  const last = rows.at(-1);
  const held = await heldBy(
    manager,
    rows.map(({ id }) => id),
  );
  const people: { name: string }[] = await manager.query(peopleOf(deleted === 'true'), [MOST_PEOPLE]);
  return {
    people: people.map(({ name }) => name),
    jobs: rows.map((row) => ({
      id: row.id,
      version: row.version,
      name: row.name,
      unit: row.unit,
      mains: row.mains,
      rods: row.rods,
      ...progressOf(row),
      ...heldOf(held.get(row.id) ?? NOTHING_HELD),
      updatedAt: row.updatedAt.toISOString(),
      updatedBy: row.updatedBy,
      deletedAt: row.deletedAt?.toISOString() ?? null,
    })),
    goesOn: last && found.length > most ? cursorText({ at: last.updatedAt, key: last.id }) : null,
  };
}
