import { type Feature, type MeasuredPart, measuredParts, type Slot, suspectReadings } from '@fettle/core';
import { type RefObject, useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import { useLatest } from '../base/useLatest.js';
import { goToNext, mayTakeFocus } from '../job/nextThing.js';
import type { OpenJob } from '../job/useJob.js';
import { neighbour, nextEmpty } from './neighbour.js';
import type { BoxState, CellActs, HeldBox } from './useReadingBox.js';
import { type Place, readingAt } from './useSaveReading.js';

/** A box with what stands in it. */
export interface InHand {
  readonly place: Place;
  readonly text: string;
  readonly is: BoxState;
}

/** `full`: Enter found no empty box, and nothing else to do. `lost`: a figure was typed while no box had the focus. */
export type EntryStatus = 'typing' | 'full' | 'lost';

export interface Measuring {
  readonly slots: readonly Slot[];
  readonly parts: readonly MeasuredPart[];
  /** The box in hand, with what stands in it. */
  readonly current: InHand | null;
  readonly status: EntryStatus;
  /** Puts a figure that is kept already into the box in hand. */
  readonly give: (text: string) => void;
  /** The place of a box; the same object for as long as the boxes are the same. */
  readonly placeAt: (slot: Slot, station: number) => Place;
  /** What a box asks for; the same object for as long as the boxes are the same, so that one that did not change is not drawn anew. */
  readonly acts: CellActs;
  /** The engine as it is now, for boxes that were drawn before. */
  readonly latest: RefObject<OpenJob>;
}

/** Goes to a box; it is brought into sight with the frame that follows, for which everything is laid out anyway. */
function goTo(input: HTMLInputElement): void {
  input.focus({ preventScroll: true });
  requestAnimationFrame(() => input.scrollIntoView({ block: 'nearest', inline: 'nearest' }));
}

const keyOf = ({ slot, station }: Place) => `${slot}:${station}`;

/** Going through the boxes of a feature as they are measured. Whoever came here by "Next" starts typing in the first empty one. */
export function useMeasuring(job: OpenJob, feature: Feature): Measuring {
  const { document, readings } = job;
  const { measuring } = document;
  const slots = measuring.slots[feature];
  const parts = useMemo(() => measuredParts(document, readings, feature), [document, readings, feature]);
  const boxes = useRef(new Map<string, HeldBox>());
  const [current, setCurrent] = useState<InHand | null>(null);
  const [status, setStatus] = useState<EntryStatus>('typing');
  const location = useLocation();
  const firstEmpty = useLatest(() => {
    // What is to be looked at again comes before what is empty.
    const [suspect] = suspectReadings(document, readings).filter((one) => one.feature === feature);
    if (suspect) return { feature, station: suspect.station, slot: suspect.slot };
    return slots
      .flatMap((slot) => parts.map(({ number }): Place => ({ feature, station: number, slot })))
      .find((place) => readingAt(readings, place)?.nm == null);
  });
  // The focus moves before the page is shown: a key pressed as soon as the page is seen goes to this box.
  useLayoutEffect(() => {
    const isSent = (location.state as { toNext?: boolean } | null)?.toNext;
    const place = isSent && mayTakeFocus(location.key) && firstEmpty.current();
    if (place) boxes.current.get(keyOf(place))?.input.focus();
  }, [location, firstEmpty]);
  // A figure that is typed while no box has the focus, from a keypad or a gauge, is lost: that is said.
  useEffect(() => {
    const onKey = ({ key, target, ctrlKey, metaKey, altKey }: KeyboardEvent) => {
      if (ctrlKey || metaKey || altKey || !/^[\d.,+−-]$/u.test(key)) return;
      const isTaken =
        target instanceof HTMLElement &&
        target.closest('input, textarea, select, [contenteditable], [role]:not([role="button"])') !== null;
      if (!isTaken) setStatus('lost');
    };
    window.document.addEventListener('keydown', onKey);
    return () => window.document.removeEventListener('keydown', onKey);
  }, []);
  const latest = useLatest(job);
  const count = parts.length;
  const { order } = measuring;
  const places = useMemo(
    () =>
      new Map(
        slots.flatMap((slot) =>
          Array.from({ length: count }, (_, at): [string, Place] => {
            const place = { feature, station: at + 1, slot };
            return [keyOf(place), place];
          }),
        ),
      ),
    [feature, slots, count],
  );
  const acts = useMemo(
    (): CellActs => ({
      step: (place, where) => {
        // Enter goes to the next empty box: a filled one is gone to by an arrow, never by a figure that is typed over it.
        const isEmpty = (at: Place) => boxes.current.get(keyOf(at))?.input.value.trim() === '';
        const target =
          where === 'next'
            ? nextEmpty(place, slots, count, order, isEmpty)
            : neighbour(place, where, slots, count, order);
        const box = target ? boxes.current.get(keyOf(target)) : undefined;
        setStatus('typing');
        if (box) {
          goTo(box.input);
          return;
        }
        if (where !== 'next') return;
        // After the last one Enter leads on to the next thing to do; where there is none it types nowhere.
        boxes.current.get(keyOf(place))?.input.blur();
        if (!goToNext()) setStatus('full');
      },
      hold: (place, box) => {
        if (box) boxes.current.set(keyOf(place), box);
        else boxes.current.delete(keyOf(place));
      },
      typing: (place, text, is) => {
        setCurrent({ place, text, is });
        if (is === 'typed') setStatus('typing');
      },
    }),
    [slots, count, order],
  );
  const placeAt = useCallback(
    (slot: Slot, station: number) => places.get(keyOf({ feature, station, slot }))!,
    [places, feature],
  );
  return {
    slots,
    parts,
    current,
    status,
    give: (text) => {
      if (!current) return;
      boxes.current.get(keyOf(current.place))?.give(text);
      setCurrent({ ...current, text, is: 'kept' });
    },
    placeAt,
    acts,
    latest,
  };
}
