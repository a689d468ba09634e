import { type InstrumentView, newInstrument, type RegisteredInstrument } from '@fettle/core';
import { useState } from 'react';
import { useBy } from '../person/useBy.js';
import { useDraft } from '../typing/useDraft.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import { type InstrumentText, instrumentOfText, textOfInstrument } from './instrumentText.js';

/** What was typed of an instrument, with the revision that it was begun from. */
interface Draft {
  readonly text: InstrumentText;
  readonly revision: number;
}

/**
 * What is typed of one instrument, until one button saves all of it.
 *
 * @param view - null for an instrument that is not registered yet
 * @param onSaved - called once the server has taken it
 */
export function useInstrumentForm(id: string, view: InstrumentView | null, onSaved: () => void) {
  const by = useBy();
  const [draft, setDraft, clear] = useDraft<Draft>(`instrument.${id}`);
  const [isTried, setTried] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const stored = view?.instrument ?? (newInstrument('outsideMicrometer', 'mm') as RegisteredInstrument);
  const text = draft?.text ?? textOfInstrument(stored);
  const read = instrumentOfText(text);
  const revision = draft?.revision ?? view?.revision ?? 0;
  const put = (next: InstrumentText) => setDraft({ text: next, revision });
  const save = async () => {
    setTried(true);
    setFault(null);
    if (!read.ok) return;
    try {
      await tell('putInstrument', { id, body: { revision, by, instrument: read.instrument } });
      if (draft) clear(draft);
      setTried(false);
      onSaved();
    } catch (error) {
      setFault(refusalInWords(error));
    }
  };
  return {
    text,
    /** Faults of single boxes, from the first try to save on. */
    faults: read.ok || !isTried ? {} : read.faults,
    /** Why the server did not take it. */
    fault,
    isTyped: draft !== null,
    /** True if somebody has saved the instrument since this draft was begun. */
    isBehind: draft !== null && view !== null && draft.revision !== view.revision,
    put,
    set: (part: Partial<InstrumentText>) => put({ ...text, ...part }),
    /** Takes the draft as made from what is stored now: saving it replaces the other change. */
    goOn: () => view && setDraft({ text, revision: view.revision }),
    discard: () => {
      clear();
      setTried(false);
    },
    save,
  };
}

/** Text and actions of the form of an instrument. */
export type InstrumentDraft = ReturnType<typeof useInstrumentForm>;
