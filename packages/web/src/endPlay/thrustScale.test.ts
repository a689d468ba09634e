import { nanometres } from '@fettle/core';
import { describe, expect, it } from 'vitest';
import { thrustScale } from './thrustScale.js';

const um = (value: number) => nanometres(value * 1000);

describe('the section of a thrust bearing', () => {
  it('has its washers to one scale, and the gap so many times wider', () => {
    const { thick, wide, wider } = thrustScale([um(2360), um(2310)], um(110));
    expect(thick(um(2360)) / thick(um(2310))).toBeCloseTo(2360 / 2310, 9);
    expect(wider).toBe(50);
    expect(wide(um(110)) / thick(um(2360))).toBeCloseTo((50 * 110) / 2360, 9);
  });

  it('widens a large gap less, so that it has room', () => {
    expect(thrustScale([um(2360), um(2310)], um(400)).wider).toBe(10);
    expect(thrustScale([um(2360), null], um(3000)).wider).toBe(1);
    expect(thrustScale([null, null], null).wide(um(0))).toBe(0);
  });
});
