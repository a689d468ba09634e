import { type ParsedBody, unreadProblem } from '../worker/readBytes.js';
import { type Asker, WorkerPool } from '../worker/WorkerPool.js';
import { isLarge } from './isLarge.js';
import { type JudgedPatch, judgePatch, type PatchTask } from './judgePatch.js';
import type { BodyTask } from './readWorker.js';

/** One thread is enough for what is large now and then; a body of the largest size takes it some tenths of a second. */
const BOUNDS = { threads: 1, mostMb: 250, longestS: 10 };
const WORDS = { what: 'Reading it', remedy: 'Send less at once.' };

/** A worker thread that reads large bodies and judges changes of large documents, so that nobody else waits for them. */
export class BodyPool {
  private readonly pool = new WorkerPool(import.meta.url, './readWorker', BOUNDS);

  /**
   * Reads a body with the description of its endpoint.
   *
   * @throws ProblemError `not-json`, `invalid-request`, `too-large`, `too-busy`, `took-too-long`
   */
  async body(task: BodyTask, asker: Asker): Promise<unknown> {
    const read = await this.pool.run<ParsedBody<unknown>>('default', task, asker, WORDS);
    if (read.kind === 'read') return read.value;
    throw unreadProblem(read);
  }

  /** Judges a change: a small one in place, which is quicker. @throws ProblemError `too-large`, `too-busy`, `took-too-long` */
  async patch(task: PatchTask, asker: Asker): Promise<JudgedPatch> {
    if (!isLarge(task.document) && !isLarge(task.steps)) return judgePatch(task);
    return this.pool.run<JudgedPatch>('patch', task, asker, WORDS);
  }

  close(): Promise<void> {
    return this.pool.close();
  }
}
