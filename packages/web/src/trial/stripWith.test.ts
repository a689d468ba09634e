import { nanometres } from '@fettle/core';
import { expect, it } from 'vitest';
import { stripWith } from './stripWith.js';

const um = (value: number) => nanometres(value * 1000);
const stamp = { by: 'Wren', at: '2026-01-02T03:04:05.000Z' };

it('begins with a diameter, or with the one that was used last', () => {
  expect(stripWith(null, { ringsOff: true }, null, 'mm', stamp)).toBeNull();
  expect(stripWith(null, { diameter: um(120) }, null, 'mm', stamp)).toMatchObject({
    diameter: um(120),
    widths: { front: null, rear: null },
    ...stamp,
  });
  expect(stripWith(null, { front: um(500) }, um(150), 'mm', stamp)).toMatchObject({
    diameter: um(150),
    widths: { front: { text: '0.500', unit: 'mm', nm: um(500) }, rear: null },
  });
});

it('changes one thing at a time, and takes a width back', () => {
  const strip = stripWith(null, { diameter: um(120) }, null, 'mm', stamp)!;
  const both = stripWith(
    stripWith(strip, { front: um(400) }, null, 'mm', stamp),
    { rear: um(500) },
    null,
    'mm',
    stamp,
  )!;
  expect([both.widths.front!.nm, both.widths.rear!.nm]).toEqual([um(400), um(500)]);
  const other = { by: 'Teasel', at: stamp.at };
  expect(stripWith(both, { front: null }, null, 'mm', other)).toMatchObject({
    widths: { front: null, rear: { nm: um(500) } },
    by: 'Teasel',
  });
  expect(stripWith(both, { diameter: um(180) }, null, 'mm', other)).toMatchObject({
    diameter: um(180),
    widths: { front: { nm: um(400) } },
  });
});
