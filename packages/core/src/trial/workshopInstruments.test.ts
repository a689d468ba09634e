import { describe, expect, it } from 'vitest';
import type { Calibration } from '../instrument/calibration.js';
import type { KnownInstrument } from '../instrument/knownInstrument.js';
import { newInstrument, type RegisteredInstrument } from '../instrument/registeredInstrument.js';
import type { ZeroCheck } from '../instrument/zeroCheck.js';
import { type JobDocument, jobDocumentSchema } from '../job/jobDocument.js';
import { jobFacts } from '../job/jobFacts.js';
import { newJob } from '../job/newJob.js';
import { budgetUncertainty, sumBudget } from '../measure/budget.js';
import { nanometres } from '../measure/nanometres.js';
import { seeded } from '../measure/seeded.js';
import { usualLayout } from '../part/crankLayout.js';
import type { Reading, ReadingMode } from '../part/reading.js';
import { readingSteps } from '../reading/measuredParts.js';
import { correctionWords, measuringSlice } from '../reading/measuringSlice.js';
import { adriftReadings } from '../reading/suspectReadings.js';
import { mainStations } from '../station/jobStations.js';
import { sizeBudget } from '../station/sources.js';
import { predictedBudget } from '../station/stationVerdict.js';
import type { TrialReading } from '../station/trialSchema.js';
import { trialSlice } from './trialSlice.js';

const um = (value: number) => nanometres(Math.round(value * 1000));
const id = (last: number) => `00000000-0000-4000-8000-${String(last).padStart(12, '0')}`;
const [GAUGE, SMALL, LARGE, SPAN] = [id(1), id(2), id(3), id(4)];
const AT = '2026-11-30T10:00:00.000Z';

function known(
  kind: RegisteredInstrument['kind'],
  number: string,
  { calibrations = [], checks = [] }: { calibrations?: Calibration[]; checks?: ZeroCheck[] } = {},
): KnownInstrument {
  const instrument = {
    ...newInstrument(kind, 'mm'),
    number,
    needle: kind === 'boreGauge' ? ('smaller' as const) : null,
  };
  return { revision: 1, instrument, calibrations, checks };
}

function calibration(on: string, error: number, rest: Partial<Calibration> = {}): Calibration {
  const points = [50, 60, 75].map((at) => ({ at: um(at * 1000), error: um(error), expanded: um(2), factor: 2 }));
  return {
    id: id(Number(on.slice(2, 4)) * 100 + Number(on.slice(5, 7))),
    on,
    due: null,
    laboratory: '',
    certificate: '',
    points,
    by: 'Wren',
    at: `${on}T09:00:00.000Z`,
    wrong: null,
    file: null,
    ...rest,
  };
}

function engine(registered: Record<string, KnownInstrument>, parts: Partial<JobDocument> = {}): JobDocument {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const job = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
  const wall = { family: 'main' as const, series: 'Osier', half: 'either' as const, stock: null, line: null };
  return jobDocumentSchema.parse({
    ...job,
    registered,
    shells: { thin: { ...wall, grade: 'thin', wall: um(1_996) } },
    ...parts,
  });
}

interface Read {
  readonly instrumentId?: string;
  readonly at?: string;
  readonly setting?: number;
  readonly mode?: ReadingMode;
}

let made = 0;
function reading(
  feature: Reading['feature'],
  station: number,
  slot: Reading['slot'],
  size: number,
  how: Read = {},
): Reading {
  made += 1;
  const { instrumentId, at = AT, setting, mode } = how;
  const taken = {
    instrument: '',
    needle: 'bigger' as const,
    celsius: null,
    gaugeCelsius: null,
    reason: '',
    ...(instrumentId === undefined ? {} : { instrumentId }),
    ...(mode === undefined ? {} : { mode }),
  };
  const settingNm = setting === undefined ? null : um(setting);
  return {
    id: id(1_000 + made),
    feature,
    station,
    slot,
    text: String(size / 1000),
    unit: 'mm',
    setting: settingNm,
    nm: um(size),
    replaces: null,
    by: 'Wren',
    at,
    taken,
  };
}

describe('a reading with an instrument of the workshop', () => {
  const micrometer = known('outsideMicrometer', 'M 2', {
    calibrations: [calibration('2025-03-01', 2), calibration('2026-03-01', -1)],
  });
  const job = engine({ [SMALL]: micrometer });

  it('counts less the error of its calibration, and stays with the one that was valid then', () => {
    const now = readingSteps(job, reading('mainJournal', 1, 'front-0', 59_980, { instrumentId: SMALL }))!;
    expect([now.read, now.error, now.size]).toEqual([um(59_980), um(-1), um(59_981)]);
    const before = readingSteps(
      job,
      reading('mainJournal', 1, 'front-0', 59_980, { instrumentId: SMALL, at: '2026-02-28T10:00:00.000Z' }),
    )!;
    expect([before.error, before.size]).toEqual([um(2), um(59_978)]);
    expect(correctionWords(job, before)).toBe('less 0.002 mm by calibration of 2025-03-01');
  });

  it('is not corrected beyond the calibrated range, before any calibration, or under a wrong one; each is said', () => {
    const beyond = readingSteps(job, reading('mainJournal', 1, 'front-0', 49_000, { instrumentId: SMALL }))!;
    expect([beyond.size, correctionWords(job, beyond)]).toEqual([
      um(49_000),
      'not corrected: outside the calibrated range',
    ]);
    const early = readingSteps(
      job,
      reading('mainJournal', 1, 'front-0', 59_980, { instrumentId: SMALL, at: '2024-01-01T10:00:00.000Z' }),
    )!;
    expect([early.size, early.instrument.calibratedOn]).toEqual([um(59_980), null]);
    const wrong = { by: 'Wren', at: AT, reason: 'anvil loose' };
    const bad = engine({
      [SMALL]: known('outsideMicrometer', 'M 2', { calibrations: [calibration('2026-03-01', -1, { wrong })] }),
    });
    const doubted = readingSteps(bad, reading('mainJournal', 1, 'front-0', 59_980, { instrumentId: SMALL }))!;
    expect([doubted.size, correctionWords(bad, doubted)]).toEqual([
      um(59_980),
      'calibration not to be trusted: anvil loose',
    ]);
  });

  it('is marked where the calibration had run out by then', () => {
    const old = engine({
      [SMALL]: known('outsideMicrometer', 'M 2', { calibrations: [calibration('2025-03-01', 0)] }),
    });
    const on = (at: string) =>
      readingSteps(old, reading('mainJournal', 1, 'front-0', 59_980, { instrumentId: SMALL, at }))!;
    expect(on('2026-03-01T10:00:00.000Z').instrument.overdueSince).toBeNull();
    expect(on('2026-03-02T10:00:00.000Z').instrument.overdueSince).toBe('2026-03-01');
    expect(correctionWords(old, on('2026-03-02T10:00:00.000Z'))).toBe('calibration overdue since 2026-03-01');
  });

  it('with a dial is corrected by its travel, where it says from which size', () => {
    const points = [-100, 0, 100].map((at) => ({ at: um(at), error: um(at / 50), expanded: um(1), factor: 2 }));
    const gauge = engine({
      [GAUGE]: known('boreGauge', '3', { calibrations: [calibration('2026-03-01', 0, { points })] }),
    });
    const set = readingSteps(gauge, reading('mainBore', 1, 'front', 64_050, { instrumentId: GAUGE, setting: 64_000 }))!;
    expect([set.error, set.size]).toEqual([um(1), um(64_049)]);
    const straight = readingSteps(gauge, reading('mainBore', 1, 'front', 64_050, { instrumentId: GAUGE }))!;
    expect([straight.error, straight.size]).toEqual([0, um(64_050)]);
  });

  it('that the engine does not know counts as one of its own', () => {
    const lost = reading('mainJournal', 1, 'front-0', 59_980, { instrumentId: LARGE });
    expect(readingSteps(job, lost)!.instrument.key).toBe('micrometer');
  });
});

describe('an instrument that moved between two zero checks', () => {
  const check = (last: number, time: string, shown: number): ZeroCheck => ({
    id: id(last),
    at: `2026-11-30T${time}:00.000Z`,
    by: 'Wren',
    standard: null,
    shown: um(shown),
    isReset: true,
  });
  const gauge = known('boreGauge', '3', { checks: [check(90, '08:00', 0), check(4, '12:00', 4)] });
  const readings = [
    reading('mainBore', 1, 'front', 64_010, { instrumentId: GAUGE, at: '2026-11-30T10:00:00.000Z' }),
    reading('mainBore', 2, 'front', 64_010, { instrumentId: GAUGE, at: '2026-11-30T13:00:00.000Z' }),
  ];
  const sizes = (job: JobDocument) => jobFacts(job, readings).parts.mainBore.map(({ size }) => size?.nominal ?? null);
  const decided = (isCorrected: boolean) => ({ drifts: { [SPAN]: { isCorrected, by: 'Wren', at: AT } } });

  it('is asked about before what it read in between counts', () => {
    const job = engine({ [GAUGE]: gauge });
    expect([...adriftReadings(job, readings)]).toEqual([readings[0]]);
    expect(sizes(job)).toEqual([null, um(64_010), null]);
    expect(measuringSlice('mainBore').todos(jobFacts(job, readings))[0]?.todo).toBe(
      'Check M1: “64.01” was read while bore gauge 3 moved between two zero checks',
    );
  });

  it('counts evenly in time, or as it was read, as the fitter decides', () => {
    expect(sizes(engine({ [GAUGE]: gauge }, decided(true)))).toEqual([um(64_008), um(64_010), null]);
    expect(sizes(engine({ [GAUGE]: gauge }, decided(false)))).toEqual([um(64_010), um(64_010), null]);
    const [first] = readings;
    const job = engine({ [GAUGE]: gauge }, decided(true));
    expect(correctionWords(job, readingSteps(job, first!)!)).toBe('less 0.002 mm for drift between zero checks');
  });

  it('is not asked about where the reading was confirmed, or the two checks agree', () => {
    const confirmed = readings.map((one) => ({ ...one, taken: { ...one.taken!, confirmed: true } }));
    expect(adriftReadings(engine({ [GAUGE]: gauge }), confirmed).size).toBe(0);
    const still = known('boreGauge', '3', { checks: [check(90, '08:00', 0), check(4, '12:00', 2)] });
    expect(adriftReadings(engine({ [GAUGE]: still }), readings).size).toBe(0);
  });
});

/** µm, drawn as they arise, apart from what is tested: three instruments with a setting and a scale each, and readings that scatter. */
function drawn(of: (draw: { normal: (u: number) => number; even: (half: number) => number }) => number): number {
  const random = seeded(11);
  const normal = (u: number) => u * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const even = (half: number) => half * (2 * random() - 1);
  const count = 200_000;
  let [sum, squares] = [0, 0];
  for (let at = 0; at < count; at += 1) {
    const value = of({ normal, even });
    sum += value;
    squares += value * value;
  }
  return 1000 * Math.sqrt(squares / count - (sum / count) ** 2);
}

describe('what instruments of the workshop share', () => {
  const registered = {
    [GAUGE]: known('boreGauge', '3'),
    [SMALL]: known('outsideMicrometer', 'M 2', { calibrations: [calibration('2026-03-01', 0)] }),
    [LARGE]: known('outsideMicrometer', 'M 3'),
  };
  const job = engine(registered, { using: { mainBore: GAUGE, mainJournal: SMALL } });
  const close = (worked: number, simulated: number) => expect(Math.abs(worked / simulated - 1)).toBeLessThan(0.02);

  it('is one error in two readings with one of them, and two errors in readings with two', () => {
    const uOf = (...by: string[]) => {
      const own = by.map((instrumentId, at) =>
        reading('mainJournal', 1, at === 0 ? 'front-0' : 'front-90', 59_980, { instrumentId }),
      );
      const { size } = jobFacts(job, own).parts.mainJournal[0]!;
      return budgetUncertainty(sizeBudget(job, 'mainJournal', 'journal M1', size!));
    };
    type Draw = Parameters<Parameters<typeof drawn>[0]>[0];
    const read = ({ normal, even }: Draw) => normal(1) + normal(1) + even(0.5);
    close(
      uOf(SMALL, SMALL),
      drawn((draw) => draw.normal(0.5) + draw.normal(1) + (read(draw) + read(draw)) / 2),
    );
    close(
      uOf(SMALL, LARGE),
      drawn((draw) => (draw.normal(0.5) + draw.normal(1) + read(draw) + draw.normal(0.5) + read(draw)) / 2),
    );
  });

  it('falls out of the clearance where the gauge was zeroed in the bore and brought to the micrometer', () => {
    const uOf = (mode: ReadingMode) => {
      const readings = [
        reading('mainBore', 1, 'front', 64_010, { instrumentId: GAUGE, mode }),
        reading('mainJournal', 1, 'front-0', 59_980, { instrumentId: LARGE }),
      ];
      const same = { ...job, using: { ...job.using, mainJournal: LARGE } };
      const station = mainStations(same, readings)[0]!;
      const half = { shell: 'thin', label: 'thin', wall: um(1_996) };
      const budget = predictedBudget(same, station, { upper: half, lower: half })!;
      // The walls are the same in both.
      return budgetUncertainty(budget.filter(({ key }) => !key.includes('wall') && !key.includes('ball')));
    };
    type Draw = Parameters<Parameters<typeof drawn>[0]>[0];
    const read = ({ normal, even }: Draw) => normal(1) + normal(1) + even(0.5);
    close(
      uOf('setting'),
      drawn((draw) => draw.normal(1) + read(draw) - draw.normal(0.5) - read(draw)),
    );
    close(
      uOf('bore'),
      drawn((draw) => read(draw) - read(draw)),
    );
  });

  it('with temperatures that were taken, the thermometer is one more error, and what instruments grow by nearly falls out', () => {
    const warm = { ...job.warm, u: 0.8 };
    const readings = [
      { ...reading('mainBore', 1, 'front', 64_010, { instrumentId: GAUGE }), celsius: 26 },
      { ...reading('mainJournal', 1, 'front-0', 59_980, { instrumentId: LARGE }), celsius: 24 },
    ].map(({ celsius, ...one }) => ({ ...one, taken: { ...one.taken!, celsius, gaugeCelsius: 22 } }));
    const taken = { ...job, warm, using: { ...job.using, mainJournal: LARGE } };
    const station = mainStations(taken, readings)[0]!;
    const half = { shell: 'thin', label: 'thin', wall: um(1_996) };
    const budget = predictedBudget(taken, station, { upper: half, lower: half })!;
    const own = budget.filter(({ key }) => !key.includes('wall') && !key.includes('ball'));
    type Draw = Parameters<Parameters<typeof drawn>[0]>[0];
    const read = ({ normal, even }: Draw) => normal(1) + normal(1) + even(0.5);
    close(
      budgetUncertainty(own),
      drawn((draw) => {
        const [bores, journals, instruments] = [draw.normal(0.8), draw.normal(0.8), draw.normal(0.8)];
        // In µm: lengths in mm by coefficients in 1e-6/K.
        const bore = draw.normal(1) + read(draw) - 64.01 * 10.5e-3 * bores + 64.01 * 11.5e-3 * instruments;
        const journal = draw.normal(0.5) + read(draw) - 59.98 * 11.5e-3 * journals + 59.98 * 11.5e-3 * instruments;
        return bore - journal;
      }),
    );
  });

  it('moves all stations alike: two journals with one micrometer differ by less than with two', () => {
    const apart = (second: string) => {
      const own = [SMALL, second].map((instrumentId, at) =>
        reading('mainJournal', at + 1, 'front-0', 59_980, { instrumentId }),
      );
      const [one, other] = jobFacts(job, own).parts.mainJournal;
      const budget = sumBudget([
        [sizeBudget(job, 'mainJournal', 'journal M1', one!.size!), 1],
        [sizeBudget(job, 'mainJournal', 'journal M2', other!.size!), -1],
      ]);
      return budgetUncertainty(budget);
    };
    type Draw = Parameters<Parameters<typeof drawn>[0]>[0];
    const read = ({ normal, even }: Draw) => normal(1) + normal(1) + even(0.5);
    close(
      apart(SMALL),
      drawn((draw) => read(draw) - read(draw)),
    );
    close(
      apart(LARGE),
      drawn((draw) => draw.normal(0.5) + draw.normal(1) + read(draw) - draw.normal(0.5) - read(draw)),
    );
  });
});

describe('a reading with the shells in, with a gauge of the workshop', () => {
  const points = [-1_000, 0, 1_000].map((at) => ({ at: um(at), error: um(at / 500 + 1), expanded: um(2), factor: 2 }));
  const gauge = known('boreGauge', 'G 3', { calibrations: [calibration('2026-03-01', 0, { points })] });
  const half = { shell: 'thin', label: 'Osier thin', series: 'Osier', wall: um(1_996) };
  const triedWith = (size: number, how: Partial<TrialReading>, registered = { [GAUGE]: gauge, [SMALL]: gauge }) => {
    const one: TrialReading = {
      text: 'x',
      unit: 'mm',
      nm: um(size),
      mode: 'journal',
      setting: null,
      needle: 'bigger',
      by: 'Wren',
      at: AT,
      instrumentId: GAUGE,
      ...how,
    };
    const trial = { upper: half, lower: half, rod: null, readings: { one }, isBelieved: false, at: AT, by: 'Wren' };
    const job = engine(registered, { trials: { M1: trial } });
    const own = [reading('mainBore', 1, 'front', 64_010), reading('mainJournal', 1, 'front-0', 59_980)];
    const facts = jobFacts(job, own);
    return { facts, tried: facts.stations[0]!.tried! };
  };

  it('counts less the error of its calibration: by the clearance on a journal, by the travel from a setting size', () => {
    // By hand: 1 µm and 2 in a thousand of the travel too much.
    expect(triedWith(38, {}).tried.measured!.nominal).toBe(um(38 - 1.076));
    const set = triedWith(60_018, { mode: 'setting', setting: um(60_100) }).tried;
    expect(set.measured!.nominal).toBe(um(38 - (1 - 0.164)));
    expect(set.measuredBudget.find(({ key }) => key === `scale:${GAUGE}`)).toMatchObject({ u: um(1), sensitivity: 1 });
  });

  it('zeroed in the bore has the error of the micrometer that was brought to it', () => {
    const micrometer = known('outsideMicrometer', 'M 1', { calibrations: [calibration('2026-03-01', 3)] });
    const trial = { instrumentId: GAUGE, mode: 'bore' as const };
    const own = triedWith(60_018, trial).tried;
    expect([own.measured!.nominal, own.steps[0]!.error]).toEqual([um(38), 0]);
    const { facts } = triedWith(60_018, trial, { [GAUGE]: gauge, [LARGE]: micrometer });
    const job = { ...facts.job, using: { mainJournal: LARGE } };
    const [station] = mainStations(job, facts.readings);
    expect(station!.tried!.measured!.nominal).toBe(um(35));
    // A bore that was read so has it too.
    const bore = reading('mainBore', 1, 'front', 64_010, { mode: 'bore', instrumentId: GAUGE });
    expect(readingSteps(job, bore)).toMatchObject({ error: um(3), size: um(64_007) });
  });

  it('keeps its gauge when another one is used from then on', () => {
    const { facts } = triedWith(38, {});
    const job = { ...facts.job, using: { trials: SMALL } };
    expect(mainStations(job, facts.readings)[0]!.tried!.steps[0]!.gauge).toBe(GAUGE);
  });

  it('is to be read again where its calibration was found wrong, and says so on the sheet and in the stage', () => {
    const wrong = { by: 'Wren', at: AT, reason: 'worn anvil' };
    const bad = known('boreGauge', 'G 3', { calibrations: [calibration('2026-03-01', 0, { points, wrong })] });
    const { facts, tried } = triedWith(38, {}, { [GAUGE]: bad, [SMALL]: bad });
    expect(tried.steps[0]!.error).toBe(0);
    expect(trialSlice.todos(facts)[0]!.todo).toBe('Re-read M1 with shells in: bore gauge G 3 was found wrong');
    expect(trialSlice.state(facts)).toBe('attention');
    expect(JSON.stringify(trialSlice.sheet!(facts))).toContain('calibration not to be trusted: worn anvil');
  });
});
