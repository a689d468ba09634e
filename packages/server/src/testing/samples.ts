import { type CrankLayout, type JobDocument, newJob, usualLayout } from '@fettle/core';

/** Three mains and two pins, as of a *Rush Twin*. */
export const LAYOUT: CrankLayout = (() => {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  return usual.layout;
})();

/** An engine as it is when it was just started. */
export function startedEngine(name = 'Rush Twin'): JobDocument {
  return newJob(name, 'mm', LAYOUT, { block: 'iron', caps: 'iron', rods: 'steel' });
}

/** A reading of the first main's bore, as a page sends it; without who typed it where the account says that. */
export const READING = {
  feature: 'mainBore',
  station: 1,
  slot: 'front',
  text: '64.01',
  unit: 'mm',
  setting: null,
  replaces: null,
  at: '2026-01-02T03:04:05.000Z',
} as const;
