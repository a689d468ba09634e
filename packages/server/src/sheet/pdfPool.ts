import { Piscina } from 'piscina';
import { ProblemError } from '../problem/problem.js';
import { threadArguments } from '../worker/threadArguments.js';
import type { PdfTask } from './sheetPdf.js';

/** A sheet that is not on paper by then is given up, seconds. */
const LONGEST_S = 30;

/** A worker thread that puts sheets on paper; it starts with the first one. */
export class PdfPool {
  private readonly pool: Piscina;

  constructor() {
    const script = import.meta.url.endsWith('.ts') ? './sheetPdf.ts' : './sheetPdf.js';
    this.pool = new Piscina({
      filename: new URL(script, import.meta.url).href,
      execArgv: threadArguments(import.meta.url),
      minThreads: 0,
      maxThreads: 1,
      idleTimeout: 60_000,
      maxQueue: 32,
    });
  }

  /** @throws ProblemError `took-too-long` */
  async make(task: PdfTask): Promise<Buffer> {
    const abort = new AbortController();
    const timer = setTimeout(() => abort.abort(), LONGEST_S * 1000);
    try {
      return Buffer.from((await this.pool.run(task, { signal: abort.signal })) as Uint8Array);
    } catch (error) {
      if (!abort.signal.aborted) throw error;
      throw new ProblemError('took-too-long', `The sheet was not on paper after ${LONGEST_S} s; try it again.`);
    } finally {
      clearTimeout(timer);
    }
  }

  async close(): Promise<void> {
    await this.pool.destroy();
  }
}
