import type { Database } from '../database/Database.js';
import type { BodyPool } from '../read/BodyPool.js';
import { Reply } from '../wire/Reply.js';
import { Shared } from '../wire/Shared.js';
import { SharedReply } from '../wire/SharedReply.js';
import type { HandlersOf, Tags } from '../wire/serve.js';
import { dueEngines } from './dueEngines.js';
import { fastenerMoves } from './fastenerMoves.js';
import { jobHistory } from './jobHistory.js';
import type { JobService } from './jobService.js';

type JobNames =
  | 'listJobs'
  | 'listDue'
  | 'createJob'
  | 'getJob'
  | 'patchJob'
  | 'deleteJob'
  | 'restoreJob'
  | 'jobHistory'
  | 'fastenerMoves';

/** The engines on the benches. */
export function jobHandlers(jobs: JobService, database: Database, reads: BodyPool): HandlersOf<JobNames> {
  // Many benches look at the same list whenever something on it changes.
  const lists = new Shared(async (query: string) => new SharedReply(await jobs.list(JSON.parse(query))));
  return {
    listJobs: ({ query }) => lists.ask(JSON.stringify(query)),
    listDue: ({ query }) => dueEngines(database.manager, query),
    createJob: async ({ body: { id, by, document } }) => {
      const { job, made } = await jobs.create(id, by, document);
      return new Reply(made ? 201 : 200, job, { location: `/api/jobs/${id}` });
    },
    getJob: ({ path }) => jobs.get(path.id),
    patchJob: ({ path, body: { steps, ...stamp } }, asker) =>
      jobs.patch(path.id, stamp, steps, (task) => reads.patch(task, asker)),
    deleteJob: ({ path, query }) => jobs.remove(path.id, query),
    restoreJob: ({ path, body }) => jobs.restore(path.id, body),
    fastenerMoves: () => fastenerMoves(database),
    jobHistory: ({ path, query }) => jobHistory(database, path.id, query),
  };
}

/** An engine and its history are still the same while its revision is. */
export function jobTags(jobs: JobService): Tags {
  return {
    getJob: ({ path }) => jobs.revision(path.id),
    jobHistory: ({ path }) => jobs.revision(path.id),
  };
}
