import type { JobProgress } from './jobProgress.js';

/**
 * What is to be done on a day: what somebody asked to be reminded of, once its day has come; else the next thing in the order of the work.
 *
 * @param today as 2026-11-25; the core has no clock
 */
export function dueOn({ next, todo, reminders }: Pick<JobProgress, 'next' | 'todo' | 'reminders'>, today: string) {
  const [first] = reminders;
  return first && first.on <= today ? { next: first.next, todo: first.todo } : { next, todo };
}
