import { type JobProgress, jobDocumentSchema, jobProgress } from '@fettle/core';
import { type EntityManager, In, IsNull } from 'typeorm';
import { grouped } from '../database/grouped.js';
import { readingEntity } from '../measure/readingEntity.js';
import { readingOf } from '../measure/readingOf.js';
import { jobEntity } from './jobEntity.js';

/**
 * Works out how far engines are and keeps it with them, for the lists: whenever one changes, in the transaction of the change; and, after
 * a start of the server (another build may say it otherwise), when a list first shows one.
 *
 * @param ids the engines
 * @returns how far each one is
 */
export async function keepProgress(manager: EntityManager, ids: readonly string[]): Promise<Map<string, JobProgress>> {
  const rows = await manager.find(jobEntity, { where: { id: In([...ids]) } });
  const readings = await manager.find(readingEntity, { where: { jobId: In([...ids]), replacedBy: IsNull() } });
  const byJob = grouped(readings, ({ jobId }) => jobId);
  const known = new Map<string, JobProgress>();
  for (const row of rows) {
    const progress = jobProgress(jobDocumentSchema.parse(row.document), (byJob.get(row.id) ?? []).map(readingOf));
    known.set(row.id, progress);
    // Whoever changed it meanwhile has made another revision of it, and has kept that one's.
    await manager.update(
      jobEntity,
      { id: row.id, revision: row.revision },
      { progress: progress as never, progressOf: row.revision },
    );
  }
  return known;
}
