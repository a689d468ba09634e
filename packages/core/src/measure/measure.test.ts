import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readSize } from './effectiveSize.js';
import { formatExactLength, formatLength, numberOfLength } from './formatLength.js';
import { lengthOfNumber } from './lengthOfNumber.js';
import { misreadingOf, questionsOf } from './misreading.js';
import { nanometres } from './nanometres.js';
import { type ParseContext, parseLength } from './parseLength.js';
import type { Unit } from './unit.js';

const sizeOf = (text: string, context: ParseContext) => {
  const parsed = parseLength(text, context);
  return parsed.ok ? parsed.nm : parsed.code;
};

describe('inch and millimetre', () => {
  // 1 in = 25.4 mm exactly: international yard and pound agreement of 1959 (GNU units definitions file, NIST SP 447).
  it('keeps 25.4 mm to the inch', () => {
    expect(sizeOf('1', { unit: 'in' })).toBe(25_400_000);
    expect(sizeOf('0.00001', { unit: 'in' })).toBe(254);
    expect(sizeOf('2.4500', { unit: 'in' })).toBe(62_230_000);
  });

  // Arithmetic, from memory, verified by computation: binary truncation gives 50 801 015.
  it('does not lose a nanometre to binary arithmetic', () => {
    expect(lengthOfNumber(2.00004, 'in')).toBe(50_801_016);
    expect(sizeOf('2.00004', { unit: 'in' })).toBe(50_801_016);
    expect(formatLength(nanometres(50_000), 'in', 5)).toBe('0.00197');
    expect(lengthOfNumber(0.0000005, 'mm')).toBe(1);
    expect(lengthOfNumber(-0.0000005, 'mm')).toBe(-1);
  });

  // The US survey inch (100/3937 m) differs by 124.46 nm on 2.45 in (GNU units definitions file) and must not be used.
  it('is not the survey inch', () => {
    expect(sizeOf('2.45', { unit: 'in' })).not.toBe(Math.round((2.45 * 1e11) / 3937));
  });

  it('brings every five-figure inch reading from 0 to 10 in back to its last digit', () => {
    let mismatches = 0;
    for (let reading = 0; reading <= 1_000_000; reading += 1) {
      const text = `${Math.floor(reading / 100_000)}.${String(reading % 100_000).padStart(5, '0')}`;
      // Same arithmetic as parseLength without the regular expression, which the property below covers.
      if (formatLength(nanometres(reading * 254), 'in', 5) !== text) mismatches += 1;
    }
    expect(mismatches).toBe(0);
  });

  it('brings any reading back as it was typed, in its own unit', () => {
    const units: [Unit, number][] = [
      ['mm', 6],
      ['in', 5],
    ];
    for (const [unit, most] of units) {
      fc.assert(
        fc.property(
          fc.nat(390),
          fc.integer({ min: 0, max: most }),
          fc.nat(999_999),
          fc.constantFrom('.', ','),
          (whole, decimals, tail, point) => {
            const digits = String(tail).padStart(6, '0').slice(0, decimals);
            const text = decimals === 0 ? String(whole) : `${whole}.${digits}`;
            const parsed = parseLength(text.replace('.', point), { unit });
            if (!parsed.ok) throw new Error(parsed.message);
            expect(parsed.rounded).toBe(false);
            expect(formatLength(parsed.nm, unit, decimals)).toBe(text);
            expect(lengthOfNumber(Number(text), unit)).toBe(parsed.nm);
            expect(lengthOfNumber(numberOfLength(parsed.nm, unit), unit)).toBe(parsed.nm);
          },
        ),
        { numRuns: 3000, seed: 3 },
      );
    }
  });
});

describe('what people type', () => {
  it.each([
    ['2.4487', 'in', 62_196_980],
    ['.0015', 'in', 38_100],
    ['62,003', 'mm', 62_003_000],
    [' 62.003 mm ', 'in', 62_003_000],
    ['1.5 thou', 'mm', 38_100],
    ['3 tenths', 'in', 7_620],
    ['48µm', 'mm', 48_000],
    ['48 μm', 'mm', 48_000],
    ['48 um', 'in', 48_000],
    ['2.45"', 'mm', 62_230_000],
    ['2.45 IN', 'mm', 62_230_000],
    ['62.', 'mm', 62_000_000],
  ] as const)('reads %s in a %s job', (text, unit, nm) => {
    expect(sizeOf(text, { unit })).toBe(nm);
  });

  it('takes a sign as a deviation from the setting size', () => {
    expect(sizeOf('+2.5', { unit: 'in', setting: nanometres(62_230_000) })).toBe(62_230_000 + 63_500);
    expect(sizeOf('-2.5', { unit: 'mm', setting: nanometres(64_000_000) })).toBe(64_000_000 - 25_000);
    expect(sizeOf('− 12 um', { unit: 'mm', setting: nanometres(64_000_000) })).toBe(63_988_000);
    expect(sizeOf('+0.0002 in', { unit: 'in', setting: nanometres(62_230_000) })).toBe(62_235_080);
    expect(sizeOf('-0.5 thou', { unit: 'in', signed: 'sign' })).toBe(-12_700);
  });

  it.each([
    ['', 'empty'],
    ['abc', 'not-a-number'],
    ['.', 'not-a-number'],
    ['1.2.3', 'two-separators'],
    ['1,234.5', 'two-separators'],
    ['62 cm', 'unknown-unit'],
    ['+2', 'no-setting'],
    ['99999999', 'too-large'],
  ])('refuses %j as %s and says what would be right', (text, code) => {
    const parsed = parseLength(text, { unit: 'mm' });
    expect(parsed).toMatchObject({ ok: false, code, text });
    if (!parsed.ok) expect(parsed.message.length).toBeGreaterThan(15);
  });

  it('marks what is finer than a nanometre', () => {
    expect(parseLength('1.00000049', { unit: 'mm' })).toMatchObject({ nm: 1_000_000, rounded: true });
  });
});

describe('formatting', () => {
  it('shows as few decimals as are exact', () => {
    expect(formatExactLength(nanometres(62_230_000), 'in', 4)).toBe('2.4500');
    expect(formatExactLength(nanometres(62_230_254), 'in', 4)).toBe('2.45001');
    expect(formatExactLength(nanometres(41_500), 'mm', 3)).toBe('0.0415');
    expect(formatLength(nanometres(-500), 'mm', 3)).toBe('−0.001');
    expect(formatLength(nanometres(2_000), 'mm', 3, { plus: true })).toBe('+0.002');
  });

  it('takes the mean with halves away from zero, and nothing from nothing', () => {
    expect(readSize([nanometres(10), nanometres(11)])).toMatchObject({
      nominal: 11,
      smallest: 10,
      largest: 11,
      count: 2,
    });
    expect(readSize([])).toBeNull();
  });
});

describe('figures that cannot be right', () => {
  const mm = { low: nanometres(59_976_000), high: nanometres(59_994_000), unit: 'mm' as const };
  const inch = { low: nanometres(62_197_000), high: nanometres(62_222_000), unit: 'in' as const };
  const likely = (text: string, expected: typeof mm | typeof inch) =>
    misreadingOf(sizeOf(text, { unit: expected.unit }) as never, expected)?.likely[0];

  it('does not doubt worn or reground parts', () => {
    expect(misreadingOf(nanometres(59_900_000), mm)).toBeNull();
    expect(misreadingOf(nanometres(59_985_000), mm)).toBeNull();
  });

  // The slips and their sizes are common practice: 0.5 mm or 0.025 in a thimble turn, 25 mm or 1 in a range rod.
  it.each([
    ['59.481', mm, 'thimble-turn', 59_981_000],
    ['34.981', mm, 'range-rod', 59_981_000],
    ['5.9981', mm, 'decimal-point', 59_981_000],
    ['2.3615', mm, 'wrong-unit', 59_982_100],
    ['95.981', mm, 'swapped-digits', 59_981_000],
    ['2.4245', inch, 'thimble-turn', 62_217_300],
    ['1.4495', inch, 'range-rod', 62_217_300],
    ['2.2495', inch, 'two-tenths', 62_217_300],
    ['62.203', inch, 'wrong-unit', 62_203_000],
    ['58.985', mm, 'two-turns', 59_985_000],
    ['2.3490', inch, 'one-tenth', 62_204_600],
    ['4.2490', inch, 'swapped-digits', 62_204_600],
  ] as const)('explains %s', (text, expected, slip, nm) => {
    expect(likely(text, expected)).toMatchObject({ slip, nm });
  });

  it('asks about the point of a deviation, and about swapped digits inside believable wear, as a question', () => {
    const setting = nanometres(62_160_000);
    const deviation = parseLength('+20', { unit: 'in', setting });
    if (!deviation.ok) throw new Error(deviation.message);
    const [tenth] = misreadingOf(deviation.nm, { ...inch, setting })!.likely;
    expect(tenth).toMatchObject({ slip: 'decimal-point', nm: 62_210_800 });
    // 59.891 is 0.085 mm under: believable wear, and 59.981 with its digits turned round.
    const worn = nanometres(59_891_000);
    expect(misreadingOf(worn, mm)).toBeNull();
    expect(questionsOf(worn, mm)).toMatchObject([{ slip: 'swapped-digits', nm: 59_981_000 }]);
    expect(questionsOf(nanometres(59_985_000), mm)).toEqual([]);
  });

  it('reads units with a point behind them, and no names that objects have', () => {
    expect(parseLength('2.45 in.', { unit: 'mm' })).toMatchObject({ ok: true, nm: 62_230_000 });
    for (const word of ['constructor', 'toString', '__proto__', 'hasOwnProperty']) {
      expect(parseLength(`5 ${word}`, { unit: 'mm' })).toMatchObject({ ok: false, code: 'unknown-unit' });
    }
    expect(parseLength('62.003.', { unit: 'mm' }).ok).toBe(false);
  });

  it('says how far out a figure is that no slip explains', () => {
    expect(misreadingOf(nanometres(61_200_000), mm)).toEqual({ outsideBy: 1_206_000, likely: [] });
  });
});
