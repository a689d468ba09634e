import { type RefObject, useEffect, useRef } from 'react';
import { useFreeHalves } from '../drawer/useFreeHalves.js';
import { soonFound } from '../fit/useJobPlan.js';
import type { OpenJob } from '../job/useJob.js';
import { type Foreseen, readingsOnceTyped } from './foreseen.js';
import type { Measuring } from './useMeasuring.js';

/**
 * Searches for the best halves while a figure is still in the box, so that they are there with the frame that shows it. It is only ahead of
 * the search that follows each figure, which says the same.
 */
export function useForeseen(job: OpenJob, current: Measuring['current']): RefObject<Foreseen | null> {
  const foreseen = useRef<Foreseen | null>(null);
  const free = useFreeHalves(job);
  const { document, readings } = job;
  useEffect(() => {
    if (!current || document.choice) return;
    const unwanted = new AbortController();
    // The frame that shows the key goes first.
    const timer = setTimeout(() => {
      const once = readingsOnceTyped({ document, readings }, current);
      if (!once) return;
      soonFound(document, once, free, unwanted.signal)
        .then((halves) => {
          if (halves) foreseen.current = { document, readings: once, halves };
        })
        // The search that follows the figure fails alike, and says so.
        .catch(() => {});
    });
    return () => {
      clearTimeout(timer);
      unwanted.abort();
    };
  }, [document, readings, current, free]);
  return foreseen;
}
