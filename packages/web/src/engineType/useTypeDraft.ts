import { newEngineType, usualLayout } from '@fettle/core';
import { useMemo, useState } from 'react';
import { useUnsaved } from '../base/unsaved.js';
import { usePast } from '../limits/usePast.js';
import { useBy } from '../person/useBy.js';
import { useDraft } from '../typing/useDraft.js';
import { api } from '../wire/api.js';
import { isAskFault, refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import { readType } from './readType.js';
import { completed, type TypeText, textOfType } from './typeText.js';
import type { OpenType } from './useOpenType.js';

/** What is being typed, and the revision that it was typed on; 0 for a new type. */
interface Draft {
  readonly base: number;
  readonly text: TypeText;
}

/** What a new sheet starts from: the most usual layout, to be typed over. */
function blankText(): TypeText {
  const usual = usualLayout(5, 4, 1, 3);
  if (!usual.ok) throw new Error(usual.message);
  return { ...textOfType(newEngineType('?', 'mm', usual.layout)), name: '', throws: '' };
}

export interface TypeDraft {
  /** The type with what is typed of it; null while it has not come, or where there is none. */
  readonly open: OpenType | null;
  /** True once it is known whether there is such a type. */
  readonly isLoaded: boolean;
  /** Why it cannot be read or saved; null where it can. */
  readonly fault: string | null;
  /** True if something is typed that is not saved. */
  readonly isTyped: boolean;
  /** The revision that it was typed on. */
  readonly base: number;
  /** True if somebody else has saved a later revision meanwhile: it is never overwritten unseen. */
  readonly isBehind: boolean;
  /** True if it was tried to save it: then each box says what it wants. */
  readonly isTried: boolean;
  /** Takes back the last change; null where there is none. */
  readonly undo: (() => void) | null;
  readonly save: () => void;
  /** Gives up what is typed. */
  readonly drop: () => void;
  /** Goes on with what is typed over a later revision. */
  readonly overwrite: () => void;
}

/** One engine type: typed in as from a book, kept on this device until it is saved as the next revision. */
export function useTypeDraft(id: string, isNew: boolean): TypeDraft {
  const by = useBy();
  const {
    currentData: view = null,
    error,
    isFetching,
    refetch,
  } = api.useGetTypeQuery({ id }, { refetchOnMountOrArgChange: true });
  const [saveFault, setSaveFault] = useState<string | null>(null);
  // A new type is not in the library yet: its draft is all there is.
  const isNowhere = isAskFault(error) && error.kind === 'refused' && error.problem.status === 404;
  // Asked for again, because others changed something, what is nowhere yet stays a new type: its form never goes from under the hand.
  const isLoaded = view !== null || isNowhere || !isFetching;
  const [isTried, setTried] = useState(false);
  const [draft, setDraft, clearDraft] = useDraft<Draft>(`type.${id}`);
  useUnsaved(draft === null ? null : 'Engine type not saved yet');
  const past = usePast<Draft>();
  const stored = useMemo(() => (view ? textOfType(view.type) : null), [view]);
  const blank = useMemo(blankText, []);
  const text = draft ? completed(draft.text, stored ?? blank) : (stored ?? (isLoaded && isNew ? blank : null));
  const read = useMemo(() => text && readType(text), [text]);
  const base = draft?.base ?? view?.revision ?? 0;
  const save = async () => {
    setTried(true);
    if (!read?.type || Object.keys(read.faults).length > 0) return;
    try {
      const { revision } = await tell('putType', { id, body: { revision: base, by, type: read.type } });
      await refetch();
      // What was typed while it was being saved is a change of what is saved now.
      if (draft && !clearDraft(draft)) setDraft((now) => ({ ...(now ?? draft), base: revision }));
      setTried(false);
      setSaveFault(null);
    } catch (caught) {
      if (isAskFault(caught) && caught.kind === 'refused' && caught.problem.status === 409) await refetch();
      else setSaveFault(refusalInWords(caught));
    }
  };
  const change: OpenType['change'] = (make) => {
    if (!text) return;
    past.keep({ base, text });
    setDraft({ base, text: make(text) });
  };
  return {
    open: text && read && { id, view, text, change, ...read },
    isLoaded,
    fault: saveFault ?? (error && !isNowhere ? refusalInWords(error) : null),
    isTyped: draft !== null,
    base,
    isBehind: view !== null && base < view.revision,
    isTried,
    undo: past.isEmpty
      ? null
      : () => {
          const before = past.takeBack();
          if (before) setDraft(before);
        },
    save: () => void save(),
    drop: () => {
      if (text) past.keep({ base, text }, true);
      clearDraft();
    },
    overwrite: () => text && view && setDraft({ base: view.revision, text }),
  };
}
