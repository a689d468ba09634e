import type { Held, JobView, Reading } from '@fettle/core';
import { type JobDocument, jobDocumentSchema } from '@fettle/core';
import type { EntityManager } from 'typeorm';
import { IsNull } from 'typeorm';
import { readingEntity } from '../measure/readingEntity.js';
import { readingOf } from '../measure/readingOf.js';
import { ProblemError } from '../problem/problem.js';
import { type JobRow, jobEntity } from './jobEntity.js';

/** A row whose document has not been a valid one is a programming fault: every write was checked. */
export function documentOf(row: JobRow): JobDocument {
  return jobDocumentSchema.parse(row.document);
}

/** An engine as it stands, its document and readings read already. */
export interface Standing {
  readonly row: JobRow;
  readonly document: JobDocument;
  readonly readings: readonly Reading[];
}

export function viewOf({ row, document, readings }: Standing, held: Held): JobView {
  return {
    id: row.id,
    version: row.version,
    revision: row.revision,
    document,
    readings: [...readings],
    held,
    createdAt: row.createdAt.toISOString(),
    createdBy: row.createdBy,
    updatedAt: row.updatedAt.toISOString(),
    updatedBy: row.updatedBy,
    deletedAt: row.deletedAt?.toISOString() ?? null,
  };
}

export async function found(manager: EntityManager, id: string): Promise<JobRow> {
  const row = await manager.findOne(jobEntity, { where: { id } });
  if (!row) throw new ProblemError('not-found', `Engine ${id} not found.`);
  return row;
}

/** The current reading of every place of an engine. */
export async function readingsOf(manager: EntityManager, jobId: string): Promise<Reading[]> {
  const rows = await manager.find(readingEntity, {
    where: { jobId, replacedBy: IsNull() },
    order: { feature: 'ASC', station: 'ASC', slot: 'ASC' },
  });
  return rows.map(readingOf);
}
