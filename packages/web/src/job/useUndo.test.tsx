// @vitest-environment jsdom
import { type JobDocument, type JobShell, type JobView, nanometres, newJob, usualLayout } from '@fettle/core';
import { act, renderHook } from '@testing-library/react';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { beforeEach, describe, expect, it } from 'vitest';
import { readingAt, useSaveReading } from '../measure/useSaveReading.js';
import { jobArrived, parcelDelivered } from '../saving/savingSlice.js';
import { store } from '../shell/store.js';
import { type OpenJob, useChangeDocument, useJob } from './useJob.js';
import { useUndo, useUndoSteps } from './useUndo.js';

const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const half: JobShell = {
  family: 'main',
  series: 'A',
  grade: 'teal',
  half: 'either',
  wall: nanometres(1_995_000),
  stock: 2,
  line: null,
};
const document: JobDocument = {
  ...newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' }),
  shells: { a: half },
};
let id = '';
let count = 0;

function view(changed: Partial<JobDocument>, revision: number): JobView {
  const at = '2026-01-02T03:04:05.000Z';
  const stamps = { createdAt: at, createdBy: 'Wren', updatedAt: at, updatedBy: 'Teasel', deletedAt: null };
  return {
    id,
    version: revision,
    revision,
    document: { ...document, ...changed },
    readings: [],
    held: { reserved: 0, fitted: 0 },
    ...stamps,
  };
}

const wrapper = ({ children }: { children: ReactNode }) => <Provider store={store}>{children}</Provider>;

/** An engine that is open, as a view of it sees it. */
function opened() {
  return renderHook(
    () => {
      useUndoSteps(id);
      const job = useJob(id)!;
      return { job, change: useChangeDocument(job), ...useUndo(job) };
    },
    { wrapper },
  );
}

const place = { feature: 'mainJournal', station: 1, slot: 'front-0' } as const;

/** Types a figure at the place as a view of it does. */
function types(job: OpenJob, text: string): void {
  const { result } = renderHook(() => useSaveReading({ current: job }), { wrapper });
  act(() => result.current(place, text));
}

/** The server has what was done here, and what somebody else has done beside it. */
function arrives(changed: Partial<JobDocument>, revision: number): void {
  act(() => {
    for (const parcel of store.getState().saving.parcels) store.dispatch(parcelDelivered(parcel.id));
    store.dispatch(jobArrived(view(changed, revision)));
  });
}

beforeEach(() => {
  count += 1;
  id = `00000000-0000-4000-8000-0000000000${10 + count}`;
  store.dispatch(jobArrived(view({}, 1)));
});

describe('a reading (58 of them left undo on the setting size)', () => {
  it('is the last thing done, and is taken back as one: first to what stood there, then to nothing', () => {
    const { result } = opened();
    act(() => result.current.change((old) => ({ ...old, name: 'Rush Twin 2' })));
    types(result.current.job, '59.984');
    types(result.current.job, '59.976');
    expect(result.current.what).toBe('M1 main journal, front, 0°: 59.976');
    act(() => result.current.undo!());
    expect(readingAt(result.current.job.readings, place)?.text).toBe('59.984');
    expect(result.current.what).toBe('M1 main journal, front, 0°: 59.984');
    act(() => result.current.undo!());
    expect(result.current.what).toBe('name');
  });

  it('that somebody has put another one over stays, and that is said', () => {
    const { result } = opened();
    types(result.current.job, '59.984');
    const [mine] = result.current.job.readings;
    const theirs = { ...mine!, id: '00000000-0000-4000-8000-000000000099', text: '59.981', replaces: mine!.id };
    act(() => {
      for (const parcel of store.getState().saving.parcels) store.dispatch(parcelDelivered(parcel.id));
      store.dispatch(jobArrived({ ...view({}, 2), readings: [theirs] }));
    });
    act(() => result.current.undo!());
    expect(readingAt(result.current.job.readings, place)?.text).toBe('59.981');
    expect(result.current.isPartial).toBe(true);
  });
});

describe('undo', () => {
  it('takes back step by step what was done here, newest first, and says what', () => {
    const { result } = opened();
    expect([result.current.undo, result.current.what]).toEqual([null, null]);
    act(() => result.current.change((old) => ({ ...old, name: 'Rush Twin 2' })));
    act(() => result.current.change((old) => ({ ...old, shells: {} }), 'halves taken out'));
    expect(result.current.what).toBe('halves taken out');
    act(() => result.current.undo!());
    expect(result.current.job.document.shells).toEqual({ a: half });
    expect(result.current.what).toBe('name');
    act(() => result.current.undo!());
    expect(result.current.job.document).toEqual(document);
    expect(result.current.undo).toBeNull();
  });

  it('takes back each of two changes that were made before the engine was shown again', () => {
    const { result } = opened();
    act(() => {
      result.current.change((old) => ({ ...old, name: 'Rush Twin 2' }));
      result.current.change((old) => ({ ...old, shells: {} }));
    });
    expect(result.current.job.document).toEqual({ ...document, name: 'Rush Twin 2', shells: {} });
    act(() => result.current.undo!());
    expect(result.current.job.document).toEqual({ ...document, name: 'Rush Twin 2' });
    act(() => result.current.undo!());
    expect(result.current.job.document).toEqual(document);
  });

  it('leaves the halves, rods and wishes that a second person has put in since', () => {
    const { result } = opened();
    const wishes = { M1: { upper: 'a', lower: null, noShells: [], unmixed: false } };
    act(() => result.current.change((old) => ({ ...old, shells: { a: { ...half, stock: 5 } } })));
    const theirs = {
      shells: { a: { ...half, stock: 5 }, b: { ...half, grade: 'plum' } },
      rods: { 1: { mark: 'A', pin: 2 } },
      wishes: { M2: { upper: null, lower: 'a', noShells: [], unmixed: true } },
    };
    arrives(theirs, 2);
    act(() => result.current.change((old) => ({ ...old, wishes: { ...old.wishes, ...wishes } })));
    act(() => result.current.undo!());
    act(() => result.current.undo!());
    expect(result.current.job.document).toEqual({
      ...document,
      ...theirs,
      shells: { a: half, b: { ...half, grade: 'plum' } },
    });
    expect(result.current.isPartial).toBe(false);
  });

  it('leaves what somebody has changed again, and says so', () => {
    const { result } = opened();
    act(() => result.current.change((old) => ({ ...old, name: 'Rush Twin 2' })));
    arrives({ name: 'Rush Twin 3' }, 2);
    act(() => result.current.undo!());
    expect([result.current.job.document.name, result.current.isPartial]).toEqual(['Rush Twin 3', true]);
  });

  it('lasts for the visit: another engine has steps of its own, and leaving forgets them', () => {
    const first = opened();
    act(() => first.result.current.change((old) => ({ ...old, name: 'Rush Twin 2' })));
    expect(store.getState().undo.steps).toHaveLength(1);
    first.unmount();
    expect(store.getState().undo).toEqual({ job: null, steps: [], isPartial: false });
    expect(opened().result.current.undo).toBeNull();
  });
});
