import { changesBetween, type JobShell, type Json, nanometres, newJob, usualLayout } from '@fettle/core';
import { describe, expect, it } from 'vitest';
import { withoutStep } from './withoutStep.js';

const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const job = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const half: JobShell = {
  family: 'main',
  series: 'A',
  grade: 'teal',
  half: 'upper',
  wall: nanometres(1_995_000),
  stock: 2,
  line: null,
};
const before = { ...job, shells: { a: half } };
const changes = (after: typeof before) => changesBetween(before as unknown as Json, after as unknown as Json);

describe('taking a step back', () => {
  it('leaves what others have changed since, in the same list too', () => {
    const step = changes({ ...before, shells: { a: { ...half, stock: 5 } } });
    const now = { ...before, name: 'Rush Twin 3', shells: { a: { ...half, stock: 5 }, b: half } };
    expect(withoutStep(now, step)).toEqual({ document: { ...now, shells: { a: half, b: half } }, isPartial: false });
  });

  it('leaves a place that somebody has changed again, or taken away, and says so', () => {
    const step = changes({ ...before, shells: { a: { ...half, stock: 5 } } });
    const counted = { ...before, shells: { a: { ...half, stock: 4 } } };
    expect(withoutStep(counted, step)).toEqual({ document: counted, isPartial: true });
    const gone = { ...before, shells: {} };
    expect(withoutStep(gone, step)).toEqual({ document: gone, isPartial: true });
  });
});
