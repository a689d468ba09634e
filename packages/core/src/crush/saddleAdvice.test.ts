import { describe, expect, it } from 'vitest';
import { nanometres } from '../measure/nanometres.js';
import { saddleAdvice } from './saddleAdvice.js';

const um = (value: number) => nanometres(Math.round(value * 1000));
const limits = { low: um(30), high: um(70) };
const joint = (clearance: number | null, left: number | null, right: number | null) => ({
  left: { go: null, noGo: null, shim: left === null ? null : um(left) },
  right: { go: null, noGo: null, shim: right === null ? null : um(right) },
  clearance: clearance === null ? null : um(clearance),
});

// Common practice: the same thickness taken from both sides lowers the clearance in the bolt direction by that.
describe('white metal: what to take from each side (nothing was said without shims)', () => {
  it('is said in figures, with what the shims leave', () => {
    expect(saddleAdvice(joint(90, 100, 120), limits, null)).toEqual({
      eachSide: um(-40),
      left: um(60),
      right: um(80),
      fromFaces: 0,
    });
    expect(saddleAdvice(joint(20, 0, 0), limits, um(40))).toMatchObject({
      eachSide: um(20),
      left: um(20),
      fromFaces: 0,
    });
  });

  it('without shims, or with fewer than it takes, comes off the joint faces', () => {
    expect(saddleAdvice(joint(90, 0, 0), limits, null)).toMatchObject({ left: um(-40), fromFaces: um(40) });
    expect(saddleAdvice(joint(90, 30, 50), limits, null)).toMatchObject({
      left: um(-10),
      right: um(10),
      fromFaces: um(10),
    });
    expect(saddleAdvice(joint(90, null, null), limits, null)).toMatchObject({ left: null, right: null, fromFaces: 0 });
  });

  it('is not said before the clearance is read; an aim outside the limits is not taken', () => {
    expect(saddleAdvice(joint(null, 0, 0), limits, null)).toBeNull();
    expect(saddleAdvice(joint(90, 0, 0), limits, um(100))?.eachSide).toBe(um(-40));
  });
});
