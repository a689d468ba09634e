import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readSize } from './effectiveSize.js';
import { formatExactLength, formatLength, numberOfLength } from './formatLength.js';
import { lengthOfNumber } from './lengthOfNumber.js';
import { workedOutText } from './lengthText.js';
import { type ExpectedSize, judgedReading } from './misreading.js';
import { type Nanometres, nanometres } from './nanometres.js';
import { type ParseContext, parseLength } from './parseLength.js';
import type { Slip } from './slips.js';
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
    expect(formatExactLength(nanometres(62_003_000), 'in', 4)).toBe('2.441063');
    expect(formatExactLength(nanometres(62_003_005), 'in', 4)).toBe('2.4410632');
    expect(workedOutText(62_003_005, 'in')).toBe('2.441063');
    expect(workedOutText(1_500, 'mm')).toBe('0.0015');
    expect(formatLength(nanometres(-500), 'mm', 3)).toBe('−0.001');
    expect(formatLength(nanometres(2_000), 'mm', 3, { plus: true })).toBe('+0.002');
  });

  it('is exact in inches too: what is shown is read back as the same nanometres', () => {
    fc.assert(
      fc.property(fc.integer({ min: -200_000_000, max: 200_000_000 }), fc.constantFrom('mm', 'in'), (nm, unit) => {
        const text = formatExactLength(nanometres(nm), unit, 3).replace('−', '-');
        expect(lengthOfNumber(Number(text), unit)).toBe(nm);
      }),
    );
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
  const judged = (text: string, expected: ExpectedSize) => {
    const parsed = parseLength(text, {
      unit: expected.unit,
      setting: expected.setting ?? null,
      longest: 1e15 as Nanometres,
    });
    if (!parsed.ok) throw new Error(parsed.message);
    const { nm, digits, perOne } = parsed;
    return judgedReading(nm, { ...expected, digits, perOne });
  };

  it('does not doubt worn or reground parts', () => {
    expect(judged('59.900', mm)).toMatchObject({ verdict: 'outside', outsideBy: -76_000, likely: [] });
    expect(judged('59.985', mm)).toEqual({ verdict: 'inside', outsideBy: 0, likely: [] });
    // 0.25 mm and 0.010 in are believed, more is not.
    expect([judged('60.244', mm).verdict, judged('60.245', mm).verdict]).toEqual(['outside', 'implausible']);
    const sheet = { low: nanometres(62_230_000), high: nanometres(62_230_000), unit: 'in' as const };
    expect([judged('2.4600', sheet).verdict, judged('2.46005', sheet).verdict]).toEqual(['outside', 'implausible']);
  });

  // The slips and their sizes are common practice: 0.5 mm or 0.025 in a thimble turn, 25 mm or 1 in a frame or a range rod.
  it.each([
    ['59.481', mm, 'thimble-turn', 59_981_000],
    ['34.981', mm, 'frame-size', 59_981_000],
    ['5.9981', mm, 'decimal-slip', 59_981_000],
    ['2.3615', mm, 'other-unit', 59_982_100],
    ['95.981', mm, 'digits-swapped', 59_981_000],
    ['2.4245', inch, 'thimble-turn', 62_217_300],
    ['1.4495', inch, 'frame-size', 62_217_300],
    ['2.2495', inch, 'tenth', 62_217_300],
    ['62.203', inch, 'other-unit', 62_203_000],
    ['58.985', mm, 'thimble-turn', 59_985_000],
    ['56.985', mm, 'tenth', 59_985_000],
    ['2.3490', inch, 'tenth', 62_204_600],
    ['4.2490', inch, 'digits-swapped', 62_204_600],
    ['24490', inch, 'decimal-slip', 62_204_600],
    ['.24490', inch, 'decimal-slip', 62_204_600],
  ] as const)('explains %s', (text, expected, slip, nm) => {
    expect(judged(text, expected).likely[0]).toMatchObject({ slip, nm });
  });

  it('asks about the point of a deviation, its sign, and about swapped digits inside believable wear, as a question', () => {
    const setting = nanometres(62_160_000);
    expect(judged('+20', { ...inch, setting }).likely[0]).toMatchObject({ slip: 'decimal-slip', nm: 62_210_800 });
    expect(judged('-2', { ...inch, setting }).likely[0]).toMatchObject({ slip: 'mirrored-deviation', nm: 62_210_800 });
    // 59.891 is 0.085 mm under: believable wear, and 59.981 with its digits turned round.
    expect(judged('59.891', mm)).toMatchObject({
      verdict: 'outside',
      likely: [{ slip: 'digits-swapped', nm: 59_981_000 }],
    });
  });

  it('catches every slip that a fitter makes of a good reading, and accuses no good one, in both units', () => {
    const cases = fc.record({
      unit: fc.constantFrom('mm' as const, 'in' as const),
      at: fc.integer({ min: 0, max: 18 }),
      size: fc.integer({ min: 30_000, max: 99_000 }),
      slip: fc.constantFrom<Slip>(
        'thimble-turn',
        'frame-size',
        'tenth',
        'digits-swapped',
        'decimal-slip',
        'other-unit',
      ),
      which: fc.integer({ min: 0, max: 999 }),
    });
    fc.assert(
      fc.property(cases, ({ unit, at, size, slip, which }) => {
        // Written in units of the last place: 0.001 mm, 0.0001 in.
        const decimals = unit === 'mm' ? 3 : 4;
        const perLast = unit === 'mm' ? 1000 : 2540;
        const good = size + at;
        const limits = { low: nanometres(size * perLast), high: nanometres((size + 18) * perLast), unit };
        const text = (last: number) => (last / 10 ** decimals).toFixed(decimals);
        expect(judged(text(good), limits)).toEqual({ verdict: 'inside', outsideBy: 0, likely: [] });

        const digits = text(good);
        const sign = which % 2 === 0 ? 1 : -1;
        const slipped = (): string => {
          switch (slip) {
            case 'thimble-turn':
              return text(good + sign * (1 + (which % 4 > 1 ? 1 : 0)) * (unit === 'mm' ? 500 : 250));
            case 'frame-size':
              return text(good + sign * (unit === 'mm' ? 25_000 : 10_000));
            case 'tenth':
              return text(good + sign * (1 + (which % 9)) * 1000);
            case 'digits-swapped': {
              const places = [...digits].flatMap((digit, place) => (digit === '.' ? [] : [place]));
              const one = which % (places.length - 1);
              const swapped = [...digits];
              [swapped[places[one]!], swapped[places[one + 1]!]] = [digits[places[one + 1]!]!, digits[places[one]!]!];
              return swapped.join('');
            }
            case 'decimal-slip':
              return which % 5 === 4
                ? digits.replace('.', '')
                : String(Number((Number(digits) * [10, 0.1, 100, 0.01][which % 5]!).toFixed(decimals + 2)));
            default:
              // Typed in the other unit, as finely as its own instruments read.
              return unit === 'mm' ? ((good * perLast) / 25.4e6).toFixed(5) : ((good * perLast) / 1e6).toFixed(3);
          }
        };
        const typed = slipped();
        const { verdict, likely } = judged(typed, { ...limits, resolution: nanometres(perLast) });
        // A slip that stays inside the limits is no fault that anybody could see.
        if (verdict === 'inside') return;
        const own = likely.filter((one) => one.slip === slip).map(({ nm }) => nm);
        // Inches with five decimals tell a micrometre apart or nearly so.
        const near = slip === 'other-unit' ? perLast : 0;
        expect(
          own.some((nm) => Math.abs(nm - good * perLast) <= near),
          `${slip}: ${typed} for ${digits}`,
        ).toBe(true);
      }),
      { numRuns: 2000, seed: 4 },
    );
  });

  it('reads units with a point behind them, and no names that objects have', () => {
    expect(parseLength('2.45 in.', { unit: 'mm' })).toMatchObject({ ok: true, nm: 62_230_000 });
    for (const word of ['constructor', 'toString', '__proto__', 'hasOwnProperty']) {
      expect(parseLength(`5 ${word}`, { unit: 'mm' })).toMatchObject({ ok: false, code: 'unknown-unit' });
    }
    expect(parseLength('62.003.', { unit: 'mm' }).ok).toBe(false);
  });

  it('says how far out a figure is that no slip explains', () => {
    expect(judged('61.2', mm)).toEqual({ verdict: 'implausible', outsideBy: 1_206_000, likely: [] });
  });
});
