import type { Reading } from '../part/reading.js';
import { type Reminder, type StageState, URGENCIES } from '../stage/slice.js';
import type { JobDocument } from './jobDocument.js';
import { jobFacts } from './jobFacts.js';
import { SLICES } from './slices.js';
import type { Stage } from './stages.js';

export interface JobProgress {
  /** The stages that this job has: those of the rods only where the rods are part of it. */
  readonly stages: Readonly<Partial<Record<Stage, StageState>>>;
  /** Where the next thing to do is. */
  readonly next: Stage;
  /** The next thing to do, as one asks a colleague. */
  readonly todo: string;
  /** What is to be done from a day on, the earliest first. */
  readonly reminders: readonly (Reminder & { readonly next: Stage })[];
}

/** How far a job is, and what is the next thing to do: folded from the slices, in the order of the work. */
export function jobProgress(job: JobDocument, readings: readonly Reading[]): JobProgress {
  const facts = jobFacts(job, readings);
  const own = SLICES.filter((slice) => slice.belongs?.(facts) ?? true);
  const todos = own.flatMap((slice) => slice.todos(facts).map((one) => ({ ...one, next: slice.key })));
  const [first] = URGENCIES.flatMap((urgency) => todos.filter((one) => one.urgency === urgency));
  const reminders = own.flatMap((slice) => slice.reminders?.(facts).map((one) => ({ ...one, next: slice.key })) ?? []);
  return {
    reminders: reminders.sort((one, other) => (one.on < other.on ? -1 : one.on > other.on ? 1 : 0)),
    stages: Object.fromEntries(own.map((slice) => [slice.key, slice.state(facts)])),
    // What comes after the build asks for nothing until somebody notes something there.
    next: first?.next ?? 'sheet',
    todo: first?.todo ?? 'Finished: build sheet printed',
  };
}
