import { formatISO } from 'date-fns';

/** The day at the bench, as 2026-11-25. */
export function today(): string {
  return formatISO(new Date(), { representation: 'date' });
}
