import { describe, expect, it } from 'vitest';
import type { JobDocument } from '../job/jobDocument.js';
import { newJob } from '../job/newJob.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import type { Feature } from '../part/feature.js';
import { type Reading, sizeOfDraft } from '../part/reading.js';
import { usualThinnerHalf } from '../selection/ruleTable.js';
import { assessReading, typedHow } from './assessReading.js';
import { measuredParts } from './measuredParts.js';
import { suspectReadings } from './suspectReadings.js';

const usual = usualLayout(5, 8, 2, 5);
if (!usual.ok) throw new Error(usual.message);
const bare = newJob('Samphire 8', 'in', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const tenths = (value: number) => nanometres(value * 2540);
const job: JobDocument = {
  ...bare,
  limits: { ...bare.limits, mainBore: { low: tenths(26_406), high: tenths(26_416), source: 'table 2-1' } },
  instruments: { ...bare.instruments, boreGauge: { ...bare.instruments.boreGauge, needle: 'bigger' } },
};

function other(nm: number): Reading {
  return {
    id: '00000000-0000-4000-8000-000000000001',
    feature: 'mainBore',
    station: 2,
    slot: 'front',
    text: '',
    unit: 'in',
    setting: null,
    nm: tenths(nm),
    replaces: null,
    by: 'Wren',
    at: '2026-01-01T00:00:00.000Z',
  };
}

describe('a figure as it is typed', () => {
  it('is fine inside the data sheet and off the sheet outside', () => {
    expect(assessReading('2.6411', null, 'mainBore', job, [])).toEqual({ kind: 'fine', nm: tenths(26_411) });
    expect(assessReading('2.6418', null, 'mainBore', job, [])).toEqual({
      kind: 'outside',
      nm: tenths(26_418),
      message: '0.0002 in over the data sheet (2.6406 in to 2.6416 in).',
      likely: [],
    });
  });

  it('alone outside at its part is asked about: the gauge in the oil hole, the micrometer on its edge, another part', () => {
    const asked = (text: string, feature: Feature, beside: number, station = 2) => {
      const limits = { ...job.limits, mainJournal: { low: tenths(24_484), high: tenths(24_494), source: 'table 2-1' } };
      const others = [{ ...other(beside), feature }];
      const found = assessReading(text, null, feature, { ...job, limits }, others, station);
      return 'message' in found ? found.message.split(/(?<=\)\.) /u)[1] : null;
    };
    expect(asked('2.6429', 'mainBore', 26_411)).toContain('was the gauge in the oil hole, the groove');
    expect(asked('2.6399', 'mainBore', 26_411)).toBe(
      'The others here are inside: is it of this part, and at this place?',
    );
    expect(asked('2.4477', 'mainJournal', 24_489)).toContain('on the edge of the oil hole');
    // Beside others that are outside too it is the part; of another part nothing is said; and inside nothing at all.
    expect(asked('2.6429', 'mainBore', 26_430)).toBeUndefined();
    expect(asked('2.6429', 'mainBore', 26_411, 3)).toBeUndefined();
    expect(asked('2.6416', 'mainBore', 26_406)).toBeNull();
  });

  it('without its point is explained, though it is longer than any part', () => {
    expect(assessReading('26411', null, 'mainBore', job, [])).toMatchObject({
      kind: 'doubtful',
      likely: [{ slip: 'decimal-slip', nm: tenths(26_411) }],
    });
    expect(assessReading('99999', null, 'mainBore', job, [])).toMatchObject({ kind: 'unreadable' });
  });

  it('is in doubt when it cannot be right, with the slip that would explain it', () => {
    const turn = assessReading('2.6161', null, 'mainBore', job, []);
    expect(turn).toMatchObject({ kind: 'doubtful', likely: [{ slip: 'thimble-turn', nm: tenths(26_411) }] });
    expect('message' in turn && turn.message).toBe(
      '0.0245 in under what this bore can be. One thimble turn (0.025 in) off?',
    );
    const needle = assessReading('+26.4', tenths(26_146), 'mainBore', job, []);
    expect(needle).toMatchObject({ kind: 'fine' });
    const mirrored = assessReading('-26.4', tenths(26_146), 'mainBore', job, []);
    expect(mirrored).toMatchObject({ kind: 'doubtful', likely: [{ slip: 'mirrored-deviation', nm: tenths(26_410) }] });
    expect(assessReading('2.9', null, 'mainBore', job, [])).toMatchObject({
      kind: 'doubtful',
      message: '0.2584 in over what this bore can be. Read it again.',
    });
  });

  it('is compared with its neighbours where the data sheet has no limits', () => {
    expect(assessReading('2.4488', null, 'mainJournal', job, [])).toEqual({ kind: 'fine', nm: tenths(24_488) });
    const neighbours = [{ ...other(24_488), feature: 'mainJournal' as const }];
    expect(assessReading('2.4490', null, 'mainJournal', job, neighbours).kind).toBe('fine');
    expect(assessReading('2.4738', null, 'mainJournal', job, neighbours)).toMatchObject({
      kind: 'doubtful',
      message: '0.0250 in over the other journals. One thimble turn (0.025 in) off?',
    });
  });

  it('by a needle of which nobody has said which way it goes is no size: it is never assumed', () => {
    expect(bare.instruments.boreGauge.needle).toBeNull();
    const unsaid = { ...job, instruments: bare.instruments };
    const asked = assessReading('+26.4', tenths(26_146), 'mainBore', unsaid, []);
    expect(asked).toMatchObject({
      kind: 'unreadable',
      message: expect.stringContaining('needle direction is not set'),
    });
    // A whole size needs no needle, nor does a micrometer.
    expect(assessReading('2.6411', null, 'mainBore', unsaid, []).kind).toBe('fine');
    expect(assessReading('+26.4', tenths(24_200), 'mainJournal', unsaid, []).kind).toBe('fine');
    const draft = { text: '+26.4', unit: 'in', setting: tenths(26_146) } as const;
    const taken = { instrument: '', celsius: null, gaugeCelsius: null, reason: '' };
    expect(sizeOfDraft({ ...draft, taken: { ...taken, needle: null } })).toBeNull();
    expect(sizeOfDraft({ ...draft, taken: { ...taken, needle: 'smaller' } })).toBe(tenths(25_882));
  });

  it('says why it is no size', () => {
    expect(assessReading('', null, 'mainBore', job, []).kind).toBe('empty');
    expect(assessReading('+1', null, 'mainBore', job, [])).toMatchObject({ kind: 'unreadable' });
  });
});

describe('a new job', () => {
  // Common practice: an aluminium block opens more when hot than its iron or steel caps.
  it('puts the thinner half on the cap side of an aluminium block with iron or steel caps only', () => {
    expect(usualThinnerHalf('aluminium', 'iron')).toBe('lower');
    expect(usualThinnerHalf('aluminium', 'steel')).toBe('lower');
    expect(usualThinnerHalf('aluminium', 'aluminium')).toBe('either');
    expect(usualThinnerHalf('iron', 'iron')).toBe('either');
    expect(usualThinnerHalf('unknown', 'unknown')).toBe('either');
  });

  it('assumes no limit and no shell', () => {
    expect(Object.values(bare.limits).every((limit) => limit === null)).toBe(true);
    expect(bare.shells).toEqual({});
    expect(bare.rules.maxWallStep).toBe(12_700);
  });
});

describe('a suspect reading', () => {
  const mm = newJob('Rush Twin', 'mm', usual.ok ? usual.layout : bare.layout, {
    block: 'iron',
    caps: 'iron',
    rods: 'steel',
  });
  const um = (value: number) => nanometres(value * 1000);
  const twin: JobDocument = {
    ...mm,
    limits: { ...mm.limits, mainBore: { low: um(64_000), high: um(64_019), source: 'book, p. 1' } },
  };
  const read = (slot: Reading['slot'], text: string, at: number, parts: Partial<Reading> = {}): Reading => ({
    ...other(0),
    id: `00000000-0000-4000-8000-00000000000${at}`,
    unit: 'mm',
    slot,
    text,
    nm: um(Math.round(Number(text) * 1000)),
    at: `2026-01-01T00:00:0${at}.000Z`,
    ...parts,
  });
  const taken = { instrument: '', needle: 'bigger' as const, celsius: null, gaugeCelsius: null, reason: '' };
  const sizeOf = (readings: readonly Reading[]) => measuredParts(twin, readings, 'mainBore')[1]!;

  it('counts nowhere until it is confirmed', () => {
    const good = read('front', '64.010', 1);
    const wrong = read('rear', '58.515', 2);
    expect(sizeOf([good, wrong])).toMatchObject({ size: { nominal: um(64_010), count: 1 }, findings: [], missing: 1 });
    expect(suspectReadings(twin, [good, wrong])).toEqual([wrong]);
    const confirmed = { ...wrong, taken: { ...taken, confirmed: true } };
    expect(sizeOf([good, confirmed])).toMatchObject({ size: { count: 2 }, findings: [{ side: 'under' }], missing: 0 });
  });

  it('is one far from its neighbour too, inside the limits: the later of two, the odd one of three', () => {
    const [good, far] = [read('front', '64.002', 1), read('rear', '64.018', 2)];
    expect(sizeOf([good, far])).toMatchObject({ size: { nominal: um(64_002), count: 1 } });
    expect(assessReading('64.018', null, 'mainBore', twin, [good], 2, { slot: 'rear' })).toMatchObject({
      kind: 'doubtful',
      message: expect.stringContaining('0.016 mm from the nearest other reading of this bore'),
    });
    expect(sizeOf([good, { ...far, taken: { ...taken, confirmed: true } }])).toMatchObject({ size: { count: 2 } });
    expect(sizeOf([good, read('rear', '64.009', 2)])).toMatchObject({ size: { count: 2 } });
    // One that cannot be right accuses no other.
    expect(suspectReadings(twin, [read('front', '64.010', 2), read('rear', '58.515', 1)])).toHaveLength(1);
  });

  it('is the middle of a journal too that lies far beyond both ends, and not one that is tapered or oval', () => {
    const journal = {
      ...twin,
      limits: { ...twin.limits, mainJournal: { low: um(59_950), high: um(60_000), source: 'p. 1' } },
    };
    const size = (slot: Reading['slot'], text: string) => read(slot, text, 1, { feature: 'mainJournal' });
    const ends = [size('front-0', '59.980'), size('rear-0', '59.972'), size('front-90', '59.992')];
    const middle = (text: string) => assessReading(text, null, 'mainJournal', journal, ends, 2, { slot: 'middle-0' });
    expect(middle('59.976').kind).toBe('fine');
    expect(middle('59.986').kind).toBe('fine');
    expect(middle('59.995')).toMatchObject({
      kind: 'doubtful',
      message: expect.stringContaining('0.015 mm from the front and the rear plane of this journal'),
    });
    expect(middle('59.955').kind).toBe('doubtful');
    // The ends themselves, however far apart, are a finding of their own.
    expect(assessReading('59.995', null, 'mainJournal', journal, ends, 2, { slot: 'rear-90' }).kind).toBe('fine');
  });

  it('without a sign where the gauge has a setting is offered as a deviation', () => {
    const offered = (text: string) => {
      const found = assessReading(text, um(64_000), 'mainBore', twin, [], 2);
      return 'likely' in found ? found.likely.map(({ nm, question }) => [nm, question]) : [];
    };
    expect(offered('0')[0]).toEqual([um(64_000), 'No deviation from the setting?']);
    expect(offered('1.5')[0]).toEqual([um(64_015), 'A deviation of +1.5?']);
  });

  it('is judged in the unit it was typed in, whatever the unit of the engine is now', () => {
    const inches: JobDocument = { ...twin, unit: 'in' };
    const readings = [read('front', '64.010', 1), read('rear', '64.011', 2)];
    expect(suspectReadings(inches, readings)).toEqual([]);
    expect(assessReading('64.010', null, 'mainBore', inches, [], 2, typedHow(readings[0]!))).toMatchObject({
      kind: 'fine',
    });
    expect(assessReading('64.010', null, 'mainBore', inches, [], 2)).toMatchObject({ kind: 'doubtful' });
  });
});
