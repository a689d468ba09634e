import { nanometres } from '@fettle/core';
import { expect, test } from 'vitest';
import { missingText } from './missingText.js';

const um = (value: number) => nanometres(value * 1000);
const at = (_: string, off: number) => `${((35_000 + off) / 1e6).toFixed(3)} mm`;

test('what is short is said by the pair, and by the clearances it would give', () => {
  const changes = [
    { station: 'M3', before: um(6), after: um(-3) },
    { station: 'M4', before: um(6), after: um(-3) },
  ];
  expect(missingText('grade 5', changes, [], at)).toBe(
    'One pair of grade 5 is missing: with it M3 and M4 would be at 0.032 mm.',
  );
  const apart = [
    ...changes,
    { station: 'M5', before: um(4), after: um(0) },
    { station: 'M1', before: um(4), after: um(0) },
  ];
  expect(missingText('Plum', apart, ['M2'], at)).toBe(
    'One pair of Plum is missing: with it M3 and M4 would be at 0.032 mm; M5 would be at 0.035 mm; 1 more station would change; M2 would not be mixed.',
  );
});
