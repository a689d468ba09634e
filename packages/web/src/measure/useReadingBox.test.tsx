// @vitest-environment jsdom
import { type JobDocument, nanometres, newJob, type Reading, usualLayout } from '@fettle/core';
import { act, fireEvent, render, screen } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { useLatest } from '../base/useLatest.js';
import { Around, AT, jobCame, nothingWaits } from '../job/testing/openedJob.js';
import { useJob } from '../job/useJob.js';
import { store } from '../shell/store.js';
import { noteText } from '../ui/typingNotes.js';
import { keptKey } from '../ui/useKeptText.js';
import { ReadingCell } from './ReadingCell.js';
import { type CellActs, stepOf } from './useReadingBox.js';
import type { Place } from './useSaveReading.js';

const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const document: JobDocument = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const id = '00000000-0000-4000-8000-0000000000ab';
const M1: Place = { feature: 'mainBore', station: 1, slot: 'front' };
let went: string[];

function Bore() {
  const job = useJob(id)!;
  const latest = useLatest(job);
  const acts: CellActs = {
    step: (_, where) => went.push(where),
    hold: () => undefined,
    typing: () => undefined,
  };
  const standing = job.readings[0] ?? null;
  return (
    <ReadingCell latest={latest} document={job.document} place={M1} standing={standing} told="" reason="" acts={acts} />
  );
}

function open(changed: Partial<JobDocument> = {}, readings: Reading[] = []): HTMLInputElement {
  jobCame(id, { ...document, ...changed }, readings);
  render(<Bore />, { wrapper: Around });
  return screen.getByRole('textbox');
}

const sent = () =>
  store.getState().saving.parcels.flatMap((parcel) => (parcel.kind === 'reading' ? [parcel.draft.text] : []));
const type = (box: HTMLInputElement, value: string) => fireEvent.change(box, { target: { value } });

beforeEach(() => {
  nothingWaits();
  localStorage.clear();
  went = [];
});

describe('where a key goes from a box', () => {
  const at = (selectionStart: number, selectionEnd: number) => ({ selectionStart, selectionEnd, value: '62.003' });
  it.each([
    ['Enter', false, at(0, 6), 'next'],
    ['Enter', true, at(2, 2), 'previous'],
    ['ArrowUp', false, at(2, 2), 'up'],
    ['ArrowDown', false, at(2, 2), 'down'],
    ['ArrowLeft', false, at(0, 6), 'left'],
    ['ArrowLeft', false, at(0, 0), 'left'],
    ['ArrowLeft', false, at(3, 3), null],
    ['ArrowRight', false, at(6, 6), 'right'],
    ['ArrowRight', false, at(0, 3), null],
    ['7', false, at(0, 6), null],
  ])('%s, shift %s, from %o: %s', (key, shiftKey, box, step) => {
    expect(stepOf({ key, shiftKey }, box)).toBe(step);
  });
});

it('keeps a figure once when Enter takes it and the box is left after it', () => {
  const box = open();
  act(() => box.focus());
  type(box, '62.003');
  fireEvent.keyDown(box, { key: 'Enter' });
  act(() => box.blur());
  expect([sent(), went]).toEqual([['62.003'], ['next']]);
});

it('gives up what was typed with Escape, and sends nothing', () => {
  const box = open();
  act(() => box.focus());
  type(box, '62.9');
  fireEvent.keyDown(box, { key: 'Escape' });
  act(() => box.blur());
  expect([sent(), box.value]).toEqual([[], '']);
});

it('reads a bare 2 on a zeroed gauge as +2', () => {
  const { measuring } = document;
  const setting = { ...measuring.setting, mainBore: nanometres(62_000_000) };
  const box = open({ measuring: { ...measuring, setting } });
  act(() => box.focus());
  type(box, '2');
  act(() => box.blur());
  expect([sent(), box.value]).toEqual([['+2'], '+2']);
});

it('does not keep half a figure that a reload left over one that stands, until a key is pressed', () => {
  const place = { of: id, part: 'M1', field: 'mainBore front' };
  noteText(keptKey(place), '62.0');
  const stands = { ...M1, id: '00000000-0000-4000-8000-000000000b02', text: '62.003', unit: 'mm', setting: null };
  const box = open({}, [{ ...stands, by: 'Wren', at: AT, replaces: null, nm: nanometres(62_003_000) } as Reading]);
  expect([box.value, screen.queryByText('unfinished') !== null]).toEqual(['62.0', true]);
  act(() => box.blur());
  fireEvent.keyDown(box, { key: 'ArrowDown' });
  expect([sent(), went]).toEqual([[], ['down']]);
  type(box, '62.004');
  fireEvent.keyDown(box, { key: 'Enter' });
  expect(sent()).toEqual(['62.004']);
});
