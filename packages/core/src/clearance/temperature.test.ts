import { describe, expect, it } from 'vitest';
import { nanometres } from '../measure/nanometres.js';
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
