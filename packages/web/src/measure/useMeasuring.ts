import { type Feature, type MeasuredPart, measuredParts, type Slot } from '@fettle/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import type { OpenJob } from '../job/useJob.js';
import { neighbour } from './neighbour.js';
import type { Step } from './ReadingCell.js';
import { type Place, readingAt } from './useSaveReading.js';

export interface Measuring {
  readonly slots: readonly Slot[];
  readonly parts: readonly MeasuredPart[];
  /** The box in hand, with what stands in it. */
  readonly current: { readonly place: Place; readonly text: string } | null;
  readonly setCurrent: (current: { place: Place; text: string } | null) => void;
  /** Goes from a box to its neighbour. */
  readonly step: (place: Place, where: Step) => void;
  /** Keeps hold of a box, so that it can be gone to. */
  readonly hold: (place: Place, input: HTMLInputElement | null) => void;
}

const keyOf = ({ slot, station }: Place) => `${slot}:${station}`;

/** Going through the boxes of a feature as they are measured. Whoever came here by "Next" starts typing in the first empty one. */
export function useMeasuring(job: OpenJob, feature: Feature): Measuring {
  const { document, readings } = job;
  const { measuring } = document;
  const slots = measuring.slots[feature];
  const parts = useMemo(() => measuredParts(document, readings, feature), [document, readings, feature]);
  const inputs = useRef(new Map<string, HTMLInputElement>());
  const [current, setCurrent] = useState<{ place: Place; text: string } | null>(null);
  const location = useLocation();
  const firstEmpty = useRef<Place | null>(null);
  firstEmpty.current =
    slots
      .flatMap((slot) => parts.map(({ number }): Place => ({ feature, station: number, slot })))
      .find((place) => readingAt(readings, place)?.nm == null) ?? null;
  useEffect(() => {
    const isSent = (location.state as { toNext?: boolean } | null)?.toNext;
    if (isSent && firstEmpty.current) inputs.current.get(keyOf(firstEmpty.current))?.focus();
  }, [location]);
  return {
    slots,
    parts,
    current,
    setCurrent,
    step: (place, where) => {
      const target = neighbour(place, where, slots, parts.length, measuring.order);
      const input = target ? inputs.current.get(keyOf(target)) : undefined;
      if (input) input.focus();
      else if (where === 'next') inputs.current.get(keyOf(place))?.blur();
    },
    hold: (place, input) => {
      if (input) inputs.current.set(keyOf(place), input);
      else inputs.current.delete(keyOf(place));
    },
  };
}
