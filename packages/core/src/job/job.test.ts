import { describe, expect, it } from 'vitest';
import {
  applyPatch,
  changesBetween,
  type Json,
  keysOfPointer,
  mergeThreeWays,
  patchStepOf,
} from '../document/mergeThreeWays.js';
import { type DrawerLine, drawerHalfSchema, freeHalves } from '../drawer/workshopDrawer.js';
import { typeLimitsSchema } from '../engineType/limits.js';
import { fit } from '../fit/fit.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import type { Feature, Slot } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import { throwsText, withThrows } from '../part/throws.js';
import { measuredParts } from '../reading/measuredParts.js';
import { choiceFaults } from '../selection/choiceFaults.js';
import { jobFit } from '../selection/jobFit.js';
import { jobsChoices, jobsFit } from '../selection/jobsFit.js';
import { plannedHalves } from '../selection/plannedHalves.js';
import { stationCandidates } from '../selection/stationCandidates.js';
import { gradedWalls } from '../shell/gradedFamily.js';
import { mainStations } from '../station/jobStations.js';
import { stationVerdict } from '../station/stationVerdict.js';
import { type JobDocument, jobDocumentSchema } from './jobDocument.js';
import { jobProgress } from './jobProgress.js';
import { newJob } from './newJob.js';

const um = (value: number) => nanometres(value * 1000);

function twin(): JobDocument {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const job = newJob('Rush Twin', 'mm', usual.layout, { block: 'aluminium', caps: 'iron', rods: 'steel' });
  const half = (side: 'upper' | 'lower', wall: number, stock: number) => ({
    family: 'main' as const,
    series: 'A',
    grade: String(wall),
    half: side,
    wall: um(wall),
    stock,
    line: null,
  });
  return {
    ...job,
    limits: {
      ...job.limits,
      mainBore: { low: um(64_000), high: um(64_019), source: 'book, p. 1' },
      mainJournal: { low: um(59_976), high: um(59_994), source: 'book, p. 2' },
      mainClearance: { low: um(20), high: um(50), source: 'book, p. 3' },
    },
    shells: {
      u1: half('upper', 1_992, 3),
      u2: half('upper', 1_998, 3),
      l1: half('lower', 1_992, 3),
      l2: half('lower', 1_998, 3),
    },
  };
}

let count = 0;
function reading(feature: Feature, station: number, slot: Slot, sizeUm: number | null): Reading {
  count += 1;
  const id = `00000000-0000-4000-8000-${String(count).padStart(12, '0')}`;
  const nm = sizeUm === null ? null : um(sizeUm);
  return {
    id,
    feature,
    station,
    slot,
    text: sizeUm === null ? 'smudged' : String(sizeUm / 1000),
    unit: 'mm',
    setting: null,
    nm,
    replaces: null,
    by: 'Wren',
    at: '2026-01-01T00:00:00.000Z',
  };
}

/** Bores of both planes and journals at 0° and 90° of main 1, 2, 3 in µm. */
function readAll(bores: [number, number][], journals: [number, number][]): Reading[] {
  return [
    ...bores.flatMap(([front, rear], at) => [
      reading('mainBore', at + 1, 'front', front),
      reading('mainBore', at + 1, 'rear', rear),
    ]),
    ...journals.flatMap(([a, b], at) => [
      reading('mainJournal', at + 1, 'front-0', a),
      reading('mainJournal', at + 1, 'front-90', b),
    ]),
  ];
}

const measured = readAll(
  [
    [64_012, 64_012],
    [64_008, 64_010],
    [64_014, 64_014],
  ],
  [
    [59_981, 59_981],
    [59_984, 59_986],
    [59_982, 59_982],
  ],
);

describe('the mains of a job', () => {
  it('judges aim, low and high limit on nominal, tightest and loosest', () => {
    const [, second] = mainStations(twin(), measured);
    const candidate = stationCandidates(twin(), second!).find((one) => one.upper === 'u2' && one.lower === 'l2')!;
    // By hand, µm: nominal 64 009 − 59 985 − 2 · 1 998 = 28; tightest 64 008 − 59 986 − 3 996 = 26; loosest 64 010 − 59 984 − 3 996 = 30.
    expect(candidate.clearance).toEqual({ nominal: um(28), tightest: um(26), loosest: um(30) });
    expect(candidate).toMatchObject({
      deviation: um(-7),
      mixed: false,
      verdict: { state: 'inside', margin: um(6), side: 'low' },
    });
  });

  it('puts the thinner half of a mixed pair on the cap side of an aluminium block with iron caps', () => {
    const [first] = mainStations(twin(), measured);
    const mixed = stationCandidates(twin(), first!).filter((candidate) => candidate.mixed);
    expect(mixed.map(({ upper, lower }) => `${upper} ${lower}`)).toEqual(['u2 l1']);
  });

  it('never turns a missing or unreadable reading into a size', () => {
    const [first] = mainStations(twin(), [reading('mainBore', 1, 'front', null)]);
    expect(first).toMatchObject({ bore: null, journal: null });
    const bores = measuredParts(twin(), [reading('mainBore', 1, 'front', null)], 'mainBore');
    expect(bores[0]).toMatchObject({ name: 'M1', size: null, missing: 2 });
    expect(stationCandidates(twin(), first!)).toEqual([]);
    expect(stationVerdict(twin(), first!, null).state).toBe('not-measured');
  });

  it('blocks a main whose size is outside the data sheet', () => {
    const worn = readAll([[64_025, 64_012]], [[59_981, 59_970]]);
    const [first] = mainStations(twin(), worn);
    expect(first!.findings).toEqual([
      { feature: 'mainBore', kind: 'size', by: um(6), side: 'over' },
      { feature: 'mainJournal', kind: 'size', by: um(6), side: 'under' },
    ]);
    expect(stationVerdict(twin(), first!, null).state).toBe('blocked');
  });

  it('says nothing about limits that the data sheet lacks', () => {
    const job = {
      ...twin(),
      limits: typeLimitsSchema.parse({}),
    };
    const [first] = mainStations(job, measured);
    const halves = {
      upper: { shell: 'u1', label: 'u1', wall: um(1_992) },
      lower: { shell: 'l1', label: 'l1', wall: um(1_992) },
    };
    expect(first!.aim).toBeNull();
    expect(stationVerdict(job, first!, halves)).toMatchObject({
      state: 'chosen',
      judged: null,
      clearance: { nominal: um(47) },
    });
    expect(jobFit(job, measured)).toMatchObject({ ok: false, reason: 'no-limits' });
  });

  it.each([
    [2_000, 'tight'],
    [1_998, 'close'],
    [1_992, 'inside'],
    [1_982, 'loose'],
  ] as const)('with a wall of %i µm is %s', (wall, state) => {
    const [, second] = mainStations(
      twin(),
      readAll(
        [
          [64_012, 64_012],
          [64_012, 64_012],
        ],
        [
          [59_981, 59_981],
          [59_995 - 1, 59_994],
        ],
      ),
    );
    const half = { shell: 's', label: 's', wall: um(wall) };
    const verdict = stationVerdict(twin(), second!, { upper: half, lower: half });
    // Clearance 18 µm − 2 · (wall − 2 000) µm against 20 to 50 µm; within 3 µm of a limit is close.
    expect(verdict.clearance!.nominal).toBe(um(18 - 2 * (wall - 2_000)));
    expect(verdict.state).toBe(state);
  });

  it('aims by rule, with the extra of a station', () => {
    const job = twin();
    const aims = (rules: Partial<JobDocument['rules']>) =>
      mainStations({ ...job, rules: { ...job.rules, ...rules } }, measured).map(({ aim }) => aim);
    expect(aims({})).toEqual([um(35), um(35), um(35)]);
    expect(aims({ extras: { M3: um(12) } })).toEqual([um(35), um(35), um(47)]);
    expect(aims({ aim: { kind: 'figure', clearance: um(30) } })[0]).toBe(um(30));
    // 0.001 in per inch of journal: 59.981 mm · 0.001 = 59.981 µm.
    expect(aims({ aim: { kind: 'per-inch' } })[0]).toBe(59_981);
  });
});

describe('the choice for a job', () => {
  it('asks for the measured mains with the limits of the sheet and the spread of their readings, and plans them', () => {
    const asked = jobFit(twin(), measured);
    if (!asked.ok) throw new Error(asked.reason);
    expect(asked.problem.stations[1]).toMatchObject({
      id: 'M2',
      journal: um(59_985),
      aim: um(35),
      low: um(20),
      high: um(50),
      journalReadings: { low: um(59_984), high: um(59_986) },
    });
    const plan = fit(asked.problem);
    const halves = plannedHalves(twin(), asked, plan);
    // By hand, µm: gaps over both walls 4031, 4024, 4032. M1: 3 990 → 41 (d 6, mixed), 3 996 → 35 (d 0). M2: 3 984 → 40 (d 5),
    // 3 990 → 34 (d −1, mixed: 2 + 4 = 6). M3: 3 996 → 36 (d 1). Stock 3 each: all fit.
    expect(
      Object.entries(halves).map(([id, { upper, lower, predicted }]) => [id, upper.shell, lower.shell, predicted]),
    ).toEqual([
      ['M1', 'u2', 'l2', um(35)],
      ['M2', 'u2', 'l1', um(34)],
      ['M3', 'u2', 'l2', um(36)],
    ]);
    expect(plan.cost).toBe(0 + 6 + 1);
    const accepted = { ...twin(), choice: { at: '2026-01-01T00:00:00.000Z', by: 'Wren', stations: halves } };
    expect(choiceFaults(accepted)).toEqual([]);
    expect(jobDocumentSchema.safeParse(accepted).success).toBe(true);
    const short = { ...accepted, shells: { ...accepted.shells, u2: { ...accepted.shells.u2!, stock: 2 } } };
    expect(choiceFaults(short)).toMatchObject([{ path: '/choice/stations/M3/upper/shell' }]);
  });

  it('leaves out what is not measured or blocked, and says so', () => {
    const some = measured.filter(({ station, feature }) => station !== 2 || feature !== 'mainJournal');
    expect(jobFit(twin(), some)).toMatchObject({ ok: true, leftOut: [{ station: 'M2', reason: 'not-measured' }] });
    const oval = readAll([[64_000, 64_019]], [[59_976, 59_994]]);
    // Readings so far apart are asked about; confirmed, they count.
    const taken = {
      instrument: '',
      needle: 'bigger' as const,
      celsius: null,
      gaugeCelsius: null,
      reason: '',
      confirmed: true,
    };
    expect(
      jobFit(
        twin(),
        oval.map((one) => ({ ...one, taken })),
      ).leftOut[0],
    ).toEqual({ station: 'M1', reason: 'out-of-round' });
  });
});

describe('the next thing to do', () => {
  it('follows the order of work', () => {
    const job = twin();
    const bare = { ...job, limits: { ...job.limits, mainBore: null }, shells: {} };
    expect(jobProgress(bare, [])).toMatchObject({ next: 'data', todo: 'Enter the main bore limits with their source' });
    expect(jobProgress(job, [])).toMatchObject({ next: 'bores', todo: 'Read the bore at M1, M2, M3' });
    const bores = measured.filter(({ feature }) => feature === 'mainBore');
    expect(jobProgress(job, bores)).toMatchObject({ next: 'journals', stages: { bores: 'done', journals: 'open' } });
    expect(jobProgress({ ...job, shells: {} }, measured)).toMatchObject({ next: 'drawer' });
    expect(jobProgress(job, measured)).toMatchObject({ next: 'choose', todo: 'Select shells for 3 mains' });
    const misread = { ...bores[0]!, text: '64.512', nm: um(64_512) };
    expect(jobProgress(job, [misread])).toMatchObject({
      next: 'bores',
      todo: 'Check M1: “64.512” cannot be right',
    });
    expect(jobProgress(job, readAll([[64_040, 64_012]], []))).toMatchObject({
      next: 'bores',
      stages: { bores: 'attention' },
    });
  });
});

describe('layouts and graded families', () => {
  it('spreads pins over the bays', () => {
    const five = usualLayout(5, 8, 2, 5);
    expect(five).toMatchObject({ ok: true });
    if (five.ok)
      expect(five.layout.pins.map(({ bay, angle, rods }) => [bay, angle, rods])).toEqual([
        [1, 0, 2],
        [2, 90, 2],
        [3, 270, 2],
        [4, 180, 2],
      ]);
    expect(usualLayout(4, 7, 1, null)).toMatchObject({ ok: false });
    expect(usualLayout(3, 3, 2, null)).toMatchObject({ ok: false });
  });

  it('takes throws as one writes them', () => {
    const usual = usualLayout(5, 4, 1, 3);
    if (!usual.ok) throw new Error(usual.message);
    expect(throwsText(usual.layout)).toBe('0, 180, 180, 0');
    const changed = withThrows(usual.layout, '0 90; 270,180°');
    expect(changed.ok && changed.layout.pins.map(({ angle }) => angle)).toEqual([0, 90, 270, 180]);
    expect(withThrows(usual.layout, '0, 180, 180')).toMatchObject({
      ok: false,
      message: '4 pins, but 3 angles; enter one per pin.',
    });
    expect(withThrows(usual.layout, '0, 180, -180, 0').ok).toBe(false);
  });

  it('counts walls from the first by equal steps', () => {
    const family = gradedWalls({ firstWall: um(1_989), step: um(3), count: 3, names: ['Teal', 'Sand'] });
    expect(family).toEqual({
      ok: true,
      grades: [
        { grade: 'Teal', wall: um(1_989) },
        { grade: 'Sand', wall: um(1_992) },
        { grade: '3', wall: um(1_995) },
      ],
    });
    expect(gradedWalls({ firstWall: um(3), step: um(-2), count: 3, names: [] })).toMatchObject({ ok: false });
    expect(gradedWalls({ firstWall: um(3), step: nanometres(0), count: 2, names: [] })).toMatchObject({ ok: false });
    expect(gradedWalls({ firstWall: um(3), step: um(1), count: 2, names: ['2', ''] })).toMatchObject({ ok: false });
  });
});

describe('changes by two people', () => {
  const base: Json = { name: 'a', limits: { low: 1, high: 2 }, list: [1, { x: 1, y: 2 }], shells: {} };

  it('merges changes to different places', () => {
    const ours: Json = { ...base, limits: { low: 5, high: 2 }, shells: { a: { wall: 1 } } };
    const theirs: Json = { ...base, limits: { low: 1, high: 9 }, shells: { b: { wall: 2 } } };
    const { document, clashes } = mergeThreeWays(base, ours, theirs);
    expect(clashes).toEqual([]);
    expect(document).toEqual({ ...base, limits: { low: 5, high: 9 }, shells: { a: { wall: 1 }, b: { wall: 2 } } });
  });

  it('asks where both changed the same place', () => {
    const { document, clashes } = mergeThreeWays(base, { ...base, name: 'ours' }, { ...base, name: 'theirs' });
    expect(document).toMatchObject({ name: 'theirs' });
    expect(clashes).toEqual([{ path: ['name'], from: 'a', to: 'ours', theirs: 'theirs' }]);
    expect(mergeThreeWays(base, { ...base, name: 'same' }, { ...base, name: 'same' }).clashes).toEqual([]);
  });

  it('does not mind the order of members, and takes changes apart and together again', () => {
    const turned: Json = { shells: {}, list: [1, { y: 2, x: 1 }], limits: { high: 2, low: 1 }, name: 'a' };
    expect(changesBetween(base, turned)).toEqual([]);
    const after: Json = { name: 'b', limits: { low: 1 }, list: [], shells: { 'a/b~c': 1 } };
    const steps = changesBetween(base, after).map(patchStepOf);
    expect(applyPatch(base, steps)).toEqual(after);
    // Escapes of RFC 6901, section 5.
    expect(keysOfPointer('/a~1b/m~0n')).toEqual(['a/b', 'm~n']);
  });
});

describe('the rods of a job', () => {
  const limit = (low: number, high: number) => ({ low: um(low), high: um(high), source: 'book, p. 4' });
  const withRods = (parts: Partial<JobDocument> = {}): JobDocument => {
    const job = twin();
    const rodShell = (side: 'upper' | 'lower', wall: number) => ({
      family: 'rod' as const,
      series: 'A',
      grade: String(wall),
      half: side,
      wall: um(wall),
      stock: 1,
      line: null,
    });
    return {
      ...job,
      withRods: true,
      limits: { ...job.limits, bigEnd: limit(51_000, 51_018), pin: limit(47_980, 47_998), rodClearance: limit(30, 40) },
      measuring: { ...job.measuring, slots: { ...job.measuring.slots, bigEnd: ['front'], pin: ['front-0'] } },
      shells: {
        ...job.shells,
        thinU: rodShell('upper', 1_490),
        thinL: rodShell('lower', 1_490),
        thickU: rodShell('upper', 1_496),
        thickL: rodShell('lower', 1_496),
      },
      ...parts,
    };
  };
  const rods = [
    reading('bigEnd', 1, 'front', 51_013),
    reading('bigEnd', 2, 'front', 51_007),
    reading('pin', 1, 'front-0', 47_992),
    reading('pin', 2, 'front-0', 47_986),
  ];
  const planOf = (job: JobDocument) => {
    const asked = jobFit(job, [...measured, ...rods]);
    if (!asked.ok) throw new Error(asked.reason);
    const plan = fit(asked.problem);
    return { asked, plan, halves: plannedHalves(job, asked, plan) };
  };

  it('go to the pins where the halves on hand serve them, and are named in the choice', () => {
    // Gaps: R1 on P1 3.021, R1 on P2 3.027, R2 on P1 3.015, R2 on P2 3.021; one set for 3.015 and one for 3.027.
    const { plan, halves } = planOf(withRods());
    expect(plan.status).toBe('optimal');
    expect([halves.P1?.rod, halves.P2?.rod, halves.M1?.rod]).toEqual([2, 1, null]);
    expect(halves.P2?.upper.shell).toBe('thickU');
  });

  it('stay on a pin where they are kept, and then nothing fits here, with letting the rod move as a remedy', () => {
    const { plan } = planOf(
      withRods({ rods: { 1: { mark: 'B', pin: 1 } }, rules: { ...twin().rules, mixedHalves: false } }),
    );
    expect(plan.status).toBe('infeasible');
    expect(plan.conflicts[0]!.remedies!.map(({ kind }) => kind)).toContain('move-rod');
  });

  it('carry what is held and forbidden at a pin into the problem, by its own ids', () => {
    const wishes = { P2: { upper: 'thickU', lower: null, noShells: ['thinL'], unmixed: true } };
    const { asked } = planOf(withRods({ wishes }));
    expect(asked.problem.wishes).toEqual({
      hold: [{ station: 'P2', upper: 'thickU' }],
      forbid: [
        { station: 'P2', shell: 'thinL' },
        { station: 'P2', mixed: true },
      ],
    });
  });

  it('are judged pairing by pairing: one rough rod does not make every pin out of round', () => {
    const first = rods.find(({ feature, station }) => feature === 'bigEnd' && station === 1)!;
    // Two planes 40 µm apart: no clearance at any pin is inside at both.
    const apart = { ...first, id: '00000000-0000-4000-8000-0000000000ff', slot: 'rear' as const };
    const rough = { ...apart, nm: nanometres(first.nm! + 40_000) };
    const job = withRods();
    const asked = jobFit({ ...job, limits: { ...job.limits, bigEnd: null } }, [...measured, ...rods, rough]);
    if (!asked.ok) throw new Error(asked.reason);
    // The pins take part; only the rough rod itself fits nowhere.
    const plan = fit(asked.problem);
    expect(asked.problem.stations.filter(({ family }) => family === 'rod').length).toBeGreaterThan(1);
    expect(plan.status).toBe('infeasible');
    expect(plan.conflicts[0]!.message).toMatch(/R1|need \d housings/u);
    const others = asked.problem.housings.filter(
      ({ family, boreReadings }) => family === 'rod' && boreReadings === undefined,
    );
    expect(others.length).toBeGreaterThan(0);
  });

  it('that are kept stay: unmeasured, blocked or two on one pin, each is named and the other pins are chosen for', () => {
    const keeping = (kept: Record<string, number>) => {
      const job = withRods();
      const names = new Set([...Object.keys(job.rods), ...Object.keys(kept)]);
      const pins = [...names].map((rod) => [rod, { mark: '', pin: kept[rod] ?? null }] as const);
      return { ...job, rods: Object.fromEntries(pins) };
    };
    const stationsOf = (asked: ReturnType<typeof jobFit>) =>
      asked.ok ? asked.problem.stations.filter(({ family }) => family === 'rod').map(({ id }) => id) : [];
    const whole = stationsOf(jobFit(withRods(), [...measured, ...rods]));
    const unread = rods.filter(({ feature, station }) => feature !== 'bigEnd' || station !== 1);
    const one = jobFit(keeping({ 1: 1 }), [...measured, ...unread]);
    expect(one.leftOut).toContainEqual({ station: 'P1', reason: 'rod-not-measured', rods: ['R1'] });
    expect(stationsOf(one)).toEqual(whole.filter((id) => id !== 'P1'));
    const two = jobFit(keeping({ 1: 1, 2: 1 }), [...measured, ...rods]);
    expect(two.leftOut).toContainEqual({ station: 'P1', reason: 'two-rods', rods: ['R1', 'R2'] });
    if (!two.ok) throw new Error(two.reason);
    expect(two.problem.housings.some(({ id }) => id === 'R1' || id === 'R2')).toBe(false);
    const huge = rods.map((reading) =>
      reading.feature === 'bigEnd' && reading.station === 1
        ? { ...reading, nm: nanometres(reading.nm! + 100_000) }
        : reading,
    );
    const limits = { ...withRods().limits, bigEnd: { low: um(51_000), high: um(51_016), source: 'Rush book, p. 9' } };
    const blocked = jobFit({ ...keeping({ 1: 1 }), limits }, [...measured, ...huge]);
    expect(blocked.leftOut).toContainEqual({ station: 'P1', reason: 'rod-blocked', rods: ['R1'] });
  });

  it('are left out by name while they are not measured, and never stop the mains', () => {
    const asked = jobFit(withRods(), [...measured, ...rods.slice(1)]);
    expect(asked.ok && asked.problem.stations.map(({ family }) => family)).toEqual(['main', 'main', 'main']);
    expect(asked.leftOut).toEqual(
      expect.arrayContaining([
        { station: 'R1', reason: 'not-measured' },
        { station: 'P1', reason: 'no-rod' },
      ]),
    );
  });

  it('are asked for after the mains, by their own names, only where they are part of the job', () => {
    const { next, todo, stages } = jobProgress(withRods(), [...measured, rods[0]!]);
    expect([next, todo]).toEqual(['bigEnds', 'Read the big end at R2']);
    expect(stages.pins).toBe('open');
    expect(jobProgress(twin(), measured).stages.bigEnds).toBeUndefined();
  });

  it('cannot be on two pins at once in an accepted choice', () => {
    const job = withRods();
    const { halves } = planOf(job);
    const twice = { ...halves, P1: { ...halves.P1!, rod: 1 } };
    const faults = choiceFaults({ ...job, choice: { at: '2026-01-01T00:00:00.000Z', by: 'Wren', stations: twice } });
    expect(faults).toEqual([{ path: '/choice/stations/P2/rod', message: 'rod R1 is already on P1' }]);
  });
});

describe('engines fitted together', () => {
  const lineId = (at: number) => `00000000-0000-4000-8000-00000000000${at}`;
  const line = (at: number, half: 'upper' | 'lower', wall: number, onHand: number): DrawerLine => ({
    id: lineId(at),
    version: 1,
    half: drawerHalfSchema.parse({ family: 'main', series: 'A', grade: String(wall), half, wall: um(wall), onHand }),
    reservations: [],
    used: 0,
    fittedHere: 0,
  });
  const drawer = [
    line(1, 'upper', 1_992, 4),
    line(2, 'upper', 1_998, 4),
    line(3, 'lower', 1_992, 4),
    line(4, 'lower', 1_998, 4),
  ];
  const sharing = (parts: Partial<JobDocument> = {}): JobDocument => {
    const job = twin();
    const shells = Object.entries(job.shells).map(([id, shell], at) => [
      id,
      { ...shell, stock: null, line: lineId(at + 1) },
    ]);
    return { ...job, shells: Object.fromEntries(shells), ...parts };
  };
  const jobs = ['a', 'b'].map((id) => ({ id, document: sharing({ name: `Rush Twin ${id}` }), readings: measured }));

  it('make one request on the halves of the drawer, and each gets its own choice back', () => {
    const joint = jobsFit(jobs, drawer);
    const plan = fit(joint.problem!);
    expect(plan.status).toBe('optimal');
    expect(plan.stations).toHaveLength(6);
    const choices = jobsChoices(joint, plan);
    const used = choices.flatMap(({ stations }) => Object.values(stations).map(({ upper }) => upper.shell));
    for (const shell of ['u1', 'u2']) expect(used.filter((one) => one === shell).length).toBeLessThanOrEqual(4);
    for (const { job, stations } of choices) {
      expect(
        choiceFaults({ ...job.document, choice: { at: '2026-01-01T00:00:00.000Z', by: 'Wren', stations } }),
      ).toEqual([]);
    }
  });

  it('keep undersizes and bands of the halves: a plan for several engines is, for one alone, its own plan', () => {
    const kinds = drawer.map((line, at) => ({
      ...line,
      half: {
        ...line.half,
        ...(at % 2 === 0 ? { undersize: '0.25' } : {}),
        band: { low: nanometres(line.half.wall - 1000), high: nanometres(line.half.wall + 1000) },
      },
    }));
    const document = sharing();
    const shells = Object.fromEntries(
      Object.entries(document.shells).map(([id, shell]) => {
        const { half } = kinds.find((line) => line.id === shell.line)!;
        return [
          id,
          { ...shell, band: half.band, ...(half.undersize === undefined ? {} : { undersize: half.undersize }) },
        ];
      }),
    );
    const job = { id: 'a', document: { ...document, shells }, readings: measured };
    const joint = jobsFit([job], kinds);
    expect(joint.problem!.shells.map(({ undersize, wallBand }) => [undersize, wallBand !== undefined])).toEqual([
      ['0.25', true],
      ['', true],
      ['0.25', true],
      ['', true],
    ]);
    const asked = jobFit(job.document, measured, new Map(kinds.map(({ id, half }) => [id, half.onHand])));
    if (!asked.ok) throw new Error(asked.reason);
    const [single, together] = [asked.problem, joint.problem!].map((problem) => fit(problem));
    expect(together!.cost).toBe(single!.cost);
    expect(together!.stations.map(({ clearance, known }) => [clearance, known])).toEqual(
      single!.stations.map(({ clearance, known }) => [clearance, known]),
    );
  });

  it('leave what others have reserved, and share out anew what is their own', () => {
    const reservations = [
      { job: 'a', name: 'Rush Twin a', count: 2 },
      { job: 'x', name: 'another', count: 1 },
    ];
    const joint = jobsFit(jobs, [{ ...drawer[0]!, reservations }, ...drawer.slice(1)]);
    expect(joint.problem!.shells[0]!.stock).toBe(3);
    expect(freeHalves({ ...drawer[0]!, reservations }, 'a')).toBe(3);
    expect(freeHalves({ ...drawer[0]!, reservations }, null)).toBe(1);
  });

  it('names the engines that cannot take part, and keeps one engine’s ban on mixed walls to itself', () => {
    const others = [
      ...jobs,
      { id: 'own', document: twin(), readings: measured },
      { id: 'bare', document: sharing(), readings: [] },
      { id: 'rules', document: sharing({ rules: { ...twin().rules, tightWeight: 5 } }), readings: measured },
      { id: 'plain', document: sharing({ rules: { ...twin().rules, mixedHalves: false } }), readings: measured },
    ];
    const joint = jobsFit(others, drawer);
    expect(joint.leftOut.map(({ job, reason }) => [job, reason])).toEqual([
      ['own', 'not-on-the-drawer'],
      ['bare', 'nothing-to-choose'],
      ['rules', 'other-rules'],
    ]);
    const { stations, wishes } = joint.problem!;
    const engines = wishes.forbid.map(({ station }) => stations.find(({ id }) => id === station)!.engine);
    expect(engines).toEqual(Array(3).fill('plain'));
  });
});
