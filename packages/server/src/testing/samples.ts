import { type CrankLayout, type JobDocument, nanometres, newJob, usualLayout } from '@fettle/core';

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

/** An engine that may take so many kinds of halves: the largest documents there are. */
export function engineOfMany(kinds: number, name?: string): JobDocument {
  const shells = Array.from({ length: kinds }, (_, at): [string, JobDocument['shells'][string]] => [
    `half ${at}`,
    {
      family: 'main',
      series: 'A',
      grade: `${at}`,
      half: 'either',
      wall: nanometres(2_000_000 + at),
      stock: 6,
      line: null,
    },
  ]);
  return { ...startedEngine(name), shells: Object.fromEntries(shells) };
}
