import { newInstrument } from '@fettle/core';
import { describe, expect, it } from 'vitest';
import { calibrationOfText } from './calibrationText.js';
import { instrumentOfText, textOfInstrument, textOfKind } from './instrumentText.js';
import { planOfText } from './studyPlanText.js';

const gauge = { ...newInstrument('boreGauge', 'mm'), number: 'BG 3', needle: 'smaller' as const };

describe('an instrument in the boxes of its form', () => {
  it('comes back as it was', () => {
    const text = textOfInstrument(gauge);
    expect(instrumentOfText(text)).toEqual({ ok: true, instrument: gauge });
  });

  it('says box by box what is missing, or cannot be', () => {
    const faults = (part: object) => {
      const read = instrumentOfText({ ...textOfInstrument(gauge), ...part });
      return read.ok ? {} : read.faults;
    };
    expect(faults({ number: ' ' })).toEqual({ number: 'Enter the number on the instrument.' });
    expect(faults({ needle: '' })).toEqual({ needle: 'Say which way the needle of the bore gauge goes.' });
    expect(faults({ low: '50' })).toEqual({ high: 'Enter both ends of the range, or neither.' });
    expect(faults({ low: '75', high: '50' })).toEqual({ high: 'The smaller end is below the larger one.' });
    expect(faults({ resolution: '' })).toEqual({ resolution: 'Needed here.' });
    expect(faults({ setting: '-0.001' })).toEqual({ setting: 'Cannot be below zero.' });
    expect(faults({ months: '0' })).toEqual({ months: 'Whole months from 1 to 120, or blank for no reminder.' });
    expect(faults({ drift: 'x' })).toHaveProperty('drift');
  });

  it('of another kind starts from what that kind usually is; its number and holder stay', () => {
    const text = textOfKind({ ...textOfInstrument(gauge), holder: 'Sorrel' }, 'outsideMicrometer', 'in');
    expect(text).toMatchObject({ number: 'BG 3', holder: 'Sorrel', needle: '', resolution: '0.0001', drift: '0.0001' });
  });
});

describe('a calibration in the boxes of its form', () => {
  const point = (at: string, error = '0', expanded = '0.002', factor = '2') => ({ at, error, expanded, factor });
  const text = { on: '2026-03-01', due: '', laboratory: '', certificate: '' };

  it('leaves out lines that are blank, and tells a fault at the line where it was typed', () => {
    const read = calibrationOfText({ ...text, points: [point('', '', ''), point('50'), point('50'), point('')] }, 'mm');
    expect(read.ok).toBe(false);
    const faults = read.ok ? null : read.faults;
    expect(faults?.points[2]).toEqual({
      at: 'Point 2 is not above point 1: enter the points from the smallest up, each once.',
    });
    expect(faults?.points[3]?.at).toBe('Needed here.');
    expect(faults?.points[0]).toBeUndefined();
  });

  it('takes a comma for a point, and asks for its day', () => {
    const good = calibrationOfText({ ...text, points: [point('50', '-0,001', '0,0015', '2,1')] }, 'mm');
    expect(good).toMatchObject({
      ok: true,
      calibration: { points: [{ at: 50_000_000, error: -1_000, expanded: 1_500, factor: 2.1 }] },
    });
    const none = calibrationOfText({ ...text, on: '', points: [] }, 'mm');
    expect(none).toMatchObject({ ok: false, faults: { boxes: { on: 'Enter the day of the calibration.' } } });
    const k = calibrationOfText({ ...text, points: [point('50', '0', '0', '9')] }, 'mm');
    expect(k).toMatchObject({ ok: false, faults: { points: { 0: { factor: 'A factor from 1 to 4, usually 2.' } } } });
  });
});

describe('a gauge study in the boxes of its form', () => {
  const text = { name: 'Bores', people: 'Wren, Teasel', parts: '10', trials: '3', tolerance: '0,019' };

  it('takes a number of parts, or their names', () => {
    expect(planOfText(text, 'mm')).toMatchObject({
      ok: true,
      plan: {
        parts: ['1', '2', '3', '4', '5', '6', '7', '8', '9', '10'],
        people: ['Wren', 'Teasel'],
        tolerance: 19_000,
      },
    });
    expect(planOfText({ ...text, parts: 'left; right' }, 'mm')).toMatchObject({ plan: { parts: ['left', 'right'] } });
  });

  it('says box by box what is missing', () => {
    const read = planOfText({ name: '', people: 'Wren', parts: '1', trials: 'x', tolerance: '-1' }, 'mm');
    expect(read.ok ? {} : read.faults).toEqual({
      name: 'Enter the subject.',
      people: 'Two people at least.',
      parts: 'Two parts at least.',
      trials: 'From 2 to 10 readings of each part.',
      tolerance: 'Is above zero.',
    });
  });
});
