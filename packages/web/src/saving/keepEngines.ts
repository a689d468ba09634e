import type { JobView } from '@fettle/core';
import { addressOf, PAGE_ROUTES } from '@fettle/core';
import type { Store } from '../base/store.js';
import { inPauses } from '../wire/inPauses.js';
import { keepAnswer } from '../wire/keptAnswers.js';

const addressOfEngine = (id: string) => addressOf(PAGE_ROUTES.getJob, { id }, { id });

/** Keeps an engine on this device. */
export function keepEngine(job: JobView): Promise<void> {
  return keepAnswer(addressOfEngine(job.id), job);
}

/** Keeps every engine that was opened on this device as it is known here, so that it can be gone on with while the server is away. */
export function keepEngines(store: Store): void {
  let before: Readonly<Record<string, JobView>> = {};
  store.subscribe(() => {
    const { jobs } = store.getState().saving;
    if (jobs === before) return;
    for (const [id, job] of Object.entries(jobs)) {
      if (before[id] === job) continue;
      inPauses(addressOfEngine(id), () => keepEngine(store.getState().saving.jobs[id] ?? job));
    }
    before = jobs;
  });
}
