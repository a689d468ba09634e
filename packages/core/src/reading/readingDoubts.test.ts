import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { engineTypeSchema } from '../engineType/engineType.js';
import { limitAt } from '../engineType/limits.js';
import { newEngineType } from '../engineType/newEngineType.js';
import type { JobDocument } from '../job/jobDocument.js';
import { jobOfType, withSheet } from '../job/jobOfType.js';
import { sheetContent } from '../job/sheetContent.js';
import { budgetUncertainty } from '../measure/budget.js';
import { GaugeLines, gaugeText, PLAIN_LINE } from '../measure/gaugeLine.js';
import { outsideRange } from '../measure/instrument.js';
import { nanometres } from '../measure/nanometres.js';
import { normalChance } from '../measure/normalChance.js';
import { rangeOf, splitRange } from '../measure/rangeText.js';
import { usualLayout } from '../part/crankLayout.js';
import type { Slot } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import { runoutsOf } from '../runout/runoutSlice.js';
import { jobFit } from '../selection/jobFit.js';
import { clearanceDraw, drawnClearance } from '../station/clearanceDraw.js';
import { mainStations } from '../station/jobStations.js';
import { assessReading } from './assessReading.js';
import { measuredParts } from './measuredParts.js';
import { isCoarse, readingDoubts } from './readingDoubts.js';
import { rowDoubts } from './rowDoubts.js';

const um = (value: number) => nanometres(Math.round(value * 1000));
const limit = (low: number, high: number) => ({ low: um(low), high: um(high), source: 'Rush book, p. 9' });

/** A twin of three mains with two marks for each part. */
function twinType() {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const bands = (low: number, marks: readonly [string, string]) =>
    marks.map((mark, at) => ({ mark, low: um(low + 6 * at), high: um(low + 6 * at + 6) }));
  return engineTypeSchema.parse({
    ...newEngineType('Rush Twin', 'mm', usual.layout),
    limits: { mainBore: limit(64_000, 64_012), mainJournal: limit(59_976, 59_988), mainClearance: limit(20, 50) },
    rows: [{ feature: 'mainJournal', prefix: 'J', first: 'front' }],
    main: { housing: bands(64_000, ['A', 'B']), journal: bands(59_976, ['1', '2']) },
  });
}

const ORIGIN = { type: '7a100000-0000-4000-8000-000000000001', revision: 1 };
const twin = (parts: Partial<JobDocument> = {}): JobDocument => ({
  ...jobOfType('Rush Twin 7', twinType(), ORIGIN, false),
  ...parts,
});

let made = 0;
function read(station: number, slot: Slot, sizeUm: number, feature: Reading['feature'] = 'mainJournal'): Reading {
  made += 1;
  const id = `00000000-0000-4000-8000-${String(made).padStart(12, '0')}`;
  const nm = um(sizeUm);
  const text = (sizeUm / 1000).toFixed(3);
  const at = '2026-02-03T04:05:06.000Z';
  return { id, feature, station, slot, text, unit: 'mm', setting: null, replaces: null, by: 'Wren', at, nm };
}

const FOUR = ['front-0', 'front-90', 'rear-0', 'rear-90'] as const;
const four = (station: number, sizes: readonly number[]) => sizes.map((size, at) => read(station, FOUR[at]!, size));

describe('readings taken together', () => {
  it('of two neighbours that are the same to the letter were copied, unless that is no wonder', () => {
    const sizes = [59_981, 59_983, 59_980, 59_982];
    expect(readingDoubts(twin(), [...four(1, sizes), ...four(2, sizes)], 'mainJournal')).toEqual([
      { kind: 'copied', feature: 'mainJournal', parts: [1, 2] },
    ]);
    const alike = [59_981, 59_982];
    expect(readingDoubts(twin(), [...four(1, alike), ...four(2, alike)], 'mainJournal')).toEqual([]);
    expect(readingDoubts(twin(), [...four(1, sizes), ...four(2, [...sizes].reverse())], 'mainJournal')).toEqual([]);
  });

  it('of two parts that read as each other’s marks were entered the wrong way round', () => {
    const job = twin({ marks: { mainJournal: { text: 'J 1 2 2', first: 'front' } } });
    const readings = [read(1, 'front-0', 59_986), read(2, 'front-0', 59_977), read(3, 'front-0', 59_985)];
    expect(readingDoubts(job, readings, 'mainJournal')).toEqual([
      { kind: 'changed-over', feature: 'mainJournal', parts: [1, 2] },
    ]);
  });

  it('where one is far from the others and as another part’s, which lacks it, may be of that part', () => {
    const readings = [
      ...four(1, [59_986, 59_987, 59_750]),
      read(2, 'front-0', 59_751),
      read(2, 'front-90', 59_752),
      ...four(3, [59_985, 59_985, 59_986, 59_986]),
    ];
    expect(readingDoubts(twin(), readings, 'mainJournal')).toEqual([
      { kind: 'other-part', feature: 'mainJournal', part: 1, slot: 'rear-0', other: 2 },
    ]);
    // Where the other part was read there as well, it is not its reading.
    expect(readingDoubts(twin(), [...readings, read(2, 'rear-0', 59_751)], 'mainJournal')).toEqual([]);
  });

  it('of good parts are hardly ever asked about', () => {
    const good = fc.array(fc.array(fc.integer({ min: 59_976, max: 59_988 }), { minLength: 4, maxLength: 4 }), {
      minLength: 3,
      maxLength: 3,
    });
    fc.assert(
      fc.property(good, (parts) => {
        const readings = parts.flatMap((sizes, at) => four(at + 1, sizes));
        const told = readingDoubts(twin(), readings, 'mainJournal');
        return (
          told.every(({ kind }) => kind === 'copied') &&
          (told.length === 0 || parts.some((one, at) => String(one) === String(parts[at + 1])))
        );
      }),
      { numRuns: 300 },
    );
  });

  it.each([
    ['62.0', ['62.003', '62.004'], true],
    ['62', ['62.003'], true],
    ['62.003', ['62.003', '62.0'], false],
    ['62.01', [], false],
    ['+2', ['62.003', '62.004'], false],
    ['62 mm', ['62.003', '62.004'], false],
  ])('%s beside %j has fewer decimals: %s', (text, others, isFewer) => {
    expect(isCoarse(text, others)).toBe(isFewer);
  });
});

describe('what said nothing', () => {
  const bores = (...sizes: readonly number[]) => sizes.map((size, at) => read(at + 1, 'front', size, 'mainBore'));

  it('a bore 13 µm off its neighbours is told, within the setting, against the middle of its own limits', () => {
    const off = { kind: 'off-line', feature: 'mainBore', part: 2, beside: [1, 3], by: um(13), within: 12_700 };
    expect(readingDoubts(twin(), bores(64_000, 64_013, 64_000), 'mainBore')).toMatchObject([
      { part: 1 },
      off,
      { part: 3 },
    ]);
    expect(readingDoubts(twin(), bores(64_000, 64_012, 64_000), 'mainBore')).toEqual([]);
    const onSheet = JSON.stringify(sheetContent(twin(), bores(64_000, 64_013, 64_000)));
    expect(onSheet).toContain('Check bore M2: 0.013 mm above the line of M1 and M3');
    const { measuring } = twin();
    for (const [alongLine, count] of [
      [null, 0],
      [um(20), 0],
      [um(5), 3],
    ] as const) {
      const job = twin({ measuring: { ...measuring, alongLine } });
      expect(readingDoubts(job, bores(64_000, 64_013, 64_000), 'mainBore')).toHaveLength(count);
    }
    // A main that is bored larger by the sheet is on the line.
    const stepped = twin({ mainLimits: { '2': { mainBore: limit(64_100, 64_112) } } });
    expect(readingDoubts(stepped, bores(64_000, 64_105, 64_000), 'mainBore')).toEqual([]);
  });

  it('a bore 28 µm out of round is over the limit that the sheet gives for bores, and not over that of journals', () => {
    const readings = [read(2, 'front', 64_002, 'mainBore'), read(2, 'front-90', 64_030, 'mainBore')];
    const findings = (key: 'outOfRound' | 'boreOutOfRound') => {
      const { limits } = twin();
      const job = twin({ limits: { ...limits, [key]: limit(0, 10) } });
      return measuredParts(job, readings, 'mainBore').flatMap((part) => part.findings);
    };
    expect(findings('boreOutOfRound')).toEqual([
      { feature: 'mainBore', kind: 'out-of-round', by: um(18), side: 'over' },
    ]);
    expect(findings('outOfRound')).toEqual([]);
  });

  it('the runout of the flange is judged by the limit of its own', () => {
    const dial = (sizeUm: number) => ({
      text: '',
      unit: 'mm' as const,
      nm: um(sizeUm),
      by: 'Wren',
      at: '2026-02-03T04:05:06.000Z',
    });
    const flange = { '0': dial(0), '90': dial(40), '180': dial(80), '270': dial(40) };
    const { limits, runout } = twin();
    const verdict = (flangeRunout: typeof limits.flangeRunout) =>
      runoutsOf(twin({ limits: { ...limits, flangeRunout }, runout: { ...runout, flange } })).map(
        ({ isOver }) => isOver,
      );
    expect([verdict(null), verdict(limit(0, 50)), verdict(limit(0, 100))]).toEqual([[null], [true], [false]]);
  });
});

describe('stamped rows', () => {
  const sizes = [read(1, 'front-0', 59_986), read(2, 'front-0', 59_980), read(3, 'front-0', 59_977)];

  it('that agree from the other end only are asked about', () => {
    const job = twin({ marks: { mainJournal: { text: 'J 1 1 2', first: 'front' } } });
    expect(rowDoubts(job, sizes)).toEqual([{ kind: 'other-end', feature: 'mainJournal', agree: 1, would: 3, of: 3 }]);
    const turned = twin({ marks: { mainJournal: { text: 'J 1 1 2', first: 'rear' } } });
    expect(rowDoubts(turned, sizes)).toEqual([]);
    expect(rowDoubts(job, [])).toEqual([]);
  });

  it('that are those of another feature, or typed twice, are asked about', () => {
    const other = twin({ marks: { mainBore: { text: 'J 1 1 2', first: 'front' } } });
    expect(rowDoubts(other, [])).toEqual([{ kind: 'other-row', feature: 'mainBore', other: 'mainJournal' }]);
    expect(rowDoubts(twin({ marks: { mainBore: { text: 'A B A', first: 'front' } } }), [])).toEqual([]);
  });
});

describe('a range', () => {
  it.each([
    ['31.994 – 32.000', ['31.994', '32.000']],
    ['31.994-32.000', ['31.994', '32.000']],
    ['31.994 to 32.000 mm', ['31.994 mm', '32.000 mm']],
    ['2.4480 … 2.4490 in', ['2.4480 in', '2.4490 in']],
    ['0.0015 in - 0.0030 in', ['0.0015 in', '0.0030 in']],
    ['-0.01 – 0.02', ['-0.01', '0.02']],
    ['31,994 .. 32,000', ['31,994', '32,000']],
  ])('%s is two ends', (text, ends) => {
    expect(splitRange(text)).toEqual(ends);
  });

  it.each(['31.994', '-0.01', '+2.5', '', '2.4480 in', '—'])('%s is none', (text) => {
    expect(splitRange(text)).toBeNull();
  });

  it('has its smaller end first', () => {
    expect(rangeOf('25 – 50', 'mm')).toEqual({ ok: true, low: um(25_000), high: um(50_000) });
    expect([rangeOf('50 – 25', 'mm').ok, rangeOf('50', 'mm').ok, rangeOf('1 – 2 ell', 'mm').ok]).toEqual([
      false,
      false,
      false,
    ]);
    expect(outsideRange({ range: { low: um(25_000), high: um(50_000) } }, um(24_990))).toBe(-10_000);
    expect(outsideRange({ range: null }, um(24_990))).toBe(0);
  });
});

describe('a gauge with a data cable', () => {
  it('is read by the line it sends', () => {
    const framed = { pattern: '01A#', unit: 'mm', baud: 9600 } as const;
    expect(gaugeText('01A+0062.003', framed)).toEqual({ ok: true, text: '+62.003 mm' });
    expect(gaugeText('  0.0012 ', PLAIN_LINE)).toEqual({ ok: true, text: '0.0012' });
    expect(gaugeText('-.0012', PLAIN_LINE)).toEqual({ ok: true, text: '-.0012' });
    for (const line of ['02A+62.003', '01Aerr', '01A', '']) expect(gaugeText(line, framed).ok).toBe(false);
  });

  it('sends lines in pieces, however they end', () => {
    const lines = new GaugeLines();
    expect(['62.', '003\r', '\n62.004\n\r\n62', ''].flatMap((chunk) => lines.take(chunk))).toEqual([
      '62.003',
      '62.004',
    ]);
    expect(lines.take('.005\r')).toEqual(['62.005']);
  });
});

describe('limits of single mains', () => {
  const placed = { '3': { mainClearance: limit(30, 60), mainJournal: limit(59_960, 59_972) } };
  const shell = { family: 'main', series: 'Osier', half: 'either', stock: null, line: null } as const;
  const shells = { one: { ...shell, grade: '1', wall: um(1_995) }, two: { ...shell, grade: '2', wall: um(2_002) } };
  const readings = [1, 2, 3].flatMap((number) => [
    read(number, 'front', 64_006, 'mainBore'),
    read(number, 'rear', 64_006, 'mainBore'),
    read(number, 'front-0', number === 3 ? 59_966 : 59_982),
    read(number, 'front-90', number === 3 ? 59_966 : 59_982),
  ]);

  it('hold there and nowhere else: in findings, questions, the choice and on the sheet', () => {
    const job = twin({ mainLimits: placed, shells });
    expect(limitAt(job, 'mainJournal', 3)).toEqual(placed[3].mainJournal);
    expect(limitAt(job, 'mainJournal', 2)).toEqual(job.limits.mainJournal);
    expect(limitAt(job, 'mainBore', 3)).toEqual(job.limits.mainBore);
    expect(measuredParts(job, readings, 'mainJournal').flatMap(({ findings }) => findings)).toEqual([]);
    expect(measuredParts(twin(), readings, 'mainJournal').flatMap(({ findings }) => findings)).toHaveLength(1);
    const kinds = [2, 3].map((station) => assessReading('59.966', null, 'mainJournal', job, [], station).kind);
    expect(kinds).toEqual(['outside', 'fine']);
    const asked = jobFit(job, readings);
    if (!asked.ok) throw new Error(asked.reason);
    expect(asked.problem.stations.map(({ low, high }) => [low, high])).toEqual([
      [um(20), um(50)],
      [um(20), um(50)],
      [um(30), um(60)],
    ]);
    const text = JSON.stringify(sheetContent(job, readings));
    expect(text).toContain('Main oil clearance, main 3');
  });

  it('stay where the fitter changed them when a later sheet is taken', () => {
    const job = twin({ mainLimits: placed });
    const later = { ...twinType(), mainLimits: { '1': { mainBore: limit(63_990, 64_002) } } };
    expect(withSheet(job, later, ORIGIN, []).mainLimits).toEqual({ ...placed, ...later.mainLimits });
    // What came from the sheet goes with it.
    const copied = jobOfType('Rush Twin 8', { ...twinType(), mainLimits: placed }, ORIGIN, false);
    expect(copied.mainLimits).toEqual(placed);
    expect(withSheet(copied, later, ORIGIN, []).mainLimits).toEqual(later.mainLimits);
  });
});

describe('a clearance that is drawn', () => {
  it('is known as well as it is worked out, and inside as often', () => {
    const job = twin();
    const readings = [read(1, 'front', 64_006, 'mainBore'), read(1, 'front-0', 59_980)];
    const [station] = mainStations(job, readings);
    const half = { shell: 'a', label: 'a', wall: um(1_995) };
    const draw = clearanceDraw(job, station!, { upper: half, lower: half })!;
    const { mean, u, inside } = drawnClearance(draw, 100_000, 3);
    const worked = budgetUncertainty(draw.budget);
    expect(mean).toBeCloseTo(36_000, -2);
    expect(u / worked).toBeCloseTo(1, 1);
    expect(inside).toBeCloseTo(normalChance(36_000, worked, { low: 20_000, high: 50_000 }), 2);
    // A size that is only marked counts evenly over its band.
    const marked = twin({ marks: { mainJournal: { text: 'J 1 1 2', first: 'front' } } });
    const [coded] = mainStations(marked, readings.slice(0, 1));
    const { budget } = clearanceDraw(marked, coded!, { upper: half, lower: half })!;
    expect(budget.filter(({ shape }) => shape === 'even').map(({ words }) => words)).toEqual([
      'band of its mark, journal M1',
    ]);
  });
});
