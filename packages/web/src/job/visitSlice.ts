import type { Change, Reading } from '@fettle/core';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** A reading that was put at a place, and the one that stood there before; null for none. */
export interface ReadingPut {
  readonly put: Reading;
  readonly before: Reading | null;
}

/** One thing that this person did to the engine. */
export interface Step {
  /** What it changed of the document: what it put, and what stood there before. */
  readonly changes: readonly Change[];
  /** The readings that it put. */
  readonly readings?: readonly ReadingPut[];
  /** What it did, to say what undoing takes back. */
  readonly what: string;
}

/** More steps than this are not gone back. */
const MOST_STEPS = 200;

export interface Visit {
  /** The engine that is open; null while none is. */
  readonly job: string | null;
  readonly steps: readonly Step[];
  /** Whether the last undo left something as it is, because it was changed again since. */
  readonly isPartial: boolean;
}

const NOWHERE: Visit = { job: null, steps: [], isPartial: false };

declare module '../base/store.js' {
  interface RootState {
    readonly visit: Visit;
  }
}

/** What was done to the engine that is open, from when it was opened until it is left, whatever the stage. */
const visitSlice = createSlice({
  name: 'visit',
  initialState: NOWHERE,
  reducers: {
    visitBegan: (visit, { payload: job }: PayloadAction<string>) => (visit.job === job ? visit : { ...NOWHERE, job }),
    visitEnded: () => NOWHERE,
    stepTaken: (visit, { payload: { job, ...step } }: PayloadAction<Step & { job: string }>) =>
      visit.job === job ? { ...visit, isPartial: false, steps: [...visit.steps, step].slice(-MOST_STEPS) } : visit,
    /** @param payload whether something was left as it is */
    stepUndone: (visit, { payload: isPartial }: PayloadAction<boolean>) => ({
      ...visit,
      isPartial,
      steps: visit.steps.slice(0, -1),
    }),
  },
});

export const { visitBegan, visitEnded, stepTaken, stepUndone } = visitSlice.actions;
export const visitReducer = visitSlice.reducer;
