import { describe, expect, it } from 'vitest';
import { dueOn } from '../job/dueOn.js';
import { type JobDocument, jobDocumentSchema } from '../job/jobDocument.js';
import { jobProgress } from '../job/jobProgress.js';
import { newJob } from '../job/newJob.js';
import { openWork } from '../job/openWork.js';
import { sheetContent } from '../job/sheetContent.js';
import { placeWords } from '../job/slices.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import { pressureEcho, pressureIn, pressureText } from './pressure.js';
import {
  endPlaySince,
  pressuresNow,
  pressureVerdicts,
  ranSoFar,
  recheckDueText,
  recheckStates,
} from './runningFacts.js';
import { type Recheck, type RunEntry, type Running, START_CHECKS } from './runningPart.js';

const stamp = { by: 'Teasel', at: '2026-03-02T09:30:00.000Z' };
const ids = ['1', '2', '3', '4'].map((at) => `0a0a0a0a-0000-4000-8000-00000000000${at}`) as [
  string,
  string,
  string,
  string,
];

function twin(running: Partial<Running> = {}, part: Partial<JobDocument> = {}): JobDocument {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const job = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
  return jobDocumentSchema.parse({ ...job, ...part, running: { ...job.running, ...running } });
}

const entry = (on: string, part: Partial<RunEntry> = {}): RunEntry => ({
  ...{ on, run: null, pressures: {}, celsius: null, endPlay: null, words: '' },
  ...stamp,
  ...part,
});
const recheck = (part: Partial<Recheck>): Recheck => ({
  what: 'Look again',
  on: null,
  run: null,
  done: null,
  ...stamp,
  ...part,
});
const bar = (value: number) => ({ value, unit: 'bar' as const, rpm: null });

describe('a pressure', () => {
  it('is the same in every unit', () => {
    // NIST SP 811 (2008), appendix B.8: 1 psi = 6.894757 kPa; 1 bar = 100 kPa.
    expect(pressureIn({ value: 1, unit: 'psi' }, 'kPa')).toBeCloseTo(6.894757, 6);
    expect(pressureIn({ value: 1, unit: 'bar' }, 'kPa')).toBe(100);
    for (const unit of ['bar', 'kPa', 'psi'] as const) {
      expect(pressureIn({ value: pressureIn({ value: 37, unit }, 'psi'), unit: 'psi' }, unit)).toBeCloseTo(37, 10);
    }
    expect(pressureText({ value: 0.1 + 0.2, unit: 'bar' })).toBe('0.3 bar');
    expect(pressureEcho({ value: 4.2, unit: 'bar' }, 'psi')).toBe('61 psi');
  });
});

describe('oil pressures after the build', () => {
  const limits: Running['limits'] = { idle: { least: 1, most: null, unit: 'bar', source: 'Rush book, p. 40' } };

  it('are judged by the limit of their own moment, in whatever unit they were read', () => {
    const of = (value: number, unit: 'bar' | 'psi') =>
      pressuresNow(
        twin({ limits, entries: { [ids[0]]: entry('2026-03-01', { pressures: { idle: { value, unit, rpm: 800 } } }) } })
          .running,
      )[0]!.state;
    expect(of(1, 'bar')).toBe('inside');
    expect(of(0.9, 'bar')).toBe('under');
    // 14.5 psi are 0.99974 bar, 14.6 psi are 1.0066 bar.
    expect(of(14.5, 'psi')).toBe('under');
    expect(of(14.6, 'psi')).toBe('inside');
    const cold = { limits, entries: { [ids[0]]: entry('2026-03-01', { pressures: { cold: bar(0.2) } }) } };
    expect(pressuresNow(twin(cold).running)[0]!.state).toBe('no-limit');
  });

  it('are told against the first of their kind, by day and not by when they were noted', () => {
    const entries = {
      [ids[0]]: entry('2026-04-01', { pressures: { idle: bar(1.4) } }),
      [ids[1]]: entry('2026-03-01', { pressures: { idle: bar(2), cold: bar(4) } }),
    };
    expect(pressureVerdicts(twin({ entries }).running).map(({ moment, fell }) => [moment, fell])).toEqual([
      ['cold', null],
      ['idle', null],
      ['idle', expect.closeTo(0.6, 10)],
    ]);
    expect(pressuresNow(twin({ entries }).running).map(({ moment, read }) => [moment, read.value])).toEqual([
      ['cold', 4],
      ['idle', 1.4],
    ]);
  });

  it('too low is the next thing to do, before everything that is in turn, until a later one is right', () => {
    const low = { limits, entries: { [ids[0]]: entry('2026-03-01', { pressures: { idle: bar(0.6) } }) } };
    expect(jobProgress(twin(low), []).stages.running).toBe('attention');
    const right = {
      ...low,
      entries: { ...low.entries, [ids[1]]: entry('2026-03-02', { pressures: { idle: bar(1.2) } }) },
    };
    expect(jobProgress(twin(right), []).stages.running).toBe('started');
    // It comes up from its day on, whatever else was to be done again by then.
    const again = { [ids[2]]: recheck({ what: 'Re-torque the mains', on: '2026-02-01' }) };
    const due = dueOn(jobProgress(twin({ ...low, rechecks: again }), []), '2026-03-01', { reserved: 0 });
    expect(due).toMatchObject({ next: 'running', todo: expect.stringMatching(/^Find out why the oil pressure/u) });
    const mended = dueOn(jobProgress(twin({ ...right, rechecks: again }), []), '2026-03-02', { reserved: 0 });
    expect(mended).toEqual({ next: 'running', todo: 'Re-torque the mains' });
    const job = twin(low);
    const { todo, next } = jobProgress({ ...job, limits: { ...job.limits } }, []);
    // An empty data sheet comes before all; the pressure comes before the rest.
    expect([next, todo].join(' ')).toMatch(/data|oil pressure hot at idle is too low: 0\.6 bar, limit at least 1 bar/u);
  });
});

describe('what is looked at again', () => {
  const rechecks = {
    [ids[0]]: recheck({ what: 'Change the oil', run: 20 }),
    [ids[1]]: recheck({ what: 'Re-torque the mains', on: '2026-04-01', run: 50 }),
    [ids[2]]: recheck({ what: 'Look for leaks', on: '2026-03-03', done: { words: '', ...stamp } }),
  };

  it('comes up on its day, or when the engine has run as far', () => {
    const job = twin({ rechecks, entries: { [ids[3]]: entry('2026-03-05', { run: 22 }) } });
    const progress = jobProgress(job, []);
    expect(progress.reminders).toEqual([{ on: '2026-04-01', todo: 'Re-torque the mains', next: 'running' }]);
    expect(dueOn(progress, '2026-04-01', { reserved: 0 })).toEqual({ next: 'running', todo: 'Re-torque the mains' });
    expect(dueOn(progress, '2026-03-31', { reserved: 0 }).next).not.toBe('running');
    expect(recheckStates(job.running).map(({ what, isRunDue }) => [what, isRunDue])).toEqual([
      ['Re-torque the mains', false],
      ['Change the oil', true],
      ['Look for leaks', false],
    ]);
    expect(ranSoFar(job.running)).toBe(22);
    expect(recheckDueText({ on: '2026-04-01', run: 50 }, 'h')).toBe('on 2026-04-01 or at 50 h');
  });

  it('needs a day or a run, and words', () => {
    for (const part of [
      { on: null, run: null },
      { on: '2026-03-01', what: ' ' },
    ]) {
      expect(() => twin({ rechecks: { [ids[0]]: recheck(part) } })).toThrow();
    }
    expect(() => twin({ limits: { idle: { least: 3, most: 2, unit: 'bar', source: 'book' } } })).toThrow(/swap/u);
    expect(() => twin({ limits: { idle: { least: 3, most: null, unit: 'bar', source: '' } } })).toThrow(/source/u);
  });
});

describe('the stage', () => {
  it('asks for nothing before it was begun, and the sign-off does not wait for it', () => {
    const job = twin();
    expect(jobProgress(job, []).stages.running).toBe('open');
    expect(openWork(job, []).some((one) => one.startsWith('After the build'))).toBe(false);
    const begun = twin({ start: { oil: { state: 'good', words: '', ...stamp } } });
    expect(openWork(begun, []).some((one) => one.startsWith('After the build'))).toBe(false);
    expect(sheetContent(begun, [])).toEqual(sheetContent(job, []));
  });

  it('is done when all was looked at, a reading was noted and nothing is left to do again', () => {
    const start = Object.fromEntries(
      START_CHECKS.map((check) => [check, { state: 'good' as const, words: '', ...stamp }]),
    );
    const of = (running: Partial<Running>) => jobProgress(twin(running), []).stages.running;
    const entries = { [ids[0]]: entry('2026-03-01') };
    expect(of({ start })).toBe('started');
    expect(of({ start, entries })).toBe('done');
    expect(of({ start, entries, rechecks: { [ids[1]]: recheck({ run: 20 }) } })).toBe('started');
    const leaking = { ...start, leaks: { state: 'found' as const, words: 'rear seal', ...stamp } };
    expect(of({ start: leaking, entries })).toBe('attention');
  });

  it('names its places as a fitter would', () => {
    const job = twin({
      rechecks: { [ids[0]]: recheck({ what: 'Change the oil', run: 20 }) },
      entries: { [ids[1]]: entry('2026-03-01') },
    });
    expect(placeWords(['running', 'rechecks', ids[0], 'done'], job)).toBe('re-check “Change the oil”, done');
    expect(placeWords(['running', 'entries', ids[1], 'words'], job)).toBe('reading after the build, 2026-03-01');
    expect(placeWords(['running', 'limits', 'idle'], job)).toBe('oil pressure limit hot at idle');
    expect(placeWords(['running', 'start', 'leaks'], job)).toBe('first start: no leak at seals, filter and plugs');
  });
});

describe('end play after the build', () => {
  const read = (nm: number, text: string) => ({ nm: nanometres(nm), text, unit: 'mm' as const, ...stamp });

  it('has grown only by more than is known of the difference', () => {
    const plain = twin();
    const built = { ...read(120_000, '0.12'), moment: 'fitted' as const, angle: 0 as const };
    const job = twin(
      {},
      {
        endPlay: { ...plain.endPlay, uncertainty: nanometres(5000), readings: { 'fitted 1': built } },
      },
    );
    const since = (nm: number) =>
      endPlaySince(
        { ...job.running, entries: { [ids[0]]: entry('2026-05-01', { endPlay: read(nm, '') }) } },
        job.endPlay,
      )!;
    // ± of the difference: 2 × √(5² + 5²) = 14.1 µm.
    expect(since(130_000)).toMatchObject({ built: 120_000, grown: 10_000, isGrown: false });
    expect(since(135_000)).toMatchObject({ grown: 15_000, isGrown: true });
    expect(since(130_000).known).toBeCloseTo(14_142, -1);
    expect(endPlaySince(job.running, job.endPlay)).toBeNull();
  });
});
