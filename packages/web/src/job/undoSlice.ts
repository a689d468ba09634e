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

/** Maximum steps that can be undone. */
const MOST_STEPS = 200;

/** The engine that is open, with what can be undone in it. */
export interface UndoState {
  /** The engine that is open; null while none is. */
  readonly job: string | null;
  readonly steps: readonly Step[];
  /** True if the last undo left something as it is, because it was changed again since. */
  readonly isPartial: boolean;
}

const NOWHERE: UndoState = { job: null, steps: [], isPartial: false };

declare module '../base/store.js' {
  interface RootState {
    readonly undo: UndoState;
  }
}

/** What was done to the engine that is open, from when it was opened until it is left, whatever the stage. */
const undoSlice = createSlice({
  name: 'undo',
  initialState: NOWHERE,
  reducers: {
    engineOpened: (state, { payload: job }: PayloadAction<string>) => (state.job === job ? state : { ...NOWHERE, job }),
    engineLeft: () => NOWHERE,
    stepTaken: (state, { payload: { job, ...step } }: PayloadAction<Step & { job: string }>) =>
      state.job === job ? { ...state, isPartial: false, steps: [...state.steps, step].slice(-MOST_STEPS) } : state,
    /** @param payload whether something was left as it is */
    stepUndone: (state, { payload: isPartial }: PayloadAction<boolean>) => ({
      ...state,
      isPartial,
      steps: state.steps.slice(0, -1),
    }),
  },
});

export const { engineOpened, engineLeft, stepTaken, stepUndone } = undoSlice.actions;
export const undoReducer = undoSlice.reducer;
