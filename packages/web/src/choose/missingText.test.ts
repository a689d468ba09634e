import { expect, test } from 'vitest';
import { missingText } from './missingText.js';

const at = (_: string, off: number) => `${(0.035 + off).toFixed(3)} mm`;

test('what is short is said by the pair, and by the clearances it would give', () => {
  const changes = [
    { station: 'M3', before: 0.006, after: -0.003 },
    { station: 'M4', before: 0.006, after: -0.003 },
  ];
  expect(missingText('grade 5', changes, [], at)).toBe(
    'One pair of grade 5 is missing: with it M3 and M4 would be at 0.032 mm.',
  );
  const apart = [...changes, { station: 'M5', before: 0.004, after: 0 }, { station: 'M1', before: 0.004, after: 0 }];
  expect(missingText('Plum', apart, ['M2'], at)).toBe(
    'One pair of Plum is missing: with it M3 and M4 would be at 0.032 mm; M5 would be at 0.035 mm; 1 more station would change; M2 would not be mixed.',
  );
});
