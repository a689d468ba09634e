import {
  type BuiltClearances,
  builtClearances,
  type EndPlaySince,
  endPlaySince,
  type JobDocument,
  PRESSURE_MOMENTS,
  type PressureLimit,
  type PressureMoment,
  type Recheck,
  type RunEntry,
  type Running,
  type StartCheck,
  type StartCheckMade,
} from '@fettle/core';
import { useMemo } from 'react';
import { newId } from '../base/newId.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { useBy } from '../person/useBy.js';

export interface RunningWork {
  readonly job: OpenJob;
  readonly document: JobDocument;
  readonly running: Running;
  readonly stamp: () => { readonly by: string; readonly at: string };
  readonly setUnit: (unit: Running['unit']) => void;
  readonly sayStart: (check: StartCheck, made: Pick<StartCheckMade, 'state' | 'words'> | null) => void;
  readonly setLimit: (moment: PressureMoment, limit: PressureLimit | null) => void;
  readonly addEntry: (entry: RunEntry) => void;
  readonly removeEntry: (key: string) => void;
  readonly addRecheck: (recheck: Pick<Recheck, 'what' | 'on' | 'run'>) => void;
  readonly doneRecheck: (key: string, words: string | null) => void;
  readonly removeRecheck: (key: string) => void;
  readonly built: readonly BuiltClearances[];
  readonly endPlay: EndPlaySince | null;
}

function without<Value>(all: Readonly<Record<string, Value>>, key: string): Record<string, Value> {
  return Object.fromEntries(Object.entries(all).filter(([own]) => own !== key));
}

/** An engine after its build: what is noted of it, and what it was built with. */
export function useRunning(job: OpenJob): RunningWork {
  const change = useChangeDocument(job);
  const by = useBy();
  const { document, readings } = job;
  const { running } = document;
  const stamp = () => ({ by, at: new Date().toISOString() });
  const put = (make: (old: Running) => Running, what: string) =>
    change((old) => ({ ...old, running: make(old.running) }), what);
  return {
    job,
    document,
    running,
    stamp,
    setUnit: (unit) => put((old) => ({ ...old, unit }), 'unit of the run'),
    sayStart: (check, made) =>
      put((old) => {
        const start = made === null ? without(old.start, check) : { ...old.start, [check]: { ...made, ...stamp() } };
        return { ...old, start };
      }, 'first start'),
    setLimit: (moment, limit) =>
      put((old) => {
        const limits = Object.fromEntries(
          PRESSURE_MOMENTS.flatMap((one) => {
            const own = one === moment ? limit : (old.limits[one] ?? null);
            return own === null ? [] : [[one, own]];
          }),
        );
        return { ...old, limits };
      }, 'oil pressure limit'),
    addEntry: (entry) =>
      put((old) => ({ ...old, entries: { ...old.entries, [newId()]: entry } }), 'reading after the build'),
    removeEntry: (key) =>
      put((old) => ({ ...old, entries: without(old.entries, key) }), 'reading after the build removed'),
    addRecheck: (recheck) =>
      put(
        (old) => ({ ...old, rechecks: { ...old.rechecks, [newId()]: { ...recheck, done: null, ...stamp() } } }),
        're-check',
      ),
    doneRecheck: (key, words) =>
      put((old) => {
        const one = old.rechecks[key];
        if (!one) return old;
        const done = words === null ? null : { words, ...stamp() };
        return { ...old, rechecks: { ...old.rechecks, [key]: { ...one, done } } };
      }, 're-check done'),
    removeRecheck: (key) => put((old) => ({ ...old, rechecks: without(old.rechecks, key) }), 're-check removed'),
    built: useMemo(() => builtClearances(document, readings), [document, readings]),
    endPlay: useMemo(() => endPlaySince(document.running, document.endPlay), [document]),
  };
}
