import { type Asker, WorkerPool } from '../worker/WorkerPool.js';
import type { ReportTask } from './reportPdf.js';
import type { PdfTask } from './sheetPdf.js';

/** A sheet that is not on paper by then is given up, seconds from when its turn comes; what others ask for has its turn between. */
const BOUNDS = { threads: 1, isLazy: true, mostMb: 400, longestS: 30 };
const WORDS = { what: 'The sheet', remedy: 'Try it again.' };
const REPORT_WORDS = { what: 'The report', remedy: 'Try it again.' };

/** A worker thread that puts sheets on paper. It stays, so that its fonts and its code are warm. */
export class PdfPool {
  private readonly pool = new WorkerPool(import.meta.url, './onPaper', BOUNDS);

  /** @throws ProblemError `too-large`, `too-busy`, `took-too-long` */
  async make(task: PdfTask, asker: Asker): Promise<Buffer> {
    return Buffer.from(await this.pool.run<Uint8Array>('default', task, asker, WORDS));
  }

  /** A customer’s report. @throws ProblemError as above */
  async report(task: ReportTask, asker: Asker): Promise<Buffer> {
    return Buffer.from(await this.pool.run<Uint8Array>('reportPdf', task, asker, REPORT_WORDS));
  }

  close(): Promise<void> {
    return this.pool.close();
  }
}
