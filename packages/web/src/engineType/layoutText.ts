import type { CrankLayout } from '@fettle/core';
import { MAINS_RANGE, MOST_RODS, usualLayout } from '@fettle/core';

/** The layout of a shaft as it is typed. */
export interface LayoutText {
  readonly mains: string;
  readonly rods: string;
  readonly rodsPerPin: '1' | '2';
  readonly thrustMain: string;
}

function wholeNumber(text: string): number | null {
  return /^\d{1,2}$/u.test(text.trim()) ? Number(text) : null;
}

/** Reads a layout with the throws that are usual for it, or says what is wrong in which box. */
export function layoutOfText(text: LayoutText): {
  layout: CrankLayout | null;
  faults: { mains?: string; rods?: string; thrustMain?: string };
} {
  const mains = wholeNumber(text.mains);
  const rods = wholeNumber(text.rods);
  const thrust = text.thrustMain.trim() === '' ? null : wholeNumber(text.thrustMain);
  const faults: { mains?: string; rods?: string; thrustMain?: string } = {};
  if (mains === null || mains < MAINS_RANGE.fewest || mains > MAINS_RANGE.most) {
    faults.mains = `Enter a whole number from ${MAINS_RANGE.fewest} to ${MAINS_RANGE.most}.`;
  }
  if (rods === null || rods < 1 || rods > MOST_RODS) faults.rods = `Enter a whole number from 1 to ${MOST_RODS}.`;
  if (text.thrustMain.trim() !== '' && (thrust === null || thrust < 1 || (mains !== null && thrust > mains))) {
    faults.thrustMain = `A main from 1 to ${mains ?? MAINS_RANGE.most}, or empty.`;
  }
  if (mains === null || rods === null || Object.keys(faults).length > 0) return { layout: null, faults };
  const usual = usualLayout(mains, rods, text.rodsPerPin === '2' ? 2 : 1, thrust);
  return usual.ok ? { layout: usual.layout, faults } : { layout: null, faults: { rods: `${usual.message}.` } };
}
