import { useCallback, useEffect, useRef, useState } from 'react';
import { useUnsaved } from '../base/unsaved.js';
import { noteDone, notedText, noteText } from './typingNotes.js';

export interface KeptText {
  readonly text: string;
  readonly setText: (text: string) => void;
  /**
   * What was typed is saved or given up; the box goes on with this text.
   *
   * @param sent what was sent, where its answer took a while: something else that was typed meanwhile stays, and is not saved yet
   */
  readonly settled: (text: string, sent?: string) => void;
  /** True if the text comes from an earlier visit that ended before it was saved, and nobody has touched it since. */
  readonly isLeftOver: boolean;
  /** What was saved there by somebody else, or in another window, since typing began here; null while nothing else was. */
  readonly clash: string | null;
  /** Goes on with what is typed here, over what was saved meanwhile. */
  readonly keepMine: () => void;
}

/** Names a box by ids and field names, never by what stands beside it: two boxes of one label are two boxes. */
export interface KeptPlace {
  /** Id of the engine, the engine type or the kind of half that it belongs to; `drawer` or `bench` for what is of none. */
  readonly of: string;
  /** The part of it: a station, a feature, a half by its id, or a group of fields. */
  readonly part: string;
  readonly field: string;
}

/** Where on this device the text of a box is kept. */
export function keptKey({ of, part, field }: KeptPlace): string {
  return ['fettle.typing', of, part, field].map(encodeURIComponent).join('/');
}

/**
 * The text of a box from the first key to the moment it is saved, kept on this device: a reload, a closed tab or text that
 * cannot be saved as it is does not lose it.
 *
 * @param place which box it is
 * @param stored what is saved; shown while nothing else is being typed
 */
export function useKeptText(place: KeptPlace, stored: string): KeptText {
  const storageKey = keptKey(place);
  const [isLeftOver, setLeftOver] = useState(() => ![null, stored].includes(notedText(storageKey)));
  const [text, show] = useState(() => notedText(storageKey) ?? stored);
  // What stood there when typing began in this window; null while nothing is typed. A change is made from that, and from nothing later.
  const [began, setBegan] = useState<string | null>(null);
  const now = useRef({ storageKey, stored, began, text });
  const isOther = now.current.storageKey !== storageKey;
  if (isOther) {
    now.current = { storageKey, stored, began: null, text: notedText(storageKey) ?? stored };
    setBegan(null);
  } else now.current = { ...now.current, stored };
  // Another place of the same box has a text of its own.
  useEffect(() => {
    const { began: from, text: typed } = now.current;
    if (from === null) {
      const shown = notedText(storageKey) ?? stored;
      now.current.text = shown;
      show(shown);
      return;
    }
    // Another window has done with its own typing in this box: what is typed here is noted on.
    if (notedText(storageKey) === null) noteText(storageKey, typed);
  }, [storageKey, stored]);
  const setText = useCallback(
    (typed: string) => {
      if (now.current.began === null) {
        now.current.began = now.current.stored;
        setBegan(now.current.stored);
      }
      now.current.text = typed;
      show(typed);
      setLeftOver(false);
      noteText(storageKey, typed);
    },
    [storageKey],
  );
  const settled = useCallback(
    (next: string, sent?: string) => {
      if (sent !== undefined && now.current.began !== null && now.current.text !== sent) {
        // Something else was typed meanwhile: it goes on from what was saved.
        now.current.began = next;
        setBegan(next);
        return;
      }
      noteDone(storageKey);
      now.current.began = null;
      now.current.text = next;
      setBegan(null);
      setLeftOver(false);
      show(next);
    },
    [storageKey],
  );
  const keepMine = useCallback(() => {
    now.current.began = now.current.stored;
    setBegan(now.current.stored);
  }, []);
  useUnsaved((began !== null || isLeftOver) && text.trim() !== stored ? 'Typed, not saved yet' : null);
  const clash = began !== null && !isOther && began !== stored && text.trim() !== stored ? stored : null;
  return { text, setText, settled, isLeftOver, clash, keepMine };
}
