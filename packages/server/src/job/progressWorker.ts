import { type EngineEvidence, engineEvidence, type JobProgress, jobDocumentSchema, jobProgress } from '@fettle/core';
import type { ReadingRow } from '../measure/readingEntity.js';
import { readingOf } from '../measure/readingOf.js';

/** An engine as the database wrote it out: nobody has parsed it yet. */
export interface Unread {
  readonly id: string;
  readonly document: string;
  /** Its current readings, a list of rows. */
  readonly readings: string;
}

/** How far an engine is and what it tells the workshop, or why that cannot be said. */
export type WorkedOut = { readonly id: string } & (
  | { readonly progress: JobProgress; readonly evidence: EngineEvidence | null }
  | { readonly fault: string }
);

type StoredRow = Omit<ReadingRow, 'at'> & { readonly at: string };

/** Runs in a worker thread: works out how far engines are, and what they tell. One that cannot be read does not keep the others from it. */
export default function progressOf(engines: readonly Unread[]): WorkedOut[] {
  return engines.map(({ id, document, readings }): WorkedOut => {
    try {
      const rows = JSON.parse(readings) as StoredRow[];
      const read = rows.map((row) => readingOf({ ...row, at: new Date(row.at) } as ReadingRow));
      const job = jobDocumentSchema.parse(JSON.parse(document));
      return { id, progress: jobProgress(job, read), evidence: engineEvidence(job, read) };
    } catch (error) {
      return { id, fault: (error as Error).message.slice(0, 500) };
    }
  });
}
