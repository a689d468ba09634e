import { type JobDocument, type JobView, newJob, type Reading, type ReadingDraft, usualLayout } from '@fettle/core';
import { describe, expect, it } from 'vitest';
import { engineWithReading, knownDocument, knownReadings, newerEngine } from './knownEngine.js';
import type { Parcel } from './outbox.js';
import {
  documentOvertaken,
  jobArrived,
  KEPT_OVER,
  parcelAdded,
  parcelDelivered,
  parcelRefused,
  readingArrived,
  readingOvertaken,
  type SavingState,
  savingReducer,
  sendingFailed,
  sendingStarted,
  waitingRecalled,
  withOurs,
} from './savingSlice.js';

const JOB = 'job';
const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const base: JobDocument = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });

const start: SavingState = savingReducer(undefined, { type: 'start' });

function view(document: JobDocument, version = 1, readings: Reading[] = []): JobView {
  const at = '2026-01-01T00:00:00.000Z';
  return {
    id: JOB,
    version,
    revision: version,
    document,
    readings,
    held: { reserved: 0, fitted: 0 },
    createdAt: at,
    createdBy: 'Wren',
    updatedAt: at,
    updatedBy: 'Wren',
    deletedAt: null,
  };
}

function draft(text: string, replaces: string | null = null, station = 1): ReadingDraft {
  return {
    feature: 'mainBore',
    station,
    slot: 'front',
    text,
    unit: 'mm',
    setting: null,
    replaces,
    by: 'Teasel',
    at: '2026-01-01T00:00:00.000Z',
  };
}

const reading = (id: string, text: string, replaces: string | null = null, station = 1): Parcel => ({
  kind: 'reading',
  id,
  jobId: JOB,
  draft: draft(text, replaces, station),
});

const change = (id: string, from: JobDocument, ours: JobDocument): Parcel => ({
  kind: 'document',
  id,
  jobId: JOB,
  by: 'Teasel',
  base: from,
  ours,
});

const ids = (state: SavingState) => state.parcels.map(({ id }) => id);
const after = (state: SavingState, ...actions: Parameters<typeof savingReducer>[1][]) =>
  actions.reduce(savingReducer, state);

describe('the outbox', () => {
  it('sends a place once when it is typed again before it left, and still replaces what stood there first', () => {
    const state = after(start, parcelAdded(reading('a', '64.01', 'old')), parcelAdded(reading('b', '64.02', 'a')));
    expect(ids(state)).toEqual(['b']);
    expect(state.parcels[0]).toMatchObject({ draft: { text: '64.02', replaces: 'old' } });
  });

  it('queues a correction behind a reading that is already on its way', () => {
    const state = after(
      start,
      parcelAdded(reading('a', '64.01')),
      sendingStarted('a'),
      parcelAdded(reading('b', '64.02', 'a')),
    );
    expect(ids(state)).toEqual(['a', 'b']);
    expect(state.parcels[1]).toMatchObject({ draft: { replaces: 'a' } });
  });

  it('that took the place of one which was sent after all corrects that one, and asks nobody', () => {
    const sent: Reading = { ...draft('64.01', 'old'), id: 'a', nm: null };
    const state = after(
      start,
      parcelAdded(reading('a', '64.01', 'old')),
      parcelAdded(reading('b', '64.02', 'a')),
      sendingStarted('b'),
      readingOvertaken({ id: 'b', current: sent }),
    );
    expect(state.clashes).toEqual([]);
    expect(state.sending).toBeNull();
    expect(state.parcels).toMatchObject([{ id: 'b', draft: { text: '64.02', replaces: 'a' } }]);
  });

  it('keeps readings of different places apart, in the order in which they were typed', () => {
    const state = after(start, parcelAdded(reading('a', '64.01')), parcelAdded(reading('b', '64.02', null, 2)));
    expect(ids(state)).toEqual(['a', 'b']);
  });

  it('joins changes of a document that have not left yet, from the first base to the last wish', () => {
    const first = { ...base, name: 'A' };
    const second = { ...first, rules: { ...base.rules, mixedHalves: false } };
    const state = after(start, parcelAdded(change('a', base, first)), parcelAdded(change('b', first, second)));
    expect(state.parcels).toHaveLength(1);
    expect(state.parcels[0]).toMatchObject({
      base: { name: 'Rush Twin' },
      ours: { name: 'A', rules: { mixedHalves: false } },
    });
  });

  it('keeps both of two changes that were made in one moment, from what was shown before either', () => {
    const limits = {
      ...base.limits,
      mainBore: { low: null, high: null, source: 'book' },
    } as unknown as JobDocument['limits'];
    const both = [
      change('a', base, { ...base, name: 'named', unit: 'in' }),
      change('b', base, { ...base, limits, unit: 'mm' }),
    ];
    const { parcels } = both.reduce((state, parcel) => savingReducer(state, parcelAdded(parcel)), start);
    expect(parcels).toEqual([change('b', base, { ...base, name: 'named', unit: 'in', limits })]);
    // Where both are about one place the later one counts, also where it takes the first back.
    const first = { ...base, name: 'first' };
    for (const name of ['second', base.name]) {
      const made = [change('a', base, first), change('b', first, { ...first, name })];
      const after = made.reduce((state, parcel) => savingReducer(state, parcelAdded(parcel)), start);
      expect(after.parcels).toEqual([change('b', base, { ...base, name })]);
    }
  });

  it('keeps everything when the server cannot be reached, and lets go only of what was delivered', () => {
    const sent = after(
      start,
      parcelAdded(reading('a', '64.01')),
      parcelAdded(reading('b', '64.02', null, 2)),
      sendingStarted('a'),
    );
    const failed = after(sent, sendingFailed('server'));
    expect(failed).toMatchObject({ unreachable: true, sending: null });
    expect(ids(failed)).toEqual(['a', 'b']);
    const delivered = after(failed, sendingStarted('a'), parcelDelivered('a'));
    expect(delivered.unreachable).toBe(false);
    expect(ids(delivered)).toEqual(['b']);
  });

  it('sends what an earlier visit left before anything new', () => {
    const state = after(
      start,
      parcelAdded(reading('new', '64.02')),
      waitingRecalled({ parcels: [reading('old', '64.01', null, 2)], clashes: [], refusals: [] }),
    );
    expect(ids(state)).toEqual(['old', 'new']);
  });

  it('recalls nothing twice, and of one place typed before and after the recall sends what was typed last', () => {
    const typedAt = (parcel: Parcel, at: string): Parcel =>
      parcel.kind === 'reading' ? { ...parcel, draft: { ...parcel.draft, at } } : parcel;
    const earlier = typedAt(reading('left', '64.01', 'old'), '2026-01-01T08:00:00.000Z');
    const later = typedAt(reading('new', '64.02', 'old'), '2026-01-01T08:00:05.000Z');
    const recall = (parcels: Parcel[]) => waitingRecalled({ parcels, clashes: [], refusals: [] });
    const one = [{ id: 'new', took: ['left'], draft: { text: '64.02', replaces: 'old' } }];
    expect(after(start, parcelAdded(later), recall([earlier])).parcels).toMatchObject(one);
    expect(after(start, parcelAdded(earlier), recall([later])).parcels).toMatchObject(one);
    expect(ids(after(start, parcelAdded(earlier), recall([earlier])))).toEqual(['left']);
    // What is on its way says what it replaces; should the other one have been sent after all, it is corrected then.
    const sent = after(start, parcelAdded(later), sendingStarted('new'), recall([earlier]));
    expect(sent.parcels).toMatchObject([{ id: 'new', took: ['left'], draft: { replaces: 'old' } }]);
    const behind = after(start, parcelAdded(earlier), sendingStarted('left'), recall([later]));
    expect(behind.parcels).toMatchObject([{ id: 'left' }, { id: 'new', draft: { replaces: 'left' } }]);
    // Typed where another one's figure stood since, it corrects that one.
    const knowing = typedAt(reading('new', '64.02', 'theirs'), '2026-01-01T08:00:05.000Z');
    expect(after(start, parcelAdded(knowing), recall([earlier])).parcels).toMatchObject([
      { took: ['left'], draft: { replaces: 'theirs' } },
    ]);
  });

  it('brings all that waits for one place up to date, also behind one that could not be sent', () => {
    const state = after(
      start,
      parcelAdded(reading('a', '64.01', 'old')),
      sendingStarted('a'),
      parcelAdded(reading('b', '64.02', 'a')),
      sendingFailed('server'),
      parcelAdded(reading('c', '64.03', 'b')),
    );
    expect(state.parcels).toMatchObject([{ id: 'c', draft: { text: '64.03', replaces: 'old' } }]);
    expect(state.parcels).toMatchObject([{ took: expect.arrayContaining(['a', 'b']) }]);
    const renamed = (name: string) => ({ ...base, name });
    const documents = after(
      start,
      parcelAdded(change('a', base, renamed('A'))),
      sendingStarted('a'),
      parcelAdded(change('b', renamed('A'), renamed('B'))),
      sendingFailed('server'),
      parcelAdded(change('c', renamed('B'), renamed('C'))),
    );
    expect(documents.parcels).toMatchObject([{ id: 'c', base: { name: 'Rush Twin' }, ours: { name: 'C' } }]);
  });

  it('asks about the figure that was typed last, where one was on its way', () => {
    const theirs: Reading = { ...draft('64.05'), id: 'theirs', nm: null };
    const state = after(
      start,
      jobArrived(view(base)),
      parcelAdded(reading('a', '64.01')),
      sendingStarted('a'),
      parcelAdded(reading('b', '64.02', 'a')),
      readingOvertaken({ id: 'a', current: theirs }),
    );
    expect(state.clashes).toEqual([]);
    expect(after(state, readingOvertaken({ id: 'b', current: theirs })).clashes).toMatchObject([
      { id: 'b', ours: { text: '64.02' }, theirs: { text: '64.05' } },
    ]);
  });

  it('keeps what the server refuses until somebody decides', () => {
    const state = after(start, parcelAdded(reading('a', '64.01')), parcelRefused({ id: 'a', detail: 'no such main' }));
    expect(state.parcels).toEqual([]);
    expect(state.refusals).toMatchObject([{ parcel: { id: 'a' }, detail: 'no such main' }]);
  });
});

describe('news from the server', () => {
  it('never goes back to an older revision', () => {
    const state = after(start, jobArrived(view(base, 3)), jobArrived(view({ ...base, name: 'old news' }, 2)));
    expect(state.jobs[JOB]!.document.name).toBe('Rush Twin');
  });

  it('lays an unsent change over what the others did, for what is shown', () => {
    const theirs = { ...base, materials: { ...base.materials, block: 'aluminium' as const } };
    const here = { jobs: { [JOB]: view(theirs, 2) }, parcels: [], elsewhere: [] };
    const shown = knownDocument({ ...here, parcels: [change('a', base, { ...base, name: 'ours' })] }, JOB);
    expect(shown).toMatchObject({ name: 'ours', materials: { block: 'aluminium' } });
  });

  it('is overlaid with what other tabs have waiting first, then with what waits here, a reading a place', () => {
    const [theirs, ours] = [
      change('t', base, { ...base, materials: { ...base.materials, caps: 'steel' } }),
      change('o', base, { ...base, name: 'ours' }),
    ];
    const read = { ...draft('64.010'), id: 'r', nm: 64_010_000 } as Reading;
    const here = {
      jobs: { [JOB]: view(base, 3, [read]) },
      parcels: [ours, reading('mine', '64.012', 'r'), reading('two', '64.015', null, 2)],
      elsewhere: [theirs, { ...reading('strange', '1'), jobId: 'another engine' }],
    };
    expect(knownDocument(here, JOB)).toMatchObject({ name: 'ours', materials: { caps: 'steel' } });
    expect(knownReadings(here, JOB).map(({ id, nm }) => [id, nm])).toEqual([
      ['mine', 64_012_000],
      ['two', 64_015_000],
    ]);
    expect(knownDocument({ ...here, jobs: {} }, JOB)).toBeNull();
    const made: Parcel = { kind: 'create', id: 'c', jobId: JOB, by: 'Teasel', document: base };
    expect(knownDocument({ jobs: {}, parcels: [made, ours], elsewhere: [] }, JOB)!.name).toBe('ours');
  });

  it('of one engine counts by its revision, to which a new reading adds', () => {
    const told = view(base, 3);
    expect([newerEngine(undefined, told), newerEngine(view(base, 2), told)]).toEqual([told, told]);
    expect(newerEngine(view(base, 4), told).revision).toBe(4);
    const read = { ...draft('64.010'), id: 'r', nm: 64_010_000 } as Reading;
    const once = engineWithReading(told, read);
    expect([once.revision, engineWithReading(once, read).revision]).toEqual([4, 4]);
  });

  it('lays our change over a newer version and sends only what is ours', () => {
    const ours = { ...base, name: 'ours' };
    const theirs = { ...base, materials: { ...base.materials, caps: 'steel' as const } };
    const state = after(
      start,
      jobArrived(view(base)),
      parcelAdded(change('a', base, ours)),
      documentOvertaken({ id: 'a', current: view(theirs, 2) }),
    );
    expect(state.clashes).toEqual([]);
    expect(state.parcels[0]).toMatchObject({ base: theirs, ours: { name: 'ours', materials: { caps: 'steel' } } });
  });

  it('asks where both changed one place, and keeps the rest of ours', () => {
    const ours = { ...base, name: 'ours', rules: { ...base.rules, tightWeight: 3 } };
    const theirs = { ...base, name: 'theirs' };
    const state = after(
      start,
      jobArrived(view(base)),
      parcelAdded(change('a', base, ours)),
      documentOvertaken({ id: 'a', current: view(theirs, 2) }),
    );
    const [clash] = state.clashes;
    expect(clash).toMatchObject({ kind: 'document', path: '/name', ours: 'ours', theirs: 'theirs' });
    expect(state.parcels[0]).toMatchObject({ ours: { name: 'theirs', rules: { tightWeight: 3 } } });
    if (clash?.kind !== 'document') throw new Error('a clash in the document was expected');
    expect(withOurs(theirs, clash).name).toBe('ours');
  });

  it('asks about a reading that met another one, unless both read the same', () => {
    const theirs: Reading = { ...draft('64.02'), id: 'theirs', nm: null };
    const met = (text: string) =>
      after(
        start,
        jobArrived(view(base)),
        parcelAdded(reading('a', text)),
        readingOvertaken({ id: 'a', current: theirs }),
      );
    expect(met('64.01').clashes).toMatchObject([
      { kind: 'reading', ours: { text: '64.01' }, theirs: { id: 'theirs' } },
    ]);
    expect(met('64.02').clashes).toEqual([]);
    expect(met('64.01').jobs[JOB]!.readings).toEqual([theirs]);
    expect(met('64.01').parcels).toEqual([]);
  });

  it('puts a delivered reading in the place of the one before it', () => {
    const first: Reading = { ...draft('64.01'), id: 'first', nm: null };
    const second: Reading = { ...draft('64.02', 'first'), id: 'second', nm: null };
    const state = after(start, jobArrived(view(base, 1, [first])), readingArrived({ jobId: JOB, reading: second }));
    expect(state.jobs[JOB]!.readings).toEqual([second]);
    // A look at the engine that set out before the reading was there does not take it away again.
    expect(after(state, jobArrived(view(base, 1, [first]))).jobs[JOB]!.readings).toEqual([second]);
    // Delivered twice, it counts once.
    expect(after(state, readingArrived({ jobId: JOB, reading: second })).jobs[JOB]!.revision).toBe(2);
  });
});

describe('two who typed in one box at once', () => {
  it('are both asked: the second when it is sent, the first when the second keeps its own', () => {
    const mine: Parcel = reading('mine', '64.01');
    const sent = after(
      start,
      jobArrived(view(base)),
      parcelAdded(mine),
      sendingStarted('mine'),
      parcelDelivered('mine'),
    );
    const over = (reason: string): Reading => ({
      ...draft('64.02', 'mine'),
      id: 'theirs',
      nm: null,
      by: 'Sorrel',
      taken: { instrument: '', needle: 'bigger', celsius: null, gaugeCelsius: null, reason },
    });
    // A correction that was made over what one saw is nobody's question.
    expect(after(sent, jobArrived(view(base, 2, [over('read again')]))).clashes).toEqual([]);
    const asked = after(sent, jobArrived(view(base, 2, [over(KEPT_OVER)])));
    expect(asked.clashes).toMatchObject([
      { kind: 'reading', ours: { text: '64.01' }, theirs: { text: '64.02', by: 'Sorrel' } },
    ]);
    // Once is enough.
    expect(after(asked, jobArrived(view(base, 3, [over(KEPT_OVER)]))).clashes).toHaveLength(1);
  });
});
