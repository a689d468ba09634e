import { describe, expect, it } from 'vitest';
import { jobFacts } from '../job/jobFacts.js';
import { newJob } from '../job/newJob.js';
import { SLICES } from '../job/slices.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import { crushAdvice } from './crushAdvice.js';
import { crushRead, sideOpening } from './crushRead.js';
import { BLANK_JOINT, type Crush, type Joint } from './crushSchema.js';
import { jointAim, jointLimits, jointPlaces } from './crushSlice.js';

const um = (value: number) => nanometres(value * 1000);
const limits = { low: um(75), high: um(150), source: 'Burr book, p. 9' };

function joint(go: number, noGo: number, shim: number | null = 300): Joint {
  const side = { go: um(go), noGo: um(noGo), shim: shim === null ? null : um(shim) };
  return { ...BLANK_JOINT, left: side, right: side };
}

// Common practice: the joint opens at both faces of its shim, and the crush is what both faces say together.
describe('feelers at both faces of a joint shim', () => {
  it('add up; one face is enough where the shim was pressed to the other; half of one is no reading', () => {
    const side = { go: um(40), noGo: um(50), shim: um(300) };
    expect(sideOpening(side, 'split-line')).toEqual({ go: um(40), noGo: um(50) });
    expect(sideOpening({ ...side, otherGo: um(60), otherNoGo: um(70) }, 'split-line')).toEqual({
      go: um(100),
      noGo: um(120),
    });
    expect(sideOpening({ ...side, otherGo: um(60), otherNoGo: null }, 'split-line')).toBeNull();
    expect(sideOpening({ ...side, noGo: null, otherGo: um(60), otherNoGo: um(70) }, 'split-line')).toBeNull();
    const both = {
      ...BLANK_JOINT,
      left: { ...side, otherGo: um(60), otherNoGo: um(70) },
      right: joint(100, 110).right,
    };
    expect(crushRead(both, 'split-line')?.shared).toEqual({ low: um(100), high: um(110) });
    // A joint that has shims no more has one face: what was read at the other is kept, and counts no longer.
    expect(sideOpening(both.left, 'plain')).toEqual({ go: um(40), noGo: um(50) });
  });
});

describe('what to do about a crush outside its limits', () => {
  it('too much: off the shims, half from each, in passes that end at the target', () => {
    const advice = crushAdvice(joint(160, 170), 'split-line', limits, um(100), 'mm');
    if (advice?.kind !== 'dress') throw new Error(JSON.stringify(advice));
    // By hand: the middle, 165, less 100 is 65 in all.
    expect(advice.total).toBe(um(65));
    expect(advice.passes.at(-1)?.expected).toBe(um(100));
    expect(advice.passes.reduce((sum, { perSide }) => sum + 2 * perSide, 0)).toBe(um(65));
    const read = [um(165), ...advice.passes.map(({ expected }) => expected)];
    expect(read).toEqual([...read].sort((one, other) => other - one));
  });

  it('too much for the shims there are: other shells', () => {
    expect(crushAdvice(joint(160, 170, 30), 'split-line', limits, um(100), 'mm')).toEqual({
      kind: 'beyond-shims',
      total: um(65),
    });
  });

  it('too little: thicker shims; plain shells: never a file unasked', () => {
    expect(crushAdvice(joint(40, 50), 'split-line', limits, um(100), 'mm')).toEqual({ kind: 'thicker', total: um(55) });
    const plain = (go: number, noGo: number) => crushAdvice(joint(go, noGo, null), 'plain', limits, null, 'mm');
    expect(plain(160, 170)).toEqual({ kind: 'shells', way: 'too-much', total: um(52.5) });
    expect(plain(40, 50)).toEqual({ kind: 'shells', way: 'too-little', total: um(67.5) });
    expect(plain(100, 110)).toBeNull();
    expect(crushAdvice(BLANK_JOINT, 'plain', limits, null, 'mm')).toBeNull();
  });
});

describe('the joints that are read', () => {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const base = newJob('Burr 2', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' }, true);
  const clearance = { low: um(50), high: um(100), source: 'Burr book, p. 3' };
  const job = (crush: Partial<Crush>, withRods = true) => ({
    ...base,
    withRods,
    limits: { ...base.limits, crush: limits, rodClearance: clearance },
    crush: { ...base.crush, ...crush },
  });

  it('are those of the mains, and of the big ends where the rods are fitted', () => {
    const names = (crush: Partial<Crush>, withRods = true) =>
      jointPlaces(job(crush, withRods)).map(({ station, kind }) => `${station} ${kind}`);
    expect(names({})).toEqual([]);
    expect(names({ kind: 'plain' })).toEqual(['M1 plain', 'M2 plain', 'M3 plain']);
    expect(names({ bigEnds: 'saddle' })).toEqual(['R1 saddle', 'R2 saddle']);
    expect(names({ bigEnds: 'saddle' }, false)).toEqual([]);
  });

  it('white-metal big ends are judged by the clearance of the rods, to the middle of its limits', () => {
    const saddle = job({ bigEnds: 'saddle', aim: um(110) });
    const [first] = jointPlaces(saddle);
    expect(jointLimits(saddle, first!)).toEqual(clearance);
    expect(jointAim(saddle, first!)).toBeNull();
    // A clearance aimed at in the mains says nothing of the crush of the rods.
    const mixed = job({ kind: 'saddle', bigEnds: 'plain', aim: um(80) });
    const places = jointPlaces(mixed);
    expect(jointAim(mixed, places[0]!)).toBe(um(80));
    expect(jointAim(mixed, places.at(-1)!)).toBeNull();
  });

  it('stand on the sheet: crush of plain shells without columns of shims, big ends in a table of their own', () => {
    const read = job({
      kind: 'plain',
      bigEnds: 'saddle',
      joints: { M1: joint(100, 110, null), R1: { ...BLANK_JOINT, clearance: um(75) } },
    });
    const tables = SLICES.find(({ key }) => key === 'crush')!.sheet!(jobFacts(read, []));
    expect(tables).toMatchObject([
      { title: 'Crush of the shells', rows: [{ key: 'M1' }] },
      { title: 'Shims under the caps, big ends', rows: [{ key: 'R1' }] },
    ]);
    expect('head' in tables[0]! && tables[0].head.map(({ text }) => text)).toEqual([
      'Joint',
      'Crush, left',
      'Crush, right',
      'Verdict',
      'Read again on',
    ]);
  });
});
