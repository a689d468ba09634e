import { type Feature, type MeasuredPart, measuredParts, type Slot } from '@fettle/core';
import { type RefObject, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import { useLatest } from '../app/useLatest.js';
import { goToNext } from '../job/nextThing.js';
import type { OpenJob } from '../job/useJob.js';
import { neighbour } from './neighbour.js';
import type { BoxState, CellActs, HeldBox } from './ReadingCell.js';
import { type Place, readingAt } from './useSaveReading.js';

/** A box with what stands in it. */
export interface InHand {
  readonly place: Place;
  readonly text: string;
  readonly is: BoxState;
}

export interface Measuring {
  readonly slots: readonly Slot[];
  readonly parts: readonly MeasuredPart[];
  /** The box in hand, with what stands in it. */
  readonly current: InHand | null;
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
  const location = useLocation();
  const firstEmpty = useLatest(() =>
    slots
      .flatMap((slot) => parts.map(({ number }): Place => ({ feature, station: number, slot })))
      .find((place) => readingAt(readings, place)?.nm == null),
  );
  useEffect(() => {
    const isSent = (location.state as { toNext?: boolean } | null)?.toNext;
    const place = isSent && firstEmpty.current();
    if (place) boxes.current.get(keyOf(place))?.input.focus();
  }, [location, firstEmpty]);
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
        const target = neighbour(place, where, slots, count, order);
        const box = target ? boxes.current.get(keyOf(target)) : undefined;
        if (box) goTo(box.input);
        // After the last one Enter leads on to the next thing to do.
        else if (where === 'next' && !goToNext()) boxes.current.get(keyOf(place))?.input.blur();
      },
      hold: (place, box) => {
        if (box) boxes.current.set(keyOf(place), box);
        else boxes.current.delete(keyOf(place));
      },
      typing: (place, text, is) => setCurrent({ place, text, is }),
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
