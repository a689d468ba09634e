import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chanceInside } from '../clearance/chanceInside.js';
import { codeSheetOfType, withCodeSheet } from '../engineType/codeSheetOfType.js';
import { type EngineType, engineTypeSchema, readEngineType } from '../engineType/engineType.js';
import { newEngineType } from '../engineType/newEngineType.js';
import { sheetDifferences } from '../engineType/sheetLines.js';
import { fit } from '../fit/fit.js';
import { fitRequestSchema } from '../fit/format/fitRequest.js';
import { planOfSolution } from '../fit/format/planOfSolution.js';
import { planRequest } from '../fit/planRequest.js';
import { recheckPlan } from '../fit/recheckPlan.js';
import { requestOfProblem } from '../fit/testing/requestOfProblem.js';
import type { JobDocument } from '../job/jobDocument.js';
import { jobOfType, limitClashes, shellsOfSheet, withSheet } from '../job/jobOfType.js';
import { jobProgress } from '../job/jobProgress.js';
import { nanometres } from '../measure/nanometres.js';
import { seeded } from '../measure/seeded.js';
import { usualLayout } from '../part/crankLayout.js';
import type { Feature, Slot } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import { assessReading } from '../reading/assessReading.js';
import { measuredParts } from '../reading/measuredParts.js';
import { choiceFaults } from '../selection/choiceFaults.js';
import { codedStations, heldAsCoded } from '../selection/codedStations.js';
import { jobFit } from '../selection/jobFit.js';
import { cleanUp, derivedUndersize, undersizeOf } from '../shell/undersize.js';
import { mainStations } from '../station/jobStations.js';
import { shellsAfterGrinding } from './shellsAfterGrinding.js';

const um = (value: number) => nanometres(Math.round(value * 1000));
const limit = (low: number, high: number) => ({ low: um(low), high: um(high), source: 'Rush book, p. 9' });

/** A twin's data sheet: three housing marks, two journal marks, three grades, an undersize. */
function twinType(): EngineType {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const grade = (mark: string, low: number) => ({ mark, low: um(low), high: um(low + 2), paint: null });
  const grades = [grade('Thin', 1991), grade('Mid', 1994), grade('Thick', 1997)];
  return engineTypeSchema.parse({
    ...newEngineType('Rush Twin', 'mm', usual.layout),
    limits: {
      mainBore: limit(64_000, 64_018),
      mainJournal: limit(59_976, 59_988),
      mainClearance: limit(20, 50),
      outOfRound: limit(0, 5),
      taper: limit(0, 4),
    },
    rows: [
      { feature: 'mainBore', prefix: '', first: 'front' },
      { feature: 'mainJournal', prefix: 'J', first: 'rear' },
    ],
    main: {
      series: 'Marsh',
      housing: [
        { mark: 'A', low: um(64_000), high: um(64_006) },
        { mark: 'B', low: um(64_006), high: um(64_012) },
        { mark: 'C', low: um(64_012), high: um(64_018) },
      ],
      journal: [
        { mark: '1', low: um(59_982), high: um(59_988) },
        { mark: '2', low: um(59_976), high: um(59_982) },
      ],
      grades,
      table: {
        A: { 1: 'Thin', 2: { upper: 'Thin', lower: 'Mid' } },
        B: { 1: 'Mid', 2: { upper: 'Mid', lower: 'Thick' } },
        C: { 1: { upper: 'Mid', lower: 'Thick' }, 2: 'Thick' },
      },
      undersizes: [derivedUndersize('0.25', um(250), limit(59_976, 59_988), grades)],
    },
  });
}

const ORIGIN = { type: '7a100000-0000-4000-8000-000000000001', revision: 1 };

/** A twin with its marks typed as stamped and the sheet's grades to choose from; nothing read. */
function markedTwin(): JobDocument {
  const job = jobOfType('Rush Twin 7', twinType(), ORIGIN, false);
  const shells = shellsOfSheet(job.sheet!, 'main', null);
  return {
    ...job,
    marks: { mainBore: { text: 'A B C', first: 'front' }, mainJournal: { text: 'J 1 2 2', first: 'rear' } },
    shells: Object.fromEntries(shells.map((shell) => [`${shell.grade} ${shell.half}`, shell])),
  };
}

let count = 0;
function read(feature: Feature, station: number, slot: Slot, sizeUm: number): Reading {
  count += 1;
  const id = `00000000-0000-4000-8000-${String(count).padStart(12, '0')}`;
  const at = '2026-02-03T04:05:06.000Z';
  const nm = um(sizeUm);
  return { id, feature, station, slot, text: 'x', unit: 'mm', setting: null, replaces: null, by: 'Wren', at, nm };
}

describe('the chance that a clearance is inside its limits', () => {
  // Closed forms of elementary geometry: one uniform width, a triangle of two, and the corners cut off it.
  it('agrees with closed forms of one and two bands', () => {
    const point = { low: nanometres(0), high: nanometres(0) };
    const band = (width: number) => ({ low: nanometres(0), high: nanometres(width) });
    const inside = (a: number, b: number, low: number, high: number) =>
      chanceInside(
        { bore: band(a), journal: { low: nanometres(-b), high: nanometres(0) }, upper: point, lower: point },
        { low: nanometres(low), high: nanometres(high) },
      );
    expect(inside(10, 0, 2, 7)).toBe(0.5);
    expect(inside(10, 10, 0, 10)).toBe(0.5);
    expect(inside(8, 8, 0, 4)).toBe(0.125);
    expect(inside(20, 10, 5, 25)).toBe(1 - (2 * 5 * 5) / 2 / 200);
    expect(inside(0, 0, 0, 0)).toBe(1);
    expect(inside(0, 0, 1, 2)).toBe(0);
  });

  it('agrees with drawn engines over four bands of any widths', () => {
    const random = seeded(11);
    let between = 0;
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 9000 }), { minLength: 4, maxLength: 4 }),
        fc.integer({ min: -24_000, max: 4000 }),
        fc.integer({ min: 0, max: 20_000 }),
        (widths, low, room) => {
          const band = (at: number) => ({ low: nanometres(0), high: nanometres(widths[at]!) });
          const bands = { bore: band(0), journal: band(1), upper: band(2), lower: band(3) };
          const chance = chanceInside(bands, { low: nanometres(low), high: nanometres(low + room) });
          const draws = 4000;
          let hits = 0;
          for (let draw = 0; draw < draws; draw += 1) {
            const [a, b, c, d] = widths.map((width) => random() * width) as [number, number, number, number];
            const clearance = a - b - c - d;
            if (clearance >= low && clearance <= low + room) hits += 1;
          }
          // Points of no width may lie on a limit; else five standard deviations.
          if (widths.some((width) => width > 0)) expect(Math.abs(chance - hits / draws)).toBeLessThan(0.04);
          if (chance > 0.05 && chance < 0.95) between += 1;
        },
      ),
      { seed: 5, numRuns: 60 },
    );
    expect(between).toBeGreaterThan(10);
  });
});

describe('marks of a job', () => {
  it('stand for sizes until something is read, and the table says which shells', () => {
    const job = markedTwin();
    const stations = mainStations(job, []);
    expect(stations.map(({ bore }) => [bore?.smallest, bore?.largest, bore?.kind])[1]).toEqual([
      um(64_006),
      um(64_012),
      'marked',
    ]);
    // The row of journals runs from the rear: M3 is 1.
    const coded = codedStations(job, {});
    expect([...coded].map(([id, { housing, journal }]) => [id, housing + journal]).sort()).toEqual([
      ['M1', 'A2'],
      ['M2', 'B2'],
      ['M3', 'C1'],
    ]);
    expect(coded.get('M3')).toMatchObject({ grades: { upper: 'Mid', lower: 'Thick' } });
    // C1: 64.012…64.018 − 59.982…59.988 − 1.994…1.996 − 1.997…1.999.
    expect(coded.get('M3')!.interval).toEqual({ tightest: um(29), loosest: um(45) });
    expect(coded.get('M3')!.inside).toBe(1);
  });

  it('can be chosen by exactly as the table says, where the halves are there', () => {
    const job = markedTwin();
    const held = heldAsCoded(job, codedStations(job, {}));
    if (!held.ok) throw new Error(held.missing.join());
    const asked = jobFit({ ...job, wishes: held.wishes }, []);
    if (!asked.ok) throw new Error(asked.reason);
    const plan = fit(asked.problem);
    expect(plan.stations.map(({ id, upper, lower }) => [id, upper, lower])).toEqual([
      ['M1', 'Thin upper', 'Mid lower'],
      ['M2', 'Mid upper', 'Thick lower'],
      ['M3', 'Mid upper', 'Thick lower'],
    ]);
    const { 'Thick lower': _, ...shells } = job.shells;
    expect(heldAsCoded({ ...job, shells }, codedStations(job, {}))).toEqual({
      ok: false,
      missing: ['Thick main lower'],
    });
  });

  it('a row that is not whole, or of something else, gives no marks', () => {
    const job = markedTwin();
    for (const text of ['A B', 'J 1 2 2', 'A B X']) {
      const changed = { ...job, marks: { ...job.marks, mainBore: { text, first: 'front' as const } } };
      expect(measuredParts(changed, [], 'mainBore')[2]!.size).toBeNull();
      expect(jobProgress(changed, []).stages.codes).toBe('attention');
      expect(jobProgress(changed, []).todo).toBe('Check the marks of the bores');
    }
  });

  it('make a fit request whose plan says the chance at every station', () => {
    const asked = jobFit(markedTwin(), []);
    if (!asked.ok) throw new Error(asked.reason);
    const { problem } = asked;
    const plan = fit(problem);
    expect(plan.status).toBe('optimal');
    expect(recheckPlan(requestOfProblem(problem), planOfSolution(plan, problem.unit))).toEqual([]);
    for (const { known, clearance } of plan.stations) {
      expect(known!.tightest).toBeLessThan(clearance);
      expect(known!.loosest).toBeGreaterThan(clearance);
      expect(known!.inside).toBe(1);
    }
    const stations = problem.stations.map((station) => ({ ...station, low: um(31), high: um(39) }));
    const [first] = fit({ ...problem, stations }).stations;
    expect(first!.known!.inside).toBeGreaterThan(0.4);
    expect(first!.known!.inside).toBeLessThan(1);
  });

  it('sizes decide, and a disagreement beyond the uncertainty is told with its reasons', () => {
    const job = markedTwin();
    const one = (size: number) => measuredParts(job, [read('mainJournal', 3, 'front-0', size)], 'mainJournal')[2]!;
    // M3 carries 1: 59.982 to 59.988.
    expect(one(59_985)).toMatchObject({ mark: '1', disagreement: null });
    expect(one(59_981)).toMatchObject({ disagreement: null, size: { nominal: um(59_981), count: 1 } });
    expect(one(59_979)).toMatchObject({
      size: { nominal: um(59_979) },
      disagreement: {
        side: 'under',
        by: um(3),
        fits: ['2'],
        reasons: ['worn', 'polished', 'reground', 'swapped-part', 'misread-mark'],
      },
    });
    expect(jobProgress(job, [read('mainJournal', 3, 'front-0', 59_979)]).stages.codes).toBe('attention');
    const bore = measuredParts(job, [read('mainBore', 1, 'front', 64_009)], 'mainBore')[0]!;
    expect(bore.disagreement?.reasons).toEqual(['worn', 'machined', 'swapped-part', 'misread-mark']);
  });

  it('alone are enough where the fitter says so', () => {
    const job = markedTwin();
    expect(jobProgress(job, []).todo).toContain('Read the bore');
    expect(jobProgress({ ...job, depth: 'codes' }, []).todo).toBe('Select shells for 3 mains');
    expect(jobProgress({ ...job, marks: {} }, [])).toMatchObject({
      next: 'codes',
      todo: 'Write down the marks before cleaning: bores, journals',
    });
    expect(jobProgress({ ...job, marks: {} }, [read('mainBore', 1, 'front', 64_003)]).next).toBe('bores');
    const { mainBore: _, ...marks } = job.marks;
    expect(jobProgress({ ...job, marks, depth: 'codes' }, []).todo).toBe('Type the marks of the bores');
  });
});

describe('shape of a journal', () => {
  it('is judged by out-of-round and taper where the sheet gives them', () => {
    const job = markedTwin();
    const readings = [
      read('mainJournal', 1, 'front-0', 59_985),
      read('mainJournal', 1, 'front-90', 59_979),
      read('mainJournal', 1, 'rear-0', 59_980),
    ];
    expect(mainStations(job, readings)[0]!.findings).toEqual([
      { feature: 'mainJournal', kind: 'out-of-round', by: um(1), side: 'over' },
      { feature: 'mainJournal', kind: 'taper', by: um(1), side: 'over' },
    ]);
  });
});

describe('undersizes', () => {
  const sheet = twinType();
  const [quarter] = sheet.main.undersizes;

  it('a ground journal picks its family, and its station is not blocked', () => {
    const job = markedTwin();
    const ground = [read('mainJournal', 1, 'front-0', 59_730), read('mainBore', 1, 'front', 64_003)];
    const station = mainStations(job, ground)[0]!;
    expect(station.findings).toEqual([]);
    expect(station.undersize?.name).toBe('0.25');
    expect(undersizeOf({ smallest: um(59_720), largest: um(59_730) }, [quarter!])).toBeNull();
    const thick = shellsOfSheet(sheet, 'main', '0.25');
    const shells = { ...job.shells, ...Object.fromEntries(thick.map((shell, at) => [`under ${at}`, shell])) };
    const asked = jobFit({ ...job, shells }, ground);
    if (!asked.ok) throw new Error(asked.reason);
    const plan = fit(asked.problem);
    for (const { id, upper, lower } of plan.stations) {
      expect(upper.startsWith('under')).toBe(id === 'M1');
      expect(lower.startsWith('under')).toBe(id === 'M1');
    }
  });

  it('a ground size is believed, but not one journal alone among standard ones: that is a thimble turn', () => {
    const half = derivedUndersize('0.50', um(500), limit(59_976, 59_988), sheet.main.grades);
    const job = markedTwin();
    const ground: JobDocument = {
      ...job,
      sheet: { ...sheet, main: { ...sheet.main, undersizes: [quarter!, half] } },
    };
    const others = (size: number) => [read('mainJournal', 2, 'front-0', size), read('mainJournal', 3, 'front-0', size)];
    const kind = (text: string, list: Reading[], on = ground) =>
      assessReading(text, null, 'mainJournal', on, list).kind;
    expect(kind('59.482', [])).toBe('fine');
    expect(kind('59.482', others(59_481))).toBe('fine');
    expect(kind('59.482', others(59_981))).toBe('doubtful');
    expect(kind('59.982', others(59_481))).toBe('doubtful');
    expect(kind('59.482', [], { ...ground, sheet: null })).toBe('doubtful');
  });

  it('never mix in a station, whatever the rules', () => {
    const shell = (id: string, wall: number, undersize: string) => ({
      id,
      family: 'main',
      series: 'A',
      half: 'either',
      wall,
      undersize,
      stock: 1,
    });
    const plan = planRequest(
      fitRequestSchema.parse({
        format: 'fettle.fit-request/1',
        unit: 'mm',
        stations: [{ id: 'M1', family: 'main', journal: 60, aim: 0.04, low: 0, high: 0.1 }],
        housings: [{ id: 'B1', family: 'main', bore: 64.165, station: 'M1' }],
        shells: [shell('std', 2, ''), shell('thick', 2.125, '0.25')],
        rules: { maxWallStep: 1, acrossSeries: true },
      }),
    );
    expect(plan.status).toBe('infeasible');
  });

  it('never mix in an accepted choice either', () => {
    const job = markedTwin();
    const [thick] = shellsOfSheet(sheet, 'main', '0.25').filter(({ half }) => half === 'lower');
    const half = (shell: string, wall: number) => ({ shell, label: shell, wall: um(wall) });
    const pair = { upper: half('Thin upper', 1992), lower: half('thick', 2117), predicted: um(30), rod: null };
    const choice = { at: '2026-02-03T04:05:06.000Z', by: 'Wren', stations: { M1: pair } };
    expect(choiceFaults({ ...job, shells: { ...job.shells, thick: thick! }, choice })).toEqual([
      {
        path: '/choice/stations/M1/lower/shell',
        message: 'M1 would have shells of two undersizes; select both of one',
      },
    ]);
  });

  it('names what a worn journal cleans up at, and the shells it would then take', () => {
    const half = derivedUndersize('0.50', um(500), limit(59_976, 59_988), sheet.main.grades);
    const family = [quarter!, half];
    expect(cleanUp([um(59_960)], family)).toMatchObject({
      undersize: { name: '0.25' },
      leastCut: um(222),
      mostCut: um(234),
    });
    // The one that is worn most decides for all.
    expect(cleanUp([um(59_960), um(59_720)], family)?.undersize.name).toBe('0.50');
    expect(cleanUp([um(59_400)], family)).toBeNull();
    expect(cleanUp([], family)).toBeNull();
    const suited = shellsAfterGrinding(
      { low: um(64_003), high: um(64_003) },
      quarter!,
      { low: um(20), high: um(50) },
      um(35),
    );
    // 64.003 − 59.726…59.738 − walls: the grade that keeps the middle at 35 µm.
    expect(suited).toMatchObject({ upper: 'Thin', lower: 'Mid' });
    expect(suited!.interval.loosest - suited!.interval.tightest).toBe(um(16));
  });
});

describe('a data sheet', () => {
  it('round-trips through JSON and through the code sheet, and tells each fault with its path', () => {
    const type = twinType();
    expect(readEngineType(JSON.parse(JSON.stringify(type)))).toEqual({ ok: true, type });
    expect(withCodeSheet(type, codeSheetOfType(type))).toEqual(type);
    expect(codeSheetOfType({ ...type, limits: { ...type.limits, mainClearance: null } }).main).toBeNull();
    const broken = readEngineType({
      ...type,
      main: { ...type.main, housing: [...type.main.housing, type.main.housing[0]] },
      limits: { ...type.limits, mainBore: { low: 2, high: 1, source: '' } },
    });
    expect(broken.ok ? [] : broken.faults.map(({ path }) => path).sort()).toEqual([
      '/limits/mainBore/low',
      '/limits/mainBore/source',
      '/main/housing/3',
    ]);
  });

  it('tells a later revision’s differences in words, and keeps what the fitter changed unless told otherwise', () => {
    const [type, job] = [twinType(), markedTwin()];
    const later: EngineType = {
      ...type,
      limits: { ...type.limits, mainClearance: limit(22, 50), mainBore: limit(64_000, 64_019) },
      main: { ...type.main, table: { ...type.main.table, A: { ...type.main.table.A, 2: 'Mid' } } },
    };
    expect(sheetDifferences(type, later)).toEqual([
      {
        place: 'Main housing bore',
        from: '64.000 to 64.018 mm (Rush book, p. 9)',
        to: '64.000 to 64.019 mm (Rush book, p. 9)',
      },
      {
        place: 'Main oil clearance',
        from: '0.020 to 0.050 mm (Rush book, p. 9)',
        to: '0.022 to 0.050 mm (Rush book, p. 9)',
      },
      { place: 'Mains: table A × 2', from: 'Thin upper, Mid lower', to: 'Mid' },
    ]);
    const own = { ...job, limits: { ...job.limits, mainClearance: limit(25, 45) } };
    expect(limitClashes(own, later).map(({ key }) => key)).toEqual(['mainClearance']);
    const origin = { ...ORIGIN, revision: 2 };
    const kept = withSheet(own, later, origin, []);
    expect([kept.limits.mainClearance, kept.limits.mainBore, kept.origin]).toEqual([
      limit(25, 45),
      limit(64_000, 64_019),
      origin,
    ]);
    expect(withSheet(own, later, origin, ['mainClearance']).limits.mainClearance).toEqual(limit(22, 50));
    expect(kept.marks).toEqual(own.marks);
  });
});
