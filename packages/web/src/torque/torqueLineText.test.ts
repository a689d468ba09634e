import { type Tightening, type Torque, torqueSchema } from '@fettle/core';
import { describe, expect, it } from 'vitest';
import { BLANK_TORQUE_LINE, isBlankTorque, readTorqueLine, textOfTorque } from './torqueLineText.js';

const SCHOOLS: readonly Tightening[] = [
  { school: 'stages', unit: 'ft-lb', final: 70, stages: 3 },
  { school: 'angle', unit: 'Nm', final: 50, stages: 2, angles: [60, 45] },
  { school: 'snug', unit: 'Nm', snug: 10, final: 62.5, stages: 2 },
  { school: 'stretch', unit: 'in-lb', snug: null, low: 139_700 as never, high: 152_400 as never },
  { school: 'stretch', unit: 'Nm', snug: 20, low: 139_700 as never, high: 152_400 as never },
];

const torque = (tightening: Tightening | null): Torque =>
  torqueSchema.parse({
    fastener: 'Main caps',
    steps: 'as given',
    place: 'main-inner',
    perCap: 2,
    tightening,
    lubricant: 'engine oil',
    source: 'book, p. 4',
  });

describe('a line of fasteners as text', () => {
  it.each([...SCHOOLS, null])('comes back as it was: %o', (tightening) => {
    for (const unit of ['mm', 'in'] as const) {
      expect(readTorqueLine(textOfTorque(torque(tightening), unit), unit)).toEqual({
        torque: torque(tightening),
        faults: {},
      });
    }
  });

  it('makes its words from its figures where none are typed', () => {
    const line = { ...textOfTorque(torque(SCHOOLS[1]!), 'mm'), steps: '' };
    expect(readTorqueLine(line, 'mm').torque?.steps).toBe('25 · 50 N·m, then 60°, then 45°');
    const comma = { ...line, final: '50,5', angles: '60° + 45°' };
    expect(readTorqueLine(comma, 'mm').torque?.tightening).toMatchObject({ final: 50.5, angles: [60, 45] });
  });

  it('takes unequal stages as the torque of each, the last one the final torque', () => {
    const line = { ...textOfTorque(torque(SCHOOLS[1]!), 'mm'), steps: '', final: '', stages: '30, 55', angles: '60' };
    const read = readTorqueLine(line, 'mm');
    expect(read.faults).toEqual({});
    expect(read.torque).toMatchObject({
      steps: '30 · 55 N·m, then 60°',
      tightening: { final: 55, stages: 2, unequal: [30, 55], angles: [60] },
    });
    // It comes back as it was typed.
    expect(textOfTorque(read.torque!, 'mm')).toMatchObject({ final: '55', stages: '30, 55' });
    expect(readTorqueLine({ ...line, stages: '55, 30' }, 'mm').faults).toEqual({
      stages: 'Each stage higher than the one before, such as 30, 55.',
    });
    expect(readTorqueLine({ ...line, final: '60' }, 'mm').faults.stages).toContain('The last stage is 55');
  });

  it('says what of it cannot be read, box by box', () => {
    const faults = (part: Partial<typeof BLANK_TORQUE_LINE>) =>
      Object.keys(readTorqueLine({ ...textOfTorque(torque(SCHOOLS[0]!), 'mm'), ...part }, 'mm').faults);
    expect(faults({ final: 'seventy' })).toEqual(['final']);
    expect(faults({ stages: '2.5' })).toEqual(['stages']);
    expect(faults({ perCap: '9' })).toEqual(['perCap']);
    expect(faults({ source: ' ' })).toEqual(['source']);
    expect(faults({ school: 'angle', angles: 'sixty' })).toEqual(['angles']);
    expect(faults({ school: 'snug', snug: '' })).toEqual(['snug']);
    expect(faults({ school: 'stretch', low: '0.2', high: '0.1' })).toEqual(['low']);
    expect(faults({ school: '', steps: '' })).toEqual(['steps']);
  });

  it('does not count while nothing is typed', () => {
    expect(isBlankTorque(BLANK_TORQUE_LINE)).toBe(true);
    expect(isBlankTorque({ ...BLANK_TORQUE_LINE, final: '5' })).toBe(false);
  });
});
