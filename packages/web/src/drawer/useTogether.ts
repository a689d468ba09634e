import {
  type DrawerLine,
  type FitProgress,
  type FitSolution,
  type JobsFit,
  type JobView,
  jobsChoices,
  jobsFit,
} from '@fettle/core';
import { proxy } from 'comlink';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useAppDispatch } from '../base/store.js';
import { useQuery, useSetQuery } from '../base/useQuery.js';
import { FitSearcher } from '../fit/fitSearch.js';
import { useBy } from '../person/useBy.js';
import { jobArrived } from '../saving/savingSlice.js';
import { isAskFault, refusalInWords } from '../wire/ask.js';
import { tell, tellEngine } from '../wire/tell.js';
import { useDrawer } from './useDrawer.js';

/** Maximum engines selected for together: the last edited ones. */
export const MOST_TOGETHER = 200;

/** A search that is told to go on has so long, seconds. */
const GO_ON_S = 300;

export type Work =
  | { readonly state: 'idle' }
  | { readonly state: 'working'; readonly progress: FitProgress | null }
  | { readonly state: 'done'; readonly asked: JobsFit; readonly plan: FitSolution }
  | { readonly state: 'cancelled' }
  | { readonly state: 'accepted'; readonly count: number }
  | { readonly state: 'failed'; readonly detail: string };

export interface Together {
  readonly lines: readonly DrawerLine[] | null;
  /** What kept the engines or the drawer from being read, or a change from working. */
  readonly fault: string | null;
  /** The engines that draw on the workshop's drawer; null until they are there. */
  readonly sharing: readonly JobView[] | null;
  /** True if there are more engines than can be fitted together here. */
  readonly isCutOff: boolean;
  readonly asked: JobsFit | null;
  readonly isIn: (id: string) => boolean;
  readonly setIn: (id: string, isIn: boolean) => void;
  readonly work: Work;
  readonly fitThem: (seconds?: number) => void;
  /** Searches the same for longer. */
  readonly goOn: () => void;
  readonly cancel: () => void;
  readonly accept: (chosen: JobsFit, plan: FitSolution) => void;
  /** Those that take part; null until they are there. */
  readonly engines: readonly JobView[] | null;
  /** Looks the engines up again. */
  readonly reload: () => Promise<void>;
}

/** The engines last edited, with their documents. */
function useEngines() {
  const [engines, setEngines] = useState<readonly JobView[] | null>(null);
  const [isCutOff, setCutOff] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const load = useCallback(async () => {
    const { jobs, goesOn } = await tell('listJobs', { most: MOST_TOGETHER });
    setCutOff(goesOn !== null);
    setEngines(await Promise.all(jobs.map(({ id }) => tellEngine(id))));
  }, []);
  useEffect(() => {
    load().catch((error: unknown) => setFault(refusalInWords(error)));
  }, [load]);
  return { engines, isCutOff, fault, load };
}

/** Several engines planned at once on the workshop's drawer. */
export function useTogether(): Together {
  const dispatch = useAppDispatch();
  const by = useBy();
  const { lines, act, fault } = useDrawer();
  const { engines, isCutOff, fault: loading, load } = useEngines();
  const [without] = useQuery('without');
  const [wanted] = useQuery('plan');
  const setQuery = useSetQuery();
  // Kept here as well: a box that is touched shows it at once, the address follows.
  const [left, setLeft] = useState<ReadonlySet<string>>(() => new Set(without?.split(',')));
  const [work, setWork] = useState<Work>({ state: 'idle' });
  const searcher = useRef(new FitSearcher());
  useEffect(() => {
    const { current } = searcher;
    current.start();
    return () => current.end();
  }, []);

  const taking = useMemo(() => engines?.filter(({ id }) => !left.has(id)) ?? null, [engines, left]);
  const asked = useMemo(() => (taking && lines ? jobsFit(taking, lines) : null), [taking, lines]);
  const sharing = (engines ?? []).filter(({ document }) =>
    Object.values(document.shells).some(({ line }) => line !== null),
  );

  const fitThem = (seconds?: number) => {
    if (!asked?.problem) return;
    if (wanted === null) setQuery({ plan: 'yes' });
    setWork({ state: 'working', progress: null });
    const { problem } = asked;
    const listen = proxy((progress: FitProgress) =>
      setWork((old) => (old.state === 'working' ? { state: 'working', progress } : old)),
    );
    searcher.current
      .ask((search) => search.solve(problem, listen, seconds))
      .then((plan) => setWork({ state: 'done', asked, plan }))
      .catch((error: Error) => setWork({ state: 'failed', detail: error.message }));
  };
  // Whoever comes to the address of a plan finds it worked out.
  const fitNow = useRef(fitThem);
  fitNow.current = fitThem;
  const isWanted = wanted !== null && work.state === 'idle' && asked?.problem != null;
  useEffect(() => {
    if (isWanted) fitNow.current();
  }, [isWanted]);
  const cancel = () => {
    searcher.current.stop();
    setWork({ state: 'cancelled' });
  };
  const accept = (chosen: JobsFit, plan: FitSolution) => {
    const at = new Date().toISOString();
    const jobs = jobsChoices(chosen, plan).map(({ job, stations }) => ({
      id: job.id,
      version: engines!.find(({ id }) => id === job.id)!.version,
      choice: { at, by, stations },
    }));
    void act(async () => {
      try {
        for (const view of await tell('acceptTogether', { body: { by, jobs } })) dispatch(jobArrived(view));
        setWork({ state: 'accepted', count: jobs.length });
      } catch (error) {
        if (!isAskFault(error) || error.kind !== 'refused') throw error;
        setWork({
          state: 'failed',
          detail: `${error.problem.detail} Nothing was accepted. Select for several engines again.`,
        });
      }
      await load();
    });
  };
  return {
    lines,
    fault: fault ?? loading,
    sharing: engines && sharing,
    isCutOff,
    asked,
    isIn: (id) => !left.has(id),
    setIn: (id, isIn) => {
      const next = new Set(left);
      if (isIn) next.delete(id);
      else next.add(id);
      setLeft(next);
      setQuery({ without: next.size === 0 ? null : [...next].join(','), plan: null });
      setWork({ state: 'idle' });
    },
    work,
    fitThem,
    goOn: () => fitThem(GO_ON_S),
    cancel,
    accept,
    engines: taking,
    reload: load,
  };
}
