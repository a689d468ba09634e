import type { FitSolution, Json, Reading } from '@fettle/core';
import {
  type AcceptedChoice,
  changesBetween,
  type FitProgress,
  type FreeHalves,
  type JobDocument,
  type JobFit,
  jobFit,
  plannedHalves,
} from '@fettle/core';
import { proxy } from 'comlink';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { FitSearcher } from './fitSearch.js';

/** Nothing is said about a search that takes less than this, ms. */
const QUIET_MS = 500;

/** Ready from when the page is up. */
const planSearcher = new FitSearcher();
planSearcher.start();

/** How long a search goes on when it is told to, seconds: longer each time. */
const GOING_ON_S = [60, 300, 1200] as const;

export interface JobPlan {
  readonly asked: JobFit;
  /** The proven best choice, or why there is none; null while it is being searched for. */
  readonly plan: FitSolution | null;
  /** Its halves and rods by station, by the job's own shells. */
  readonly halves: AcceptedChoice['stations'];
  /** The plan before this one, to say what changed; null on arrival. */
  readonly before: { readonly plan: FitSolution; readonly halves: AcceptedChoice['stations'] } | null;
  /** How far a search of more than half a second is. */
  readonly progress: FitProgress | null;
  readonly isCancelled: boolean;
  readonly cancel: () => void;
  /** Searches the same once more for longer, seconds; null when it has had its longest. */
  readonly goOn: { readonly seconds: number; readonly start: () => void } | null;
  /** What kept the search from running, if anything did. */
  readonly fault: string | null;
}

/** What is only foreseen is given up after so long, seconds: who waits for a plan does not wait for it. */
const FORESEEN_S = 0.1;

/**
 * The best halves for figures that do not stand yet, where they are soon found.
 *
 * @returns null where there is nothing to choose, or no proof in a tenth of a second
 * @throws {Error} where the search cannot run
 */
export async function soonFound(
  document: JobDocument,
  readings: readonly Reading[],
  free: FreeHalves | null,
  unwanted: AbortSignal,
): Promise<AcceptedChoice['stations'] | null> {
  const asked = jobFit(document, readings, free);
  if (!asked.ok) return null;
  const plan = await planSearcher.ask(
    (search) =>
      search.solve(
        asked.problem,
        proxy(() => {}),
        FORESEEN_S,
      ),
    unwanted,
  );
  return plan.status === 'optimal' ? plannedHalves(document, asked, plan) : null;
}

const NO_HALVES: AcceptedChoice['stations'] = {};

interface Answer {
  readonly asked: JobFit;
  readonly plan: FitSolution | null;
  readonly halves: AcceptedChoice['stations'];
  readonly fault: string | null;
}

function isSameQuestion(one: JobFit, other: JobFit): boolean {
  const said = (fit: JobFit) =>
    (fit.ok ? { problem: fit.problem, leftOut: fit.leftOut, rods: [...fit.rodNumbers] } : fit) as unknown as Json;
  return one === other || changesBetween(said(one), said(other)).length === 0;
}

/** The best choice for a job, searched in a worker whenever the job or a reading changes. */
export function useJobPlan(document: JobDocument, readings: readonly Reading[], free: FreeHalves | null): JobPlan {
  const fresh = useMemo(() => jobFit(document, readings, free), [document, readings, free]);
  // What does not change the question does not ask it again.
  const kept = useRef(fresh);
  if (!isSameQuestion(kept.current, fresh)) kept.current = fresh;
  const asked = kept.current;
  const [answers, setAnswers] = useState<{ last: Answer | null; before: Answer | null }>({ last: null, before: null });
  const [progress, setProgress] = useState<{ asked: JobFit; at: FitProgress } | null>(null);
  const [cancelled, setCancelled] = useState<JobFit | null>(null);
  const [more, setMore] = useState<{ asked: JobFit; times: number } | null>(null);
  const times = more?.asked === asked ? more.times : 0;
  const latest = useRef(document);
  latest.current = document;
  useEffect(() => {
    if (!asked.ok) return;
    const unwanted = new AbortController();
    const started = performance.now();
    const answer = (plan: FitSolution | null, fault: string | null) => {
      if (unwanted.signal.aborted) return;
      const halves = plan ? plannedHalves(latest.current, asked, plan) : NO_HALVES;
      setAnswers(({ last }) => ({ last: { asked, plan, halves, fault }, before: last }));
    };
    const listen = (at: FitProgress) => {
      if (!unwanted.signal.aborted && performance.now() - started > QUIET_MS) setProgress({ asked, at });
    };
    planSearcher
      .ask(
        (search) => search.solve(asked.problem, proxy(listen), times === 0 ? undefined : GOING_ON_S[times - 1]),
        unwanted.signal,
      )
      .then((plan) => answer(plan, null))
      .catch((error: Error) => answer(null, error.message));
    return () => unwanted.abort();
  }, [asked, times]);
  const cancel = useCallback(() => {
    planSearcher.stop();
    setCancelled(asked);
  }, [asked]);
  const seconds = GOING_ON_S[times];
  const start = useCallback(() => {
    setAnswers(({ before }) => ({ last: before, before }));
    setMore({ asked, times: times + 1 });
  }, [asked, times]);
  const { last, before } = answers;
  const isCurrent = last?.asked === asked;
  return {
    asked,
    plan: isCurrent ? last.plan : null,
    halves: isCurrent ? last.halves : NO_HALVES,
    before: isCurrent && before?.plan ? { plan: before.plan, halves: before.halves } : null,
    progress: progress?.asked === asked ? progress.at : null,
    isCancelled: cancelled === asked && !isCurrent,
    cancel,
    goOn: seconds === undefined ? null : { seconds, start },
    fault: isCurrent ? last.fault : null,
  };
}
