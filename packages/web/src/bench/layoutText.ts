import type { CrankLayout } from '@fettle/core';
import { usualLayout } from '@fettle/core';

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
  if (mains === null || mains < 1 || mains > 12) faults.mains = 'A whole number from 1 to 12.';
  if (rods === null || rods < 1 || rods > 24) faults.rods = 'A whole number from 1 to 24.';
  if (text.thrustMain.trim() !== '' && (thrust === null || thrust < 1 || (mains !== null && thrust > mains))) {
    faults.thrustMain = `A main from 1 to ${mains ?? 12}, or empty.`;
  }
  if (mains === null || rods === null || Object.keys(faults).length > 0) return { layout: null, faults };
  const usual = usualLayout(mains, rods, text.rodsPerPin === '2' ? 2 : 1, thrust);
  return usual.ok ? { layout: usual.layout, faults } : { layout: null, faults: { rods: `${usual.message}.` } };
}
