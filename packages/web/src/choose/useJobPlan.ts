import {
  type AcceptedChoice,
  type FitPlan,
  type JobDocument,
  type JobFit,
  jobFit,
  plannedHalves,
  type Reading,
} from '@fettle/core';
import { type Remote, wrap } from 'comlink';
import { useEffect, useMemo, useState } from 'react';
import type { FitSearch } from './fitWorker.js';

let search: Remote<FitSearch> | null = null;

function fitSearch(): Remote<FitSearch> {
  search ??= wrap<FitSearch>(new Worker(new URL('./fitWorker.ts', import.meta.url), { type: 'module' }));
  return search;
}

export interface JobPlan {
  readonly asked: JobFit;
  /** The proven best choice, or why there is none; null while it is being searched for. */
  readonly plan: FitPlan | null;
  /** Its halves by station, by the job's own shells. */
  readonly halves: AcceptedChoice['stations'];
  /** What kept the search from running, if anything did. */
  readonly fault: string | null;
}

const NO_HALVES: AcceptedChoice['stations'] = {};

/** The best choice for the mains of a job, searched in a worker whenever the job or a reading changes. */
export function useJobPlan(document: JobDocument, readings: readonly Reading[]): JobPlan {
  const asked = useMemo(() => jobFit(document, readings), [document, readings]);
  const [answer, setAnswer] = useState<{ asked: JobFit; plan: FitPlan | null; fault: string | null } | null>(null);
  useEffect(() => {
    if (!asked.ok) return;
    let isCurrent = true;
    fitSearch()
      .solve(asked.request)
      .then((solved) => {
        if (!isCurrent) return;
        if (solved.ok) setAnswer({ asked, plan: solved.plan, fault: null });
        else
          setAnswer({
            asked,
            plan: null,
            fault: solved.faults.map(({ path, message }) => `${path}: ${message}`).join('; '),
          });
      })
      .catch((error: Error) => isCurrent && setAnswer({ asked, plan: null, fault: error.message }));
    return () => {
      isCurrent = false;
    };
  }, [asked]);
  const isCurrent = answer?.asked === asked;
  const plan = isCurrent ? answer.plan : null;
  const halves = useMemo(
    () => (asked.ok && plan ? plannedHalves(document, asked, plan) : NO_HALVES),
    [asked, plan, document],
  );
  return { asked, plan, halves, fault: isCurrent ? answer.fault : null };
}
