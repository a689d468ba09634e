import {
  type InstrumentUse,
  type InstrumentView,
  instrumentName,
  type JobDocument,
  readSince,
  takenOver,
  wordsOfUse,
} from '@fettle/core';
import { useCallback } from 'react';
import { useAppStore } from '../base/store.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { knownReadings } from '../saving/knownEngine.js';
import { tell } from '../wire/tell.js';

interface TakeOver {
  /** Takes an instrument over as the register has it. */
  readonly takeOver: (view: InstrumentView) => void;
  /**
   * Chooses what something is read with from now on; null: the engine's own instrument.
   *
   * @throws an `AskFault` where the register cannot be asked
   */
  readonly choose: (use: InstrumentUse, id: string | null) => Promise<void>;
}

/** Brings instruments of the workshop into an engine. What was signed keeps what it was signed with. */
export function useTakeOver(job: Pick<OpenJob, 'id' | 'document'>): TakeOver {
  const change = useChangeDocument(job);
  const store = useAppStore();
  const copy = useCallback(
    (view: InstrumentView, old: JobDocument) => {
      const since = readSince(knownReadings(store.getState().saving, job.id), view.id, new Date().toISOString());
      const { revision, instrument, calibrations, checks } = view;
      return takenOver({ revision, instrument, calibrations, checks }, since, old.registered[view.id]);
    },
    [store, job.id],
  );
  const takeOver = useCallback(
    (view: InstrumentView) =>
      change(
        (old) => ({
          ...old,
          registered: { ...old.registered, [view.id]: copy(view, old) },
        }),
        `${instrumentName(view.instrument)} as in the register`,
      ),
    [change, copy],
  );
  const choose = useCallback(
    async (use: InstrumentUse, id: string | null) => {
      const view = id === null ? null : await tell('getInstrument', { id });
      change(
        (old) => {
          const { [use]: _, ...others } = old.using;
          if (view === null) return { ...old, using: others };
          return {
            ...old,
            registered: { ...old.registered, [view.id]: copy(view, old) },
            using: { ...others, [use]: view.id },
          };
        },
        `${wordsOfUse(use)} read with ${view ? instrumentName(view.instrument) : 'the engine’s own instrument'}`,
      );
    },
    [change, copy],
  );
  return { takeOver, choose };
}
