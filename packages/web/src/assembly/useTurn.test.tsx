// @vitest-environment jsdom
import { newJob, usualLayout } from '@fettle/core';
import { act, renderHook } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';
import { Around, jobCame, nothingWaits } from '../job/testing/openedJob.js';
import { useJob } from '../job/useJob.js';
import { useAssembly } from './useAssembly.js';
import { useTurn } from './useTurn.js';

const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const { layout } = usual;
const id = '00000000-0000-4000-8000-0000000000ce';

function open(unit: 'mm' | 'in' = 'mm') {
  jobCame(id, newJob('Rush Twin', unit, layout, { block: 'iron', caps: 'iron', rods: 'steel' }), []);
  return renderHook(
    () => {
      const assembly = useAssembly(useJob(id)!);
      return { assembly, turn: useTurn(assembly, assembly.station) };
    },
    { wrapper: Around },
  ).result;
}

beforeEach(() => {
  nothingWaits();
  localStorage.clear();
});

it('is kept with a press and withdrawn with the next one', () => {
  const seen = open();
  expect(seen.current.turn.known).toBeNull();
  act(() => seen.current.turn.press('even'));
  expect(seen.current.turn.known).toMatchObject({ how: 'even', angle: null, breakaway: null });
  act(() => seen.current.turn.press('even'));
  expect(seen.current.turn.known).toBeNull();
});

it('keeps the angle of a stiff place only, from 0 to 360 degrees', () => {
  const seen = open();
  act(() => seen.current.turn.press('stiff'));
  act(() => seen.current.turn.angle.setText('400'));
  expect(seen.current.turn.angleFault).toBe('Enter degrees from 0 to 360.');
  act(() => seen.current.turn.keep('stiff'));
  expect(seen.current.turn.known!.angle).toBeNull();
  act(() => seen.current.turn.angle.setText('120°'));
  act(() => seen.current.turn.keep('stiff'));
  expect(seen.current.turn.known!.angle).toBe(120);
  act(() => seen.current.turn.press('uneven'));
  expect(seen.current.turn.known).toMatchObject({ how: 'uneven', angle: null });
});

it('keeps a breakaway torque with the unit that it was read in', () => {
  const seen = open('in');
  act(() => seen.current.turn.press('even'));
  act(() => seen.current.turn.away.setText('35'));
  act(() => seen.current.turn.keep('even'));
  expect(seen.current.turn.known!.breakaway).toEqual({ value: 35, unit: 'in-lb' });
  act(() => seen.current.turn.setUnit('ft-lb'));
  expect(seen.current.turn.known!.breakaway).toEqual({ value: 35, unit: 'ft-lb' });
  act(() => seen.current.turn.away.setText('much'));
  expect(seen.current.turn.awayFault).toBe('Enter a torque, or leave blank.');
});
