import type { KitAdvice, KitProgress, KitQuestion } from '@fettle/core';
import { proxy, wrap } from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { KitAdvisor } from './kitWorker.js';

export interface AskedAdvice {
  readonly advice: KitAdvice | null;
  /** Null while nothing is being worked out. */
  readonly progress: KitProgress | null;
  readonly fault: string | null;
  readonly ask: (question: KitQuestion, target: number) => void;
  readonly stop: () => void;
}

/** Asks a worker what to order; ending the worker stops it at once. */
export function useKitAdvice(): AskedAdvice {
  const worker = useRef<Worker | null>(null);
  const [advice, setAdvice] = useState<KitAdvice | null>(null);
  const [progress, setProgress] = useState<KitProgress | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const stop = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
    setProgress(null);
  }, []);
  useEffect(() => stop, [stop]);
  const ask = useCallback(
    (question: KitQuestion, target: number) => {
      stop();
      const started = new Worker(new URL('./kitWorker.ts', import.meta.url), { type: 'module' });
      worker.current = started;
      setAdvice(null);
      setFault(null);
      setProgress({ stage: 'drawing', done: 0 });
      const isCurrent = () => worker.current === started;
      wrap<KitAdvisor>(started)
        .advise(
          question,
          target,
          proxy((at: KitProgress) => isCurrent() && setProgress(at)),
        )
        .then((found) => {
          if (!isCurrent()) return;
          if (found) setAdvice(found);
          else setFault('Out of time: no advice. Ask for the mains alone, or for a lower chance.');
        })
        .catch((error: Error) => isCurrent() && setFault(error.message))
        .finally(() => isCurrent() && stop());
    },
    [stop],
  );
  return { advice, progress, fault, ask, stop };
}
