import { expect, it } from 'vitest';
import { readShimRequest } from '../format/shimRequest.js';
import { shims } from '../shims.js';

it('a shim behind the thrust plate brings the play to its target', () => {
  const read = readShimRequest({
    format: 'fettle.shim-request/1',
    unit: 'mm',
    kind: 'plate-shims',
    low: 0.05,
    high: 0.15,
    aim: 0.1,
    reading: 0.2,
    fitted: 0.5,
    pieces: [0.3, 0.4, 0.5].map((thickness) => ({ id: String(thickness), thickness, stock: 1 })),
  });
  if (!read.ok) throw new Error(JSON.stringify(read.faults));
  expect(shims(read.request)).toMatchObject({ status: 'optimal', result: 0.1, chosen: [{ id: '0.4' }] });
});
