import { type Feature, type InstrumentUse, type JobDocument, parseLength, type Slot, type Unit } from '@fettle/core';

/** A row of readings of one place, front main first; empty where nothing was read yet. */
export interface DemoReadings {
  readonly feature: Feature;
  readonly slot: Slot;
  readonly by: string;
  readonly texts: readonly string[];
}

export interface DemoEngine {
  readonly id: string;
  readonly by: string;
  readonly document: JobDocument;
  readonly readings: readonly DemoReadings[];
  /** What it is read with, by id in the register; left out: its own instruments. */
  readonly instruments?: Readonly<Partial<Record<InstrumentUse, string>>>;
}

/** A length as it was typed. */
export function size(text: string, unit: Unit) {
  const parsed = parseLength(text, { unit, signed: 'sign' });
  if (!parsed.ok) throw new Error(`demo: ${parsed.message}`);
  return parsed.nm;
}

/** When the demo engines were started, and when two of them were tried. */
export const STARTED = '2026-01-12T09:30:00.000Z';
export const TRIED = '2026-01-12T11:10:00.000Z';
