import { newJob, usualLayout } from '@fettle/core';
import { describe, expect, it } from 'vitest';
import { blankEntry, type EntryText, entryOfText, lastUnit } from './entryText.js';

const stamp = { by: 'Teasel', at: '2026-03-02T09:30:00.000Z' };
const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const job = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const read = (part: Partial<EntryText>) => entryOfText({ ...blankEntry('2026-03-02', 'bar'), ...part }, job, stamp);
const faults = (part: Partial<EntryText>) => {
  const told = read(part);
  return told.ok ? [] : [...told.faults.keys()];
};

describe('a reading after the build as it is typed', () => {
  it('takes a comma or a point, and leaves out what is empty', () => {
    const told = read({
      run: '20,5',
      pressures: { idle: { value: '1.6', rpm: '800' } },
      celsius: '92',
      endPlay: '0,12',
    });
    expect(told).toMatchObject({
      ok: true,
      entry: {
        on: '2026-03-02',
        run: 20.5,
        pressures: { idle: { value: 1.6, unit: 'bar', rpm: 800 } },
        celsius: 92,
        endPlay: { nm: 120_000, text: '0,12', ...stamp },
        ...stamp,
      },
    });
  });

  it('says box by box what is wrong, and that nothing was typed', () => {
    expect(faults({})).toEqual(['all']);
    expect(faults({ words: 'no leak' })).toEqual([]);
    expect(faults({ on: '', run: '1' })).toEqual(['on']);
    expect(faults({ run: 'twenty' })).toEqual(['run']);
    expect(faults({ pressures: { idle: { value: '-1', rpm: '' } } })).toEqual(['idle value']);
    expect(faults({ pressures: { cold: { value: '', rpm: '900' } } })).toEqual(['cold value']);
    expect(faults({ celsius: '900' })).toEqual(['celsius']);
    expect(faults({ endPlay: 'wide' })).toEqual(['endPlay']);
    expect(faults({ endPlay: '-0.12' })).toEqual(['endPlay']);
  });

  it('goes on in the unit that was typed last, else in that of the country of its lengths', () => {
    expect(lastUnit(job)).toBe('bar');
    expect(lastUnit({ ...job, unit: 'in' })).toBe('psi');
    const entry = (unit: 'psi' | 'kPa', at: string) => ({
      ...{ on: '2026-03-01', run: null, celsius: null, endPlay: null, words: '', by: 'Teasel', at },
      pressures: { cold: { value: 50, unit, rpm: null } },
    });
    const entries = { one: entry('kPa', '2026-03-02T00:00:00Z'), other: entry('psi', '2026-03-01T00:00:00Z') };
    expect(lastUnit({ ...job, running: { ...job.running, entries } })).toBe('kPa');
  });
});
