import type { EntityManager } from 'typeorm';
import { ProblemError } from '../problem/problem.js';
import { type JobRow, jobEntity } from './jobEntity.js';

/** Locks a job's row for the transaction. @throws ProblemError when there is none */
export async function lockJob(manager: EntityManager, id: string): Promise<JobRow> {
  const row = await manager.findOne(jobEntity, { where: { id }, lock: { mode: 'pessimistic_write' } });
  if (!row) throw new ProblemError('not-found', `Engine ${id} not found.`);
  return row;
}
