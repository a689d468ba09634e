import type { Reading } from '../part/reading.js';
import type { JobDocument } from './jobDocument.js';
import { jobFacts } from './jobFacts.js';
import { SLICES } from './slices.js';
import { stageName } from './stageName.js';
import type { Stage } from './stages.js';

/** Stages that follow the sign-off: it does not wait for them. */
const AFTERWARDS: readonly Stage[] = ['sheet', 'running'];

/**
 * What is open on an engine, as it is listed at its sign-off: everything that each piece of the work still asks for, and pieces that were never
 * begun. In the order of the work, each after the name of its stage: `Journals: Read the journal at M2`.
 */
export function openWork(job: JobDocument, readings: readonly Reading[]): string[] {
  const facts = jobFacts(job, readings);
  return SLICES.filter((slice) => !AFTERWARDS.includes(slice.key) && (slice.belongs?.(facts) ?? true)).flatMap(
    (slice) => {
      const name = stageName(slice.key);
      const todos = slice.todos(facts).map(({ todo }) => `${name}: ${todo}`);
      if (todos.length > 0) return todos;
      return slice.state(facts) === 'open' ? [`${name}: not done`] : [];
    },
  );
}
