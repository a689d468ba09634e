import type { JobProgress } from './jobProgress.js';

/** What an engine has reserved of the workshop's drawer and not fitted yet. */
interface Reserved {
  readonly reserved: number;
}

/**
 * What is to be done on a day: what somebody asked to be reminded of, once its day has come; else the next thing in the order of the work.
 * Where only the sheet is left and halves are still reserved, it is asked whether they are fitted: until then they lie in the drawer.
 *
 * @param today as 2026-11-25; the core has no clock
 */
export function dueOn(
  { next, todo, reminders }: Pick<JobProgress, 'next' | 'todo' | 'reminders'>,
  today: string,
  { reserved }: Reserved,
): Pick<JobProgress, 'next' | 'todo'> {
  const [first] = reminders;
  if (first && first.on <= today) return { next: first.next, todo: first.todo };
  if (next === 'sheet' && reserved > 0) {
    const what = reserved === 1 ? 'the reserved part' : `the ${reserved} reserved parts`;
    return { next: 'drawer', todo: `Mark ${what} as fitted` };
  }
  return { next, todo };
}
