import { type InstrumentUse, type InstrumentView, instrumentName, takenOver, wordsOfUse } from '@fettle/core';
import { useCallback } from 'react';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
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
  const takeOver = useCallback(
    (view: InstrumentView) =>
      change(
        (old) => ({
          ...old,
          registered: { ...old.registered, [view.id]: takenOver(view, old.registered[view.id]) },
        }),
        `${instrumentName(view.instrument)} as in the register`,
      ),
    [change],
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
            registered: { ...old.registered, [view.id]: takenOver(view, old.registered[view.id]) },
            using: { ...others, [use]: view.id },
          };
        },
        `${wordsOfUse(use)} read with ${view ? instrumentName(view.instrument) : 'the engine’s own instrument'}`,
      );
    },
    [change],
  );
  return { takeOver, choose };
}
