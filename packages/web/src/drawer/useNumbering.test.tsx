// @vitest-environment jsdom
import { type DrawerLine, drawerHalfSchema, nanometres } from '@fettle/core';
import { act, renderHook } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import type { Drawer } from './useDrawer.js';
import { useNumbering } from './useNumbering.js';

const half = drawerHalfSchema.parse({
  family: 'main',
  series: 'A',
  grade: 'teal',
  half: 'upper',
  wall: 1_995_000,
  band: { low: 1_993_000, high: 1_997_000 },
  onHand: 3,
});
const line: DrawerLine = {
  id: '00000000-0000-4000-8000-000000000001',
  version: 4,
  half,
  reservations: [],
  used: 0,
  fittedHere: 0,
};

let asked: number;
let told: (string | null)[];
const doIt: Drawer['act'] = () => {
  asked += 1;
  return Promise.resolve(true);
};

function numbering(lines: readonly DrawerLine[] = [line]) {
  return renderHook(() =>
    useNumbering({ line, lines, unit: 'mm', by: 'Wren', act: doIt, onTold: (text) => told.push(text) }),
  );
}

beforeEach(() => {
  localStorage.clear();
  asked = 0;
  told = [];
});

describe('numbering a half', () => {
  it('takes the ball off what was read over it, and keeps the ball for the next half and the next visit', () => {
    const { result } = numbering();
    act(() => result.current.setBall('4.000'));
    act(() => result.current.setOver('5.996'));
    expect(result.current.wall).toBe(nanometres(1_996_000));
    expect(result.current.findingText).toBeNull();
    expect(numbering().result.current.ball).toBe('4.000');
  });

  it('says by how much a wall is outside its grade, beyond what the micrometer may be off', () => {
    const { result } = numbering();
    act(() => result.current.setBall('4.000'));
    act(() => result.current.setOver('5.999'));
    // 0.002 beyond the band is the micrometer's.
    expect(result.current.findingText).toBeNull();
    act(() => result.current.setOver('6.020'));
    expect(result.current.findingText).toMatch(/^Wall 0\.02\d mm too thick for teal/);
  });

  it('does nothing without a number or a wall, and clears for the next half when it worked', async () => {
    const { result } = numbering();
    act(() => result.current.numberIt());
    act(() => result.current.setNumber('17'));
    act(() => result.current.numberIt());
    expect(asked).toBe(0);
    act(() => result.current.setBall('4.000'));
    act(() => result.current.setOver('5.996'));
    await act(async () => result.current.numberIt());
    expect([asked, result.current.number, result.current.over, result.current.ball]).toEqual([1, '', '', '4.000']);
    expect(told.at(-1)).toMatch(/^No\. 17 now has its own wall: 1\.996/);
  });

  it('refuses a number that a half of the kind has already', () => {
    const taken = { ...line, id: line.id.replace(/1$/u, '2'), half: { ...half, number: '17', onHand: 1 } };
    const { result } = numbering([line, taken]);
    act(() => result.current.setBall('4.000'));
    act(() => result.current.setOver('5.996'));
    act(() => result.current.setNumber(' 17 '));
    act(() => result.current.numberIt());
    expect([asked, told]).toEqual([0, ['Shell no. 17 of this kind already exists.']]);
  });
});
