import { describe, expect, it } from 'vitest';
import { nanometres } from '../measure/nanometres.js';
import { type Calibration, calibrationDraftSchema, calibrationOn, dueAfter, errorAt } from './calibration.js';
import { INSTRUMENT_KINDS } from './instrumentKinds.js';
import { instrumentTable, readInstrumentTable } from './instrumentTable.js';
import { readSince, takenOver } from './knownInstrument.js';
import { asInstrument, instrumentDraftSchema, newInstrument } from './registeredInstrument.js';
import { driftSpans, suspectSpan, type ZeroCheck } from './zeroCheck.js';

const point = (at: number, error: number, expanded = 2_000) => ({
  at: nanometres(at),
  error: nanometres(error),
  expanded: nanometres(expanded),
  factor: 2,
});

function calibration(on: string, rest: Partial<Calibration> = {}): Calibration {
  const id = `00000000-0000-4000-8000-0000${on.replaceAll('-', '')}`;
  const at = `${on}T09:00:00.000Z`;
  return {
    id,
    on,
    due: null,
    laboratory: '',
    certificate: '',
    points: [],
    by: 'Wren',
    at,
    wrong: null,
    file: null,
    ...rest,
  };
}

function check(at: string, shown: number, isReset = false): ZeroCheck {
  const id = `00000000-0000-4000-8000-00000000${at.slice(11, 13)}${at.slice(14, 16)}`;
  return { id, at, by: 'Wren', standard: null, shown: nanometres(shown), isReset };
}

describe('a calibration', () => {
  const points = [point(50e6, 1_000), point(60e6, -1_000, 4_000), point(75e6, 2_000)];

  it('tells the error between its points by straight lines, and its uncertainty likewise', () => {
    // By hand: halfway from +1.0 to −1.0 µm, and from 1.0 to 2.0 µm of standard uncertainty.
    expect(errorAt(points, nanometres(55e6))).toEqual({ kind: 'known', error: 0, u: 1_500 });
    expect(errorAt(points, nanometres(70e6))).toEqual({ kind: 'known', error: 1_000, u: 2_000 - 1_000 * (2 / 3) });
    expect(errorAt(points, nanometres(60e6))).toEqual({ kind: 'known', error: -1_000, u: 2_000 });
  });

  it('tells nothing beyond its points, and never goes on along the line', () => {
    expect(errorAt(points, nanometres(49_999_999))).toEqual({ kind: 'beyond', low: 50e6, high: 75e6 });
    expect(errorAt(points, nanometres(75_000_001))).toMatchObject({ kind: 'beyond' });
    expect(errorAt([], nanometres(60e6))).toEqual({ kind: 'none' });
    expect(errorAt([point(60e6, 500)], nanometres(60e6))).toEqual({ kind: 'known', error: 500, u: 1_000 });
  });

  it('is refused where points are out of order or a day is before its own', () => {
    const { id: _, by: __, at: ___, wrong: ____, file: _____, ...draft } = calibration('2026-03-01');
    const faults = (rest: object) =>
      calibrationDraftSchema.safeParse({ ...draft, ...rest }).error?.issues.map(({ message }) => message);
    expect(faults({ points: [point(60e6, 0), point(50e6, 0)] })).toEqual([
      'point 2 is not above point 1: enter the points from the smallest up, each once',
    ]);
    expect(faults({ due: '2026-03-01' })).toEqual(['the next calibration is due before this one was done']);
    expect(faults({ points })).toBeUndefined();
  });

  it('that was valid on a day is the last one done by then, in whatever order they were entered', () => {
    const all = [calibration('2026-03-01'), calibration('2025-03-01'), calibration('2024-03-01')];
    expect(calibrationOn(all, '2026-02-28T23:59:00.000Z')?.on).toBe('2025-03-01');
    expect(calibrationOn(all, '2026-03-01')?.on).toBe('2026-03-01');
    expect(calibrationOn(all, '2024-02-29')).toBeNull();
    expect(dueAfter(all[0]!, 12)).toBe('2027-03-01');
    expect(dueAfter({ ...all[0]!, due: '2026-09-01' }, 12)).toBe('2026-09-01');
    expect(dueAfter(all[0]!, null)).toBeNull();
  });
});

describe('zero checks', () => {
  const day = '2026-11-30T';
  const morning = check(`${day}08:00:00.000Z`, 3_000, true);
  const noon = check(`${day}12:00:00.000Z`, 4_000);
  const evening = check(`${day}16:00:00.000Z`, 5_000);

  it('tell what an instrument moved by, from where it was left', () => {
    // Brought to zero in the morning, it was left 0.004 off at noon.
    expect(driftSpans([evening, morning, noon]).map(({ start, drift }) => [start, drift])).toEqual([
      [0, 4_000],
      [4_000, 1_000],
    ]);
    expect(driftSpans([noon])).toEqual([]);
  });

  it('make what was read between them suspect where they differ by more than is allowed', () => {
    const spans = driftSpans([morning, noon, evening]);
    expect(suspectSpan(spans, `${day}09:00:00.000Z`, 2_000)?.to).toBe(noon);
    expect(suspectSpan(spans, `${day}13:00:00.000Z`, 2_000)).toBeNull();
    // Before the first and after the last nothing is known.
    expect(suspectSpan(spans, `${day}07:00:00.000Z`, 0)).toBeNull();
    expect(suspectSpan(spans, `${day}17:00:00.000Z`, 0)).toBeNull();
    expect(suspectSpan(spans, `${day}09:00:00.000Z`, 4_000)).toBeNull();
  });
});

describe('what an engine takes over', () => {
  const day = '2026-11-30T';
  const checks = ['06', '08', '12', '16'].map((hour) => check(`${day}${hour}:00:00.000Z`, 0));
  const calibrations = ['2024-03-01', '2025-03-01', '2026-03-01', '2026-12-01'].map((on) => calibration(on));
  const gauge = { revision: 3, instrument: newInstrument('boreGauge', 'mm'), calibrations, checks };
  const hours = (known: { readonly checks: readonly ZeroCheck[] }) => known.checks.map(({ at }) => at.slice(11, 13));

  it('is what counts for its readings: the last check and calibration before them, and all after', () => {
    const known = takenOver(gauge, `${day}09:00:00.000Z`);
    expect(hours(known)).toEqual(['08', '12', '16']);
    expect(known.calibrations.map(({ on }) => on)).toEqual(['2026-03-01', '2026-12-01']);
    expect(hours(takenOver(gauge, `${day}05:00:00.000Z`))).toEqual(['06', '08', '12', '16']);
    expect(hours(takenOver(gauge, '2027-01-01T00:00:00.000Z'))).toEqual(['16']);
  });

  it('keeps checks that the register no longer tells', () => {
    const before = takenOver(gauge, `${day}05:00:00.000Z`);
    const later = { ...gauge, checks: checks.slice(2) };
    expect(hours(takenOver(later, `${day}05:00:00.000Z`, before))).toEqual(['06', '08', '12', '16']);
  });

  it('counts from the first reading with it', () => {
    const read = (at: string, instrumentId?: string) => ({
      at,
      taken: instrumentId === undefined ? undefined : { instrumentId },
    });
    const readings = [read('3', 'a'), read('1'), read('2', 'a'), read('0', 'b')];
    expect([readSince(readings, 'a', '9'), readSince(readings, 'c', '9')]).toEqual(['2', '9']);
  });
});

describe('the register as a file', () => {
  const gauge = {
    ...newInstrument('boreGauge', 'in'),
    number: 'BG 7',
    needle: 'smaller' as const,
    place: 'cupboard, 2',
  };
  const ring = {
    ...newInstrument('settingRing', 'mm'),
    number: 'SR 64',
    size: nanometres(64_000_000),
    state: 'retired' as const,
  };

  it('comes back as it was, each instrument in its own unit', () => {
    const read = readInstrumentTable(instrumentTable([gauge, ring]), [{ instrument: gauge }]);
    expect(read.ok && read.rows).toEqual([
      { ok: true, row: 2, item: gauge, line: { instrument: gauge }, isChange: false },
      { ok: true, row: 3, item: ring, line: null, isChange: true },
    ]);
  });

  it('tells what is wrong with a row, and in which column; two of one number are told', () => {
    const read = readInstrumentTable(
      [
        ['Number', 'Kind', 'Unit', 'Needle +', 'Reads from'],
        ['1', 'sextant', 'mm', '', ''],
        ['2', 'bore gauge', 'mm', '', ''],
        ['3', 'caliper', 'mm', '', '0'],
        ['4', 'caliper', 'mm', '', ''],
        ['4', 'feeler gauges', 'mm', '', ''],
      ],
      [],
    );
    const faults = read.ok ? read.rows.map((row) => (row.ok ? [] : row.faults.map(({ column }) => column))) : [];
    expect(faults).toEqual([['Kind'], ['Needle +'], ['Reads to'], [], ['Number']]);
    expect(readInstrumentTable([['Number', 'Kind']], [])).toEqual({ ok: false, missing: ['Unit'] });
  });

  it('reads the head that earlier versions wrote for who keeps an instrument', () => {
    const read = readInstrumentTable(
      [
        ['Number', 'Kind', 'Unit', 'Who has it', 'Ball', 'Resolution'],
        ['G1', 'outside micrometer', 'mm', 'Wren', '', '0.001'],
      ],
      [],
    );
    expect(read.ok && read.rows[0]).toMatchObject({ ok: true, item: { holder: 'Wren' } });
  });
});

describe('an instrument to be registered', () => {
  it('is asked what is never assumed: its number, the way of its needle, the size of a master', () => {
    const missing = INSTRUMENT_KINDS.map((kind) => {
      const found = instrumentDraftSchema.safeParse(newInstrument(kind, 'mm'));
      return [kind, found.error?.issues.map(({ path }) => path.join('.')).join(' ')];
    });
    expect(Object.fromEntries(missing)).toEqual({
      outsideMicrometer: 'number',
      boreGauge: 'number needle',
      insideMicrometer: 'number',
      threePointMicrometer: 'number',
      ballMicrometer: 'number',
      dialIndicator: 'number needle',
      feelers: 'number',
      settingRing: 'number size',
      gaugeBlock: 'number size',
      caliper: 'number',
    });
    const needle = instrumentDraftSchema.safeParse({ ...newInstrument('boreGauge', 'mm'), number: '3' });
    expect(needle.error?.issues[0]?.message).toBe('say which way the needle of the bore gauge goes');
    const ring = instrumentDraftSchema.safeParse({ ...newInstrument('settingRing', 'mm'), number: 'R 1' });
    expect(ring.error?.issues[0]?.message).toBe('enter the size of the setting ring');
  });

  it('is known to an engine as its own are, with the day of its last calibration', () => {
    const gauge = { ...newInstrument('boreGauge', 'in'), number: '3', holder: 'Teasel' };
    const known = asInstrument(gauge, [calibration('2025-03-01'), calibration('2024-03-01')]);
    expect(known).toMatchObject({ name: '3', needle: null, holder: 'Teasel', calibratedOn: '2025-03-01' });
    expect(asInstrument({ ...gauge, kind: 'insideMicrometer' }, []).needle).toBe('bigger');
  });
});
