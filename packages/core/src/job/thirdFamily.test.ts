import { describe, expect, it, vi } from 'vitest';

/*
 * Camshaft bearings: bushes in the block, four of them. A row of its own and two measured features are all that is added here; everything else is
 * made from the tables. Invented figures.
 */
vi.mock('../part/bearingRows.js', async (original) => {
  const rows = await original<typeof import('../part/bearingRows.js')>();
  const { main } = rows.FAMILY_ROWS;
  const { mainBore, mainJournal } = rows.FEATURE_ROWS;
  return {
    ...rows,
    FAMILY_ROWS: {
      ...rows.FAMILY_ROWS,
      cam: {
        ...main,
        word: 'camshaft bearing',
        words: 'camshaft bearings',
        name: 'Camshaft bearings',
        halfWord: 'camshaft ',
        heads: { station: 'Camshaft', housing: 'Bore', journal: 'Journal' },
        clearance: { key: 'camClearance', name: 'Camshaft oil clearance', word: 'camshaft oil clearance' },
        isInLine: false,
        count: () => 4,
      },
    },
    FEATURE_ROWS: {
      ...rows.FEATURE_ROWS,
      camBore: {
        ...mainBore,
        family: 'cam',
        prefix: 'C',
        name: 'Camshaft bore',
        limitName: 'Camshaft bore',
        stage: 'camBores',
        stageName: 'Camshaft bores',
      },
      camJournal: {
        ...mainJournal,
        family: 'cam',
        prefix: 'C',
        name: 'Camshaft journal',
        limitName: 'Camshaft journal',
        stage: 'camJournals',
        stageName: 'Camshaft journals',
      },
    },
  };
});

// As `npm run formats` writes it down.
vi.doMock('./stageRows.js', async () => ({ STAGE_ROWS: (await import('./stages.js')).stageRows() }));

const { fit } = await import('../fit/fit.js');
const { limitName, LIMIT_KEYS } = await import('../engineType/limits.js');
const { jobDocumentSchema } = await import('./jobDocument.js');
const { jobFacts } = await import('./jobFacts.js');
const { jobFit } = await import('../selection/jobFit.js');
const { plannedHalves } = await import('../selection/plannedHalves.js');
const { jobProgress } = await import('./jobProgress.js');
const { newJob } = await import('./newJob.js');
const { placeWords } = await import('./slices.js');
const { stageName, STAGES } = await import('./stageName.js');
const { usualLayout } = await import('../part/crankLayout.js');
const { FAMILIES } = await import('../part/family.js');
const { nanometres } = await import('../measure/nanometres.js');

type Job = ReturnType<typeof newJob>;

const um = (value: number) => nanometres(value * 1000);
const limit = (low: number, high: number) => ({ low: um(low), high: um(high), source: 'invented' });
const AT = '2026-01-02T03:04:05.000Z';

/** An engine whose mains are not known yet, with the limits of its camshaft bearings and bushes of two walls. */
function engine(): Job {
  const usual = usualLayout(5, 4, 1, 3);
  if (!usual.ok) throw new Error(usual.message);
  const blank = newJob('Sedge 4', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
  const bush = (grade: string, wall: number) => ({
    family: 'cam',
    series: 'Marsh',
    grade,
    wall: um(wall),
    stock: 4,
    line: null,
  });
  return jobDocumentSchema.parse({
    ...blank,
    limits: {
      ...blank.limits,
      camBore: limit(49_980, 50_020),
      camJournal: limit(45_950, 46_050),
      camClearance: limit(30, 70),
    },
    shells: Object.fromEntries(
      ['upper', 'lower'].flatMap((half) => [
        [`thin ${half}`, { ...bush('1', 1965), half }],
        [`thick ${half}`, { ...bush('2', 1975), half }],
      ]),
    ),
  });
}

/** Bores of 50.000 mm; journals of 46.000, 46.020, 46.000 and 46.020 mm. */
const READINGS = [1, 2, 3, 4].flatMap((station) =>
  (
    [
      ['camBore', 'front', 50_000],
      ['camBore', 'rear', 50_000],
      ['camJournal', 'front-0', station % 2 === 1 ? 46_000 : 46_020],
      ['camJournal', 'front-90', station % 2 === 1 ? 46_000 : 46_020],
    ] as const
  ).map(([feature, slot, value], at) => ({
    id: `00000000-0000-4000-8000-00000000${station}${at}00`,
    feature: feature as never,
    station,
    slot,
    text: String(value / 1000),
    unit: 'mm' as const,
    setting: null,
    nm: um(value),
    replaces: null,
    by: 'Wren',
    at: AT,
  })),
);

describe('a third family of bearings, as a row of the tables', () => {
  it('has its limits, its stages, its words and its place in the document', () => {
    expect(FAMILIES).toEqual(['main', 'rod', 'cam']);
    expect(LIMIT_KEYS).toEqual(expect.arrayContaining(['camBore', 'camJournal', 'camClearance']));
    expect(limitName('camClearance' as never)).toBe('Camshaft oil clearance');
    expect(STAGES).toEqual(expect.arrayContaining(['camBores', 'camJournals']));
    expect(stageName('camBores' as never)).toBe('Camshaft bores');
    const job = engine();
    expect(Object.keys(job.fasteners)).toEqual(['main', 'rod', 'cam']);
    expect(placeWords(['limits', 'camClearance'], job)).toBe('limits: camshaft oil clearance');
  });

  it('is measured, asked for, and judged', () => {
    const job = engine();
    const facts = jobFacts(job, READINGS);
    const own = facts.stations.filter(({ family }) => (family as string) === 'cam');
    expect(own.map(({ id, bore, journal }) => [id, bore?.nominal, journal?.nominal])).toEqual([
      ['C1', um(50_000), um(46_000)],
      ['C2', um(50_000), um(46_020)],
      ['C3', um(50_000), um(46_000)],
      ['C4', um(50_000), um(46_020)],
    ]);
    // 50 less 46.020 less two walls of 1.965 leaves 0.050; less 46.000 and two of 1.975 as well.
    expect(own.every(({ aim }) => aim === um(50))).toBe(true);
    const { stages } = jobProgress(job, READINGS) as { stages: Record<string, string> };
    expect([stages.camBores, stages.camJournals]).toEqual(['done', 'done']);
  });

  it('is selected for by the exact search, and its halves come back to the job', () => {
    const job = engine();
    const asked = jobFit(job, READINGS);
    if (!asked.ok) throw new Error(asked.reason);
    const plan = fit(asked.problem);
    expect(plan.status).toBe('optimal');
    const halves = plannedHalves(job, asked, plan);
    expect(
      Object.fromEntries(Object.entries(halves).map(([id, { upper, lower }]) => [id, [upper.shell, lower.shell]])),
    ).toEqual({
      C1: ['thick upper', 'thick lower'],
      C2: ['thin upper', 'thin lower'],
      C3: ['thick upper', 'thick lower'],
      C4: ['thin upper', 'thin lower'],
    });
    expect(halves.C1!.upper.label).toBe('2 camshaft upper (Marsh)');
  });
});
