import { describe, expect, it } from 'vitest';
import { type DrawerLine, drawerHalfSchema } from '../drawer/workshopDrawer.js';
import { type EngineType, engineTypeSchema } from '../engineType/engineType.js';
import { newEngineType } from '../engineType/newEngineType.js';
import { nanometres } from '../measure/nanometres.js';
import { seeded } from '../measure/seeded.js';
import { kitAdvice } from '../order/kitAdvice.js';
import { usualLayout } from '../part/crankLayout.js';
import type { Feature } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import type { JobDocument } from './jobDocument.js';
import { jobOfType } from './jobOfType.js';
import { type KitWishes, kitQuestionOfJob } from './kitQuestions.js';

const um = (value: number) => nanometres(Math.round(value * 1000));
const limit = (low: number, high: number) => ({ low: um(low), high: um(high), source: 'Rush book, p. 9' });
const grade = (mark: string, wall: number) => ({ mark, low: um(wall - 1), high: um(wall + 1) });

function twin(parts: Partial<EngineType> = {}): EngineType {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  return engineTypeSchema.parse({
    ...newEngineType('Rush Twin', 'mm', usual.layout),
    limits: {
      mainBore: limit(64_000, 64_018),
      mainJournal: limit(59_976, 59_988),
      mainClearance: limit(20, 50),
      bigEnd: limit(48_000, 48_016),
      pin: limit(44_976, 44_992),
      rodClearance: limit(20, 52),
    },
    main: {
      series: 'Marsh',
      housing: [
        { mark: 'A', low: um(64_000), high: um(64_006) },
        { mark: 'B', low: um(64_008), high: um(64_014) },
      ],
      grades: [grade('Thin', 1992), grade('Thick', 1998)],
    },
    rod: { grades: [grade('Only', 1494)] },
    ...parts,
  });
}

function jobOf(type: EngineType, parts: Partial<JobDocument> = {}): JobDocument {
  return {
    ...jobOfType('Rush Twin 3', type, { type: '7a100000-0000-4000-8000-000000000001', revision: 1 }, true),
    ...parts,
  };
}

let count = 0;
function read(feature: Feature, station: number, sizeUm: number): Reading {
  count += 1;
  const id = `00000000-0000-4000-8000-${String(count).padStart(12, '0')}`;
  const slot = feature === 'mainBore' || feature === 'bigEnd' ? 'front' : 'front-0';
  const at = '2026-02-03T04:05:06.000Z';
  return {
    id,
    feature,
    station,
    slot,
    text: 'x',
    unit: 'mm',
    setting: null,
    replaces: null,
    by: 'Wren',
    at,
    nm: um(sizeUm),
  };
}

const wishes = (parts: Partial<KitWishes> = {}): KitWishes => ({
  families: ['main', 'rod'],
  rules: {},
  engines: 500,
  seed: 1,
  drawer: [],
  ...parts,
});

describe('the question what to order', () => {
  it('takes all that bands, or limits without bands, leave open', () => {
    const asked = kitQuestionOfJob(jobOf(twin()), [], wishes());
    if (!asked.ok) throw new Error(asked.missing.join());
    const { stations, shells } = asked.question;
    expect(stations.map(({ id }) => id)).toEqual(['M1', 'M2', 'M3', 'P1', 'P2']);
    // From the smallest to the largest mark; the journal has no marks, so its limits.
    expect(stations[0]).toMatchObject({
      bore: { low: 64, high: 64.014 },
      journal: { low: 59.976, high: 59.988 },
      aim: 0.035,
      low: 0.02,
      high: 0.05,
    });
    expect(shells.map(({ id, stock }) => [id, stock])).toEqual([
      ['Thin upper (Marsh)', 0],
      ['Thin lower (Marsh)', 0],
      ['Thick upper (Marsh)', 0],
      ['Thick lower (Marsh)', 0],
      ['Only rod upper (Rush Twin)', 0],
      ['Only rod lower (Rush Twin)', 0],
    ]);
  });

  it('takes readings as they are, marks by their bands, and a rod that is kept on its pin', () => {
    const job = jobOf(twin(), {
      marks: { mainBore: { text: 'A B A', first: 'front' } },
      rods: { 2: { mark: '', pin: 1 } },
    });
    const readings = [read('mainBore', 1, 64_010), read('mainJournal', 1, 59_980), read('bigEnd', 2, 48_004)];
    const asked = kitQuestionOfJob(job, readings, wishes());
    if (!asked.ok) throw new Error(asked.missing.join());
    const byId = new Map(asked.question.stations.map((station) => [station.id, station]));
    expect(byId.get('M1')).toMatchObject({ bore: { low: 64.01, high: 64.01 }, journal: { low: 59.98, high: 59.98 } });
    expect(byId.get('M2')).toMatchObject({ bore: { low: 64.008, high: 64.014 } });
    expect(byId.get('P1')).toMatchObject({ bore: { low: 48.004, high: 48.004 }, fixed: true });
    expect(byId.get('P2')).toMatchObject({ bore: { low: 48, high: 48.016 }, fixed: false });
    // The more is known, the smaller the kit that is sure.
    const sure = kitAdvice(asked.question, 0.95, seeded(1))!;
    const open = kitQuestionOfJob(jobOf(twin()), [], wishes());
    if (!open.ok) throw new Error(open.missing.join());
    const halves = (list: readonly { count: number }[]) => list.reduce((sum, one) => sum + one.count, 0);
    expect(halves(sure.shelf)).toBeLessThanOrEqual(halves(kitAdvice(open.question, 0.95, seeded(1))!.shelf));
  });

  it('counts what is free in the workshop’s drawer, with its price, and not what others have reserved', () => {
    const half = { family: 'main', series: 'Marsh', grade: 'Thin', wall: 1_992_000, onHand: 5, price: 6 };
    const line = (side: 'upper' | 'lower', at: number): DrawerLine => ({
      id: `00000000-0000-4000-8000-00000000000${at}`,
      version: 1,
      half: drawerHalfSchema.parse({ ...half, half: side }),
      reservations: [{ job: '00000000-0000-4000-8000-0000000000aa', name: 'Reed 6', count: 2 }],
      used: 0,
      fittedHere: 0,
    });
    const numbered = { ...line('upper', 3), half: { ...line('upper', 3).half, number: '7' } };
    const drawer = [line('upper', 1), line('lower', 2), numbered];
    const asked = kitQuestionOfJob(jobOf(twin()), [], wishes({ families: ['main'], drawer }));
    if (!asked.ok) throw new Error(asked.missing.join());
    expect(asked.question.shells.slice(0, 2)).toMatchObject([
      { id: 'Thin upper (Marsh)', stock: 3, price: 6 },
      { id: 'Thin lower (Marsh)', stock: 3, price: 6 },
    ]);
  });

  it('asks for the grades of an undersize where a journal was ground to it', () => {
    const type = twin();
    const undersize = { name: '0.25', amount: um(250), journal: limit(59_726, 59_738), grades: [grade('Thin', 2117)] };
    const job = jobOf({
      ...type,
      main: { ...type.main, undersizes: [{ ...undersize, grades: [{ ...grade('Thin', 2117), paint: null }] }] },
    });
    const asked = kitQuestionOfJob(job, [read('mainJournal', 2, 59_730)], wishes({ families: ['main'] }));
    if (!asked.ok) throw new Error(asked.missing.join());
    expect(asked.question.shells.filter(({ undersize: name }) => name === '0.25').map(({ id }) => id)).toEqual([
      'Thin upper (Marsh 0.25 under)',
      'Thin lower (Marsh 0.25 under)',
    ]);
  });

  it('goes by the aim that the job has, and leaves out and names a station that no shell can cure', () => {
    const base = jobOf(twin());
    const job = jobOf(twin(), {
      rules: { ...base.rules, aim: { kind: 'figure', clearance: um(30) }, extras: { M3: um(5) } },
    });
    const asked = kitQuestionOfJob(job, [read('mainBore', 2, 64_025)], wishes({ families: ['main'] }));
    if (!asked.ok) throw new Error(asked.missing.join());
    expect(asked.question.stations.map(({ id, aim }) => [id, aim])).toEqual([
      ['M1', 0.03],
      ['M3', 0.035],
    ]);
    expect(asked.blocked).toEqual(['M2']);
    const worn = [1, 2, 3].map((main) => read('mainJournal', main, 59_950));
    expect(kitQuestionOfJob(job, worn, wishes({ families: ['main'] }))).toEqual({ ok: false, missing: [] });
  });

  it('names a station whose readings spread further than the limits are apart, instead of failing over it', () => {
    const type = twin();
    const job = jobOf(type);
    const readings = [read('mainBore', 1, 64_010), { ...read('mainBore', 1, 64_050), slot: 'rear' as const }];
    const asked = kitQuestionOfJob({ ...job, limits: { ...job.limits, mainBore: limit(63_900, 64_100) } }, readings, {
      families: ['main'],
      rules: {},
      engines: 20,
      seed: 1,
      drawer: [],
    });
    expect(asked).toMatchObject({ ok: true, blocked: ['M1'] });
  });

  it('says what the data sheet lacks, and assumes nothing in its place', () => {
    const type = twin();
    const bare = {
      ...type,
      limits: { ...type.limits, mainClearance: null, pin: null },
      rod: { ...type.rod, grades: [] },
    };
    const asked = kitQuestionOfJob(jobOf(bare), [], wishes());
    expect(asked).toEqual({ ok: false, missing: ['mainClearance', { gradesOf: 'rod' }, 'pin'] });
  });
});

describe('grade marks as often as the workshop saw them', () => {
  const seen = {
    mainBore: [
      { low: um(64_000), high: um(64_006), count: 9 },
      { low: um(64_008), high: um(64_014), count: 1 },
    ],
  };

  it('stand for parts of which nothing is known, and for no other', () => {
    const job = jobOf(twin());
    const asked = kitQuestionOfJob(job, [read('mainBore', 1, 64_003)], wishes({ families: ['main'], seen }));
    if (!asked.ok) throw new Error(asked.missing.join());
    expect(asked.question.seen).toEqual({
      mainBore: [
        { low: 64, high: 64.006, count: 9 },
        { low: 64.008, high: 64.014, count: 1 },
      ],
    });
    expect(asked.question.stations.map(({ boreSeen, journalSeen }) => [boreSeen, journalSeen])).toEqual([
      [undefined, undefined],
      ['mainBore', undefined],
      ['mainBore', undefined],
    ]);
  });

  it('are left out where nobody asked for them', () => {
    const asked = kitQuestionOfJob(jobOf(twin()), [], wishes({ families: ['main'] }));
    expect(asked.ok && [asked.question.seen, asked.question.stations[0]!.boreSeen]).toEqual([{}, undefined]);
  });
});
