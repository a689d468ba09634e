import type { SheetBlock } from './sheetBlock.js';

export const STAGE_STATES = ['open', 'started', 'done', 'attention'] as const;
export type StageState = (typeof STAGE_STATES)[number];

/**
 * When a thing to do comes up: what everything rests on before all; then figures that cannot be right; then parts that stop the work;
 * then the work in its order.
 */
export const URGENCIES = ['before-all', 'amiss', 'blocked', 'in-order'] as const;

/** One thing to do, as one asks a colleague. */
export interface Todo {
  readonly urgency: (typeof URGENCIES)[number];
  readonly todo: string;
}

/** Something to be done on a day, whatever else is to be done. */
export interface Reminder {
  /** The day, as 2026-11-25. */
  readonly on: string;
  readonly todo: string;
}

/**
 * A piece of the work. All that the application asks of one stands here: its stage and how far it is, the next thing to do in it, what
 * it prints on the sheet, and what a change of its part of the document is called. Their stages are listed in `job/stages.ts`.
 *
 * `Facts` is what the slice needs to know of an engine, its own part and those of others: no more than it names.
 */
export interface Slice<Key extends string, Facts extends { readonly job: unknown }> {
  /** Its place in the addresses of an engine's pages; what is kept and compared. */
  readonly key: Key;
  /** True if a job has this piece of work at all; every job where it is left out. */
  readonly belongs?: (facts: Facts) => boolean;
  readonly state: (facts: Facts) => StageState;
  /** What is to be done in it, the most pressing first; empty when nothing is. */
  readonly todos: (facts: Facts) => readonly Todo[];
  /** What is to be done in it from a day on. */
  readonly reminders?: (facts: Facts) => readonly Reminder[];
  /** What it prints on the build sheet. */
  readonly sheet?: (facts: Facts) => readonly SheetBlock[];
  /**
   * What a place in its part of the document is called in a sentence: `limits of the main journal`.
   *
   * @param path keys from the document down, the first one of its own part
   * @param job to name what ids stand for; what is gone from it is called by its kind
   */
  readonly placeWords: (path: readonly string[], job: Facts['job']) => string;
}
