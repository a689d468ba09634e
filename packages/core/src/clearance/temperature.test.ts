import { describe, expect, it } from 'vitest';
import { nanometres } from '../measure/nanometres.js';
import { mattersAt, soakAdvice } from './soak.js';
import { clearanceChange, sizeAt20, type WarmStation } from './temperature.js';

const steel = (celsius: number) => ({ alpha: 11.5, celsius });
const inches = (value: number) => nanometres(Math.round(value * 25_400_000));

describe('sizes at 20 °C (ISO 1)', () => {
  // Check values T02-02, T02-04 and T02-05: from memory, verified by computation there.
  it('are smaller than what was read on a warm part, unless the instrument was as warm', () => {
    expect(sizeAt20(inches(2.45), steel(35), steel(20)) / 25_400_000).toBeCloseTo(2.4495774, 7);
    expect(sizeAt20(inches(2.45), steel(35), steel(35))).toBe(inches(2.45));
    expect(sizeAt20(nanometres(64_000_000), { alpha: 21.5, celsius: 35 }, steel(35)) / 1e6).toBeCloseTo(63.9904, 4);
    expect(sizeAt20(nanometres(64_000_000), { alpha: 21.5, celsius: 20 }, steel(20))).toBe(64_000_000);
  });
});

describe('running clearance', () => {
  const warm: WarmStation = {
    bore: 64e6,
    wall: 1.9725e6,
    journal: 60e6,
    block: 21.5,
    cap: 21.5,
    shell: 11.5,
    shaft: 11.5,
    housingC: 100,
    shellC: 100,
    journalC: 100,
  };

  // Check values T02-07, T02-10, T02-11: constructed, verified by computation there.
  it('opens in an aluminium block by what the housing grows more than what is in it', () => {
    expect(clearanceChange(warm) / 1e6).toBeCloseTo(0.0512506, 6);
    expect(clearanceChange({ ...warm, cap: 10.5 }) / 1e6).toBeCloseTo(0.0230906, 6);
    expect(clearanceChange({ ...warm, housingC: 90, journalC: 110 }) / 1e6).toBeCloseTo(0.0305906, 6);
  });

  it('stays nearly as it is in iron, and closes in the cold', () => {
    const iron = { ...warm, block: 10.5, cap: 10.5 };
    expect(Math.abs(clearanceChange(iron))).toBeLessThan(6_000);
    expect(clearanceChange({ ...warm, housingC: 0, shellC: 0, journalC: 0 })).toBeLessThan(0);
  });
});

describe('how long a part is left to soak', () => {
  it('is told by two temperatures of it, as step by step cooling does', () => {
    // Newton's law, one second at a time, with a time constant of 50 minutes.
    const tau = 50;
    let celsius = 60;
    const at: number[] = [];
    for (let second = 0; second <= 400 * 60; second += 1) {
      if (second % 60 === 0) at.push(celsius);
      celsius += ((20 - celsius) / (tau * 60)) * 1;
    }
    const advice = soakAdvice({ before: at[0]!, now: at[30]!, minutes: 30, around: 20 }, 0.7);
    expect(advice.kind).toBe('wait');
    if (advice.kind !== 'wait') return;
    expect(advice.timeConstant).toBeCloseTo(tau, 1);
    const reached = at.findIndex((one) => one - 20 < 0.7);
    expect(Math.abs(30 + advice.minutes - reached)).toBeLessThan(1.1);
  });

  it('warms up as it cools down, is ready where it is near, and tells nothing of what does not come nearer', () => {
    const cold = soakAdvice({ before: -5, now: 10, minutes: 60, around: 20 }, 1);
    const warm = soakAdvice({ before: 45, now: 30, minutes: 60, around: 20 }, 1);
    expect(cold).toEqual(warm);
    expect(soakAdvice({ before: 25, now: 20.5, minutes: 60, around: 20 }, 1)).toEqual({ kind: 'ready' });
    for (const soaking of [
      { before: 30, now: 30, minutes: 60, around: 20 },
      { before: 30, now: 35, minutes: 60, around: 20 },
      { before: 30, now: 10, minutes: 60, around: 20 },
      { before: 60, now: 40, minutes: 0, around: 20 },
    ]) {
      expect(soakAdvice(soaking, 1)).toEqual({ kind: 'unknown' });
    }
    // By hand: 0.5 µm of a steel journal of 62 mm is 0.7 °C.
    expect(mattersAt(500, 62_000_000, 11.5)).toBeCloseTo(0.7, 2);
  });
});
