import { describe, expect, it } from 'vitest';
import type { JobDocument } from '../job/jobDocument.js';
import { newJob } from '../job/newJob.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import type { Reading } from '../part/reading.js';
import type { JobShell } from '../shell/jobShell.js';
import { mainStations } from '../station/jobStations.js';
import { lockedOff } from './lockedOff.js';

const um = (value: number) => nanometres(Math.round(value * 1000));
const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const shell = (grade: string, wall: number): JobShell => ({
  family: 'main',
  series: 'Osier',
  grade,
  half: 'either',
  wall: um(wall),
  stock: 6,
  line: null,
});
const blank = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const limit = (low: number, high: number) => ({ low: um(low), high: um(high), source: 'Rush book, p. 9' });
const four = { shell: 'four', label: '4 Osier', wall: um(1_998) };
const locked: JobDocument = {
  ...blank,
  limits: {
    ...blank.limits,
    mainBore: limit(64_000, 64_019),
    mainJournal: limit(59_976, 59_994),
    mainClearance: limit(20, 50),
  },
  measuring: { ...blank.measuring, slots: { ...blank.measuring.slots, mainBore: ['front'], mainJournal: ['front-0'] } },
  shells: { four: shell('4', 1_998), five: shell('5', 2_001) },
  wishes: { M2: { upper: 'four', lower: 'four', noShells: [], unmixed: false } },
};
const pair = { upper: four, lower: four, predicted: um(41), rod: null };

function readings(bore: number): Reading[] {
  const at = '2026-07-01T08:00:00.000Z';
  const one = (feature: Reading['feature'], slot: Reading['slot'], size: number): Reading => ({
    id: `00000000-0000-4000-8000-00000000000${feature === 'mainBore' ? 1 : 2}`,
    feature,
    station: 2,
    slot,
    text: (size / 1000).toFixed(3),
    unit: 'mm',
    setting: null,
    replaces: null,
    nm: um(size),
    by: 'Wren',
    at,
  });
  return [one('mainBore', 'front', bore), one('mainJournal', 'front-0', 59_976)];
}

const found = (job: JobDocument, bore: number, halves = { M2: pair }) =>
  lockedOff(job, mainStations(job, readings(bore)), halves, null);

describe('shells that are locked though others would be nearer', () => {
  it('are told with both distances, by hand', () => {
    // 64 013 − 59 976 = 4 037 over both walls: two 4 leave 41 µm, 6 off the middle of 20 to 50; two 5 leave 35, on target.
    expect(found(locked, 64_013)).toEqual([{ station: 'M2', locked: '4', nearer: '5', off: um(6), offNearer: um(0) }]);
  });

  it('are told with a pair of one wall where a mixed one is as near', () => {
    const shells = { ...locked.shells, three: shell('3', 1_998), six: shell('6', 2_004), five: shell('5', 2_001) };
    // Two 5, and 3 over 6, both leave 35 µm.
    expect(found({ ...locked, shells }, 64_013)).toMatchObject([{ nearer: '5' }]);
  });

  it('are left alone where they are as near, where nothing is locked, and where what is nearer was ruled out or is not there', () => {
    // 4 031: two 4 leave 35, on target.
    expect(found(locked, 64_007)).toEqual([]);
    expect(found({ ...locked, wishes: {} }, 64_013)).toEqual([]);
    const { M2 } = locked.wishes;
    expect(found({ ...locked, wishes: { M2: { ...M2!, noShells: ['five'] } } }, 64_013)).toEqual([]);
    const shells = { ...locked.shells, five: { ...locked.shells.five!, stock: 0 } };
    expect(found({ ...locked, shells }, 64_013)).toEqual([]);
  });

  it('are left alone where the selection leaves no pair of the others over, of its own or of the workshop', () => {
    const five = { shell: 'five', label: '5 Osier', wall: um(2_001) };
    const halves = { M2: pair, M1: { ...pair, upper: five, lower: five } };
    const counted = (more: object) => ({
      ...locked,
      rules: { ...locked.rules, mixedHalves: false },
      shells: { ...locked.shells, five: { ...locked.shells.five!, ...more } },
    });
    const at = (job: JobDocument, free: ReadonlyMap<string, number> | null) =>
      lockedOff(job, mainStations(job, readings(64_013)), halves, free).length;
    expect(at(counted({ stock: 3 }), null)).toBe(0);
    expect(at(counted({ stock: 4 }), null)).toBe(1);
    const line = '5ed9e400-0000-4000-8000-000000000001';
    expect(at(counted({ stock: null, line }), null)).toBe(0);
    expect(at(counted({ stock: null, line }), new Map([[line, 3]]))).toBe(0);
    expect(at(counted({ stock: null, line }), new Map([[line, 4]]))).toBe(1);
  });

  it('are left alone where the others would leave the limits, or the size is only marked', () => {
    const narrow = { ...locked, limits: { ...locked.limits, mainClearance: limit(38, 50) } };
    expect(found(narrow, 64_013)).toEqual([]);
    expect(lockedOff(locked, mainStations(locked, []), { M2: pair }, null)).toEqual([]);
  });
});
