import { nanometres } from '@fettle/core';
import { describe, expect, it } from 'vitest';
import { BLANK_FAMILY, familyOfText } from './familyText.js';

const typed = { ...BLANK_FAMILY, series: 'Osier', first: '1.990', step: '0.003', count: '3', stock: '4' };
const um = (value: number) => nanometres(value * 1000);

describe('a graded family', () => {
  it('has a wall for each grade and side, a step apart from the first', () => {
    const { shells, faults } = familyOfText({ ...typed, names: 'Thin, Middle, Thick' }, 'mm', true);
    expect(faults).toEqual({});
    // By hand: 1.990, 1.993, 1.996 mm.
    expect(shells.map(({ grade, half, wall }) => [grade, half, wall])).toEqual([
      ['Thin', 'upper', um(1990)],
      ['Middle', 'upper', um(1993)],
      ['Thick', 'upper', um(1996)],
      ['Thin', 'lower', um(1990)],
      ['Middle', 'lower', um(1993)],
      ['Thick', 'lower', um(1996)],
    ]);
    expect(new Set(shells.map(({ stock }) => stock))).toEqual(new Set([4]));
  });

  it('goes down with a step below zero, and needs no step for one grade', () => {
    const down = familyOfText({ ...typed, step: '-0.003', sides: 'either' }, 'mm', true).shells;
    expect(down.map(({ wall }) => wall)).toEqual([um(1990), um(1987), um(1984)]);
    const one = familyOfText({ ...typed, step: '', count: '1', sides: 'either' }, 'mm', true).shells;
    expect(one.map(({ wall }) => wall)).toEqual([um(1990)]);
  });

  it('reads lengths in the unit that they name', () => {
    const { shells } = familyOfText({ ...typed, first: '0.0784 in', count: '1', sides: 'upper' }, 'mm', true);
    // By hand: 0.0784 in is 1.99136 mm.
    expect(shells[0]!.wall).toBe(1_991_360);
  });

  it('with a flange is for the thrust main, unless another position is named', () => {
    const wide = { ...typed, count: '1', sides: 'upper', width: '28' } as const;
    expect(familyOfText(wide, 'mm', true).shells[0]).toMatchObject({ width: um(28_000), positions: ['thrust'] });
    expect(familyOfText({ ...wide, places: 'rear' }, 'mm', true).shells[0]!.positions).toEqual(['rear']);
  });

  it('may be uncounted in an engine’s own stock only', () => {
    expect(familyOfText({ ...typed, stock: '' }, 'mm', false).shells[0]!.stock).toBeNull();
    expect(familyOfText({ ...typed, stock: '' }, 'mm', true)).toEqual({
      shells: [],
      faults: { stock: 'Enter a whole number.' },
    });
  });

  it('is added whole or not at all: each box says what is wrong with it', () => {
    const { shells, faults } = familyOfText(
      { ...typed, series: ' ', first: 'two', count: 'x', stock: '-1', width: '0', undersize: 'x'.repeat(21) },
      'mm',
      true,
    );
    expect(shells).toEqual([]);
    expect(Object.keys(faults).sort()).toEqual(['count', 'first', 'series', 'stock', 'undersize', 'width']);
  });
});
