import { expect, it } from 'vitest';
import { onceFor } from './onceFor.js';

it('works something out once for the same two values, and again for others that look alike', () => {
  let runs = 0;
  const sum = onceFor((one: { readonly a: number }, other: { readonly b: number }) => {
    runs += 1;
    return one.a + other.b;
  });
  const [one, other] = [{ a: 1 }, { b: 2 }];
  expect([sum(one, other), sum(one, other), runs]).toEqual([3, 3, 1]);
  expect([sum({ a: 1 }, other), sum(one, { b: 2 }), runs]).toEqual([3, 3, 3]);
  const nothing = onceFor((_one: object, _other: object) => {
    runs += 1;
    return null;
  });
  expect([nothing(one, other), nothing(one, other), runs]).toEqual([null, null, 4]);
});
