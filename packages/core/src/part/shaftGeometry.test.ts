import { describe, expect, it } from 'vitest';
import { usualLayout } from './crankLayout.js';
import { shaftGeometry } from './shaftGeometry.js';

function drawn(mains: number, rods: number, rodsPerPin: 1 | 2, width = 900, height = 120) {
  const usual = usualLayout(mains, rods, rodsPerPin, mains);
  if (!usual.ok) throw new Error(usual.message);
  return { layout: usual.layout, shaft: shaftGeometry(usual.layout, width, height), width, height };
}

const SHAFTS: [number, number, 1 | 2][] = [
  [2, 1, 1],
  [2, 2, 1],
  [3, 2, 1],
  [3, 4, 1],
  [4, 6, 2],
  [5, 4, 1],
  [5, 8, 2],
  [7, 6, 1],
  [9, 8, 1],
  [12, 11, 1],
];

describe.each(SHAFTS)('a shaft of %i mains, %i rods, %i a pin', (mains, rods, rodsPerPin) => {
  const { layout, shaft, width, height } = drawn(mains, rods, rodsPerPin);

  it('centres every main over its column and marks the thrust main', () => {
    for (const main of shaft.mains)
      expect(main.x + main.width / 2).toBeCloseTo((main.number - 0.5) * (width / mains), 9);
    expect(shaft.mains.filter(({ isThrust }) => isThrust).map(({ number }) => number)).toEqual([mains]);
  });

  it('stands each pin between its mains, off the axis by the cosine of its throw', () => {
    for (const pin of shaft.pins) {
      const { bay, angle } = layout.pins[pin.number - 1]!;
      expect(pin.x).toBeGreaterThan(shaft.mains[bay - 1]!.x + shaft.mains[bay - 1]!.width);
      expect(pin.x + pin.width).toBeLessThan(shaft.mains[bay]!.x);
      expect(pin.width).toBeGreaterThan(4);
      const offset = shaft.axis - (pin.y + pin.height / 2);
      expect(offset / (height * 0.26)).toBeCloseTo(Math.cos((angle * Math.PI) / 180), 9);
      expect(pin.split === null).toBe(rodsPerPin === 1);
    }
  });

  it('joins neighbours by webs that reach both, inside the drawing', () => {
    let touching = 0;
    for (const web of shaft.webs) {
      expect(web.y).toBeGreaterThanOrEqual(0);
      expect(web.y + web.height).toBeLessThanOrEqual(height);
      for (const pin of shaft.pins) {
        const touches = Math.abs(web.x + web.width - pin.x) < 1e-6 || Math.abs(pin.x + pin.width - web.x) < 1e-6;
        if (!touches) continue;
        touching += 1;
        expect(web.y <= pin.y && web.y + web.height >= pin.y + pin.height).toBe(true);
      }
    }
    expect(touching).toBe(2 * layout.pins.length);
    expect(shaft.webs).toHaveLength(mains - 1 + layout.pins.length);
    expect(shaft.nose.x).toBeGreaterThanOrEqual(0);
    expect(shaft.flange.x + shaft.flange.width).toBeLessThanOrEqual(width);
  });
});
