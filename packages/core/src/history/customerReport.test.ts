import { describe, expect, it } from 'vitest';
import { blankStation } from '../cameApart/cameApartPart.js';
import { type JobDocument, jobDocumentSchema } from '../job/jobDocument.js';
import { newJob } from '../job/newJob.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import type { Reading } from '../part/reading.js';
import { customerReport } from './customerReport.js';

const stamp = { by: 'Teasel', at: '2026-01-12T09:30:00.000Z' };
const PHOTO = '0a0a0a0a-0000-4000-8000-000000000001';
const signOff = {
  revision: 2,
  signedAt: '2026-02-01T10:00:00.000Z',
  signedBy: 'Wren',
  reason: 'end play read again',
  open: [] as string[],
};

/** A twin with one half in stock for all, read bores and journals, M2 with a worn old shell. */
function twin(part: (job: JobDocument) => Partial<JobDocument> = () => ({})): JobDocument {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const job = newJob('Rush Twin · no. 12', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
  const half = { shell: 'one', label: 'Teal', wall: 1_992_000 };
  const stations = Object.fromEntries(
    ['M1', 'M2', 'M3'].map((id) => [id, { upper: half, lower: half, rod: null, predicted: 30_000 }]),
  );
  const whole = {
    ...job,
    withRods: false,
    serial: 'RT 12',
    limits: { ...job.limits, mainClearance: { low: 28_000, high: 44_000, source: 'Rush book, p. 9' } },
    shells: {
      one: { family: 'main', series: 'Osier', grade: 'Teal', half: 'either', wall: 1_992_000, stock: 6, line: null },
    },
    choice: { stations, ...stamp },
    cameApart: {
      stations: {
        M2: {
          ...blankStation(stamp),
          lower: { patterns: ['wiped'], words: 'copper shows', photo: PHOTO, wall: null },
          clearance: { text: '0.09', unit: 'mm', nm: 90_000, ...stamp },
        },
      },
      endPlay: null,
      words: 'Oil grey',
    },
  };
  return jobDocumentSchema.parse({ ...whole, ...part(whole as unknown as JobDocument) });
}

/** Bores 64.019, 64.020, 64.021 over journals 60.000: 35, 36 and 37 µm with two walls of 1.992. */
const readings: Reading[] = [1, 2, 3].flatMap((station) =>
  (['mainBore', 'mainJournal'] as const).map(
    (feature) =>
      ({
        id: `${feature} ${station}`,
        feature,
        station,
        slot: feature === 'mainBore' ? 'front' : 'front-0',
        text: '',
        unit: 'mm',
        nm: nanometres(feature === 'mainBore' ? 64_018_000 + station * 1000 : 60_000_000),
        setting: null,
        taken: null,
        ...stamp,
      }) as unknown as Reading,
  ),
);

const told = (document: JobDocument, part: object = {}) =>
  customerReport({ document, readings, signOff, isNamed: false, shown: 'mm', ...part });
const section = (report: ReturnType<typeof told>, title: string) => report.sections.find((one) => one.title === title)!;
const lines = (report: ReturnType<typeof told>, title: string) => section(report, title).lines.map(({ text }) => text);

describe('the report for the customer', () => {
  it('says what was found, station by station, and what was fitted, before and after', () => {
    const report = told(twin());
    expect(lines(report, 'Condition as received')).toEqual(['Oil grey.', 'M2: lower shell wiped; copper shows']);
    // By hand, µm: 64 019 − 60 000 − 2 × 1992 = 35, then 36 and 37.
    expect(section(report, 'Work done, before and after').table!.rows).toEqual(
      [
        ['M1', 'Teal / Teal', '', '0.035', '0.028 to 0.044', 'worked out'],
        ['M2', 'Teal / Teal', '0.09 as it came', '0.036', '0.028 to 0.044', 'worked out'],
        ['M3', 'Teal / Teal', '', '0.037', '0.028 to 0.044', 'worked out'],
      ].map(([id, shells, before, ...rest]) => [
        id,
        shells,
        before === '' ? '' : expect.stringMatching(/^0\.090* as it came$/u),
        ...rest,
      ]),
    );
    expect(lines(report, 'Work done, before and after')[0]).toBe(
      'Oil clearance inside the engine maker’s limits at 3 of 3 bearings, worked out from the measured parts.',
    );
    expect(report.pictures).toEqual([{ photo: PHOTO, caption: 'M2, old lower shell: wiped; copper shows' }]);
  });

  it('names what is outside its limits, and does not call inside what has none', () => {
    const tight = told(
      twin((job) => ({
        limits: { ...job.limits, mainClearance: { ...job.limits.mainClearance!, low: nanometres(36_000) } },
      })),
    );
    expect(lines(tight, 'Work done, before and after')[0]).toContain('at 2 of 3 bearings');
    expect(lines(tight, 'Work done, before and after')[0]).toContain('Outside: M1.');
    const free = told(twin((job) => ({ limits: { ...job.limits, mainClearance: null } })));
    expect(lines(free, 'Work done, before and after')[0]).toMatch(/at 0 of 3 bearings.*Not judged.*: M1, M2, M3\.$/u);
    const none = told(twin(() => ({ choice: null })));
    expect(lines(none, 'Work done, before and after')[0]).toBe('No shells were selected.');
  });

  it('says what was refused and what was left open, and claims neither', () => {
    expect(lines(told(twin()), 'Refused, and why')).toEqual(['Nothing noted as refused.']);
    const refused = told(
      twin(() => ({ report: { refused: 'The owner wants the old bolts back in.', words: 'Thank you.' } })),
    );
    expect(lines(refused, 'Refused, and why')).toEqual(['The owner wants the old bolts back in.']);
    expect(lines(refused, 'From the workshop')).toEqual(['Thank you.']);
    const open = Array.from({ length: 11 }, (_, at) => `thing ${at}`);
    expect(lines(told(twin(), { signOff: { ...signOff, open } }), 'Open when signed')).toHaveLength(9);
    expect(section(told(twin()), 'Open when signed')).toBeUndefined();
  });

  it('names nobody unless it is asked to', () => {
    const all = (isNamed: boolean) => JSON.stringify(told(twin(), { isNamed }));
    for (const name of ['Teasel', 'Wren']) {
      expect(all(false)).not.toContain(name);
      expect(all(true)).toContain(name);
    }
  });

  it('tells what became of it only where something was noted', () => {
    expect(section(told(twin()), 'After the build')).toBeUndefined();
    const running = (job: JobDocument): JobDocument['running'] => ({
      ...job.running,
      limits: { idle: { least: 1, most: null, unit: 'bar', source: 'book' } },
      entries: {
        [PHOTO]: {
          on: '2026-03-01',
          run: 1,
          celsius: 90,
          endPlay: null,
          words: '',
          pressures: { idle: { value: 0.8, unit: 'bar', rpm: 800 } },
          ...stamp,
        },
      },
      rechecks: { [PHOTO]: { what: 'Change the oil', on: null, run: 20, done: null, ...stamp } },
    });
    expect(lines(told(twin((job) => ({ running: running(job) }))), 'After the build')).toEqual([
      'Oil pressure hot at idle: 0.8 bar, too low: at least 1 bar',
      'Re-check, at 20 h: Change the oil',
    ]);
  });
});
