import type { Logger } from 'pino';
import type { Database } from '../database/Database.js';
import { keepProgress } from './keepProgress.js';

/** How far an engine is, is worked out so long after a reading of it, ms: once for what is typed in one go. */
const AFTER_MS = 700;

/**
 * Works out how far engines are after readings of them: not in the transaction of each, for a list that shows one before works it out itself.
 */
export class ProgressSoon {
  private readonly database: Database;
  private readonly log: Logger;
  private readonly jobs = new Set<string>();
  private timer: NodeJS.Timeout | null = null;
  private working: Promise<void> = Promise.resolve();

  constructor(database: Database, log: Logger) {
    this.database = database;
    this.log = log;
  }

  /** An engine has another reading. */
  touched(jobId: string): void {
    this.jobs.add(jobId);
    this.timer ??= setTimeout(() => {
      this.timer = null;
      this.working = this.work();
    }, AFTER_MS);
  }

  private async work(): Promise<void> {
    const ids = [...this.jobs];
    this.jobs.clear();
    try {
      await keepProgress(this.database.manager, ids);
    } catch (error) {
      this.log.warn({ err: error }, 'how far engines are is worked out when a list shows them');
    }
  }

  async close(): Promise<void> {
    if (this.timer) clearTimeout(this.timer);
    await this.working;
  }
}
