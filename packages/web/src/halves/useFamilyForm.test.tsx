// @vitest-environment jsdom
import { type JobShell, nanometres } from '@fettle/core';
import { act, renderHook } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';
import { Around } from '../job/testing/openedJob.js';
import { useFamilyForm } from './useFamilyForm.js';

let added: (readonly JobShell[])[];
let id = 0;
beforeEach(() => {
  localStorage.clear();
  added = [];
  id += 1;
});

const open = (withRods = false) =>
  renderHook(
    () =>
      useFamilyForm({
        id: `form ${id}`,
        unit: 'mm',
        withRods,
        isCounted: true,
        spanOf: () => ({ low: nanometres(1_500_000), high: nanometres(2_500_000) }),
        onAdd: (shells) => added.push(shells),
      }),
    { wrapper: Around },
  ).result;

const TYPED = { series: 'Osier', first: '1.990', step: '0.003', count: '3', stock: '4' };

it('says what is wrong once somebody tried to add, and adds nothing until then', () => {
  const form = open();
  act(() => form.current.set({ first: 'two' }));
  expect(form.current.faults).toEqual({});
  act(() => form.current.add());
  expect(form.current.faults.series).toBe('Enter the series.');
  expect(added).toEqual([]);
});

it('shows each grade once, adds both sides, and begins again blank', () => {
  const form = open();
  act(() => form.current.set(TYPED));
  expect(form.current.walls).toEqual([
    ['1', 1_990_000],
    ['2', 1_993_000],
    ['3', 1_996_000],
  ]);
  act(() => form.current.add());
  expect(added.map((shells) => shells.length)).toEqual([6]);
  expect(form.current.text.series).toBe('');
});

it('goes on with the other family of the same series where an engine has rods', () => {
  const form = open(true);
  act(() => form.current.set(TYPED));
  act(() => form.current.add());
  expect(form.current.text).toMatchObject({ family: 'rod', series: 'Osier', first: '' });
});

it('asks about a wall that can hardly be one, and adds it once it is confirmed', () => {
  const form = open();
  act(() => form.current.set({ ...TYPED, first: '19.90' }));
  expect(form.current.slips.first).toContain('1.990');
  act(() => form.current.add());
  expect(added).toEqual([]);
  act(() => form.current.confirm('first'));
  expect(form.current.slips.first).toBeNull();
  act(() => form.current.add());
  expect(added).toHaveLength(1);
});

it('keeps what was typed when the page comes again', () => {
  const form = open();
  act(() => form.current.set({ series: 'Osier' }));
  expect(open().current.text.series).toBe('Osier');
});
