// @vitest-environment jsdom
import { nanometres, newEngineType, usualLayout } from '@fettle/core';
import { describe, expect, it } from 'vitest';
import { EMPTY_LIMIT, readLimit } from '../limits/limitText.js';
import { buildOfForm, documentOfForm, type EngineForm } from './useNewEngine.js';

const usual = usualLayout(5, 4, 1, 3);
if (!usual.ok) throw new Error(usual.message);
const { layout } = usual;
const form = {
  type: '',
  name: ' Sedge 4 no. 12 ',
  serial: ' S4-12 ',
  from: 'last',
  unit: 'mm',
  withRods: 'no',
  block: 'aluminium',
  caps: 'iron',
  rodMaterial: 'steel',
} as EngineForm;

describe('a serial number that was built here before', () => {
  const build = (id: string, isSigned: boolean) => ({
    id,
    name: id,
    serial: 'S4-12',
    createdAt: '2024-01-02T03:04:05.000Z',
    closedAt: null,
    signed: isSigned ? { revision: 1, hash: 'a', at: '2024-01-02T03:04:05.000Z' } : null,
  });
  const builds = [build('third', false), build('second', true), build('first', true)];

  it('goes on from the last one signed, from another that was chosen, or from none', () => {
    expect(buildOfForm({ from: 'last' }, builds)?.id).toBe('second');
    expect(buildOfForm({ from: 'first' }, builds)?.id).toBe('first');
    expect(buildOfForm({ from: '' }, builds)).toBeNull();
    expect(buildOfForm({ from: 'last' }, [build('third', false)])).toBeNull();
    // A serial number that was typed over: the build that was chosen is none of its own.
    expect(buildOfForm({ from: 'first' }, [])).toBeNull();
  });

  it('stands in the engine, without blanks', () => {
    expect(documentOfForm(form, null, layout, {})?.serial).toBe('S4-12');
  });
});

describe('the form that starts an engine', () => {
  it('makes a job of what was typed, with the limits that are there and none of those that are not', () => {
    const bore = readLimit({ low: '64', high: '64.019', source: 'book, p. 3' }, 'mm');
    const job = documentOfForm(form, null, layout, { mainBore: bore, mainJournal: readLimit(EMPTY_LIMIT, 'mm') });
    expect(job).toMatchObject({ name: 'Sedge 4 no. 12', origin: null, shells: {}, rules: { thinnerHalf: 'lower' } });
    expect(job?.limits.mainBore).toEqual({ low: 64_000_000, high: 64_019_000, source: 'book, p. 3' });
    expect(job?.limits.mainJournal).toBeNull();
  });

  it('copies a sheet of the library, with its grades as halves, the rods where they are fitted', () => {
    const grade = { mark: 'Teal', low: nanometres(1_990_000), high: nanometres(1_993_000), paint: null };
    const blank = newEngineType('Sedge 4', 'mm', layout);
    const type = { ...blank, main: { ...blank.main, grades: [grade] }, rod: { ...blank.rod, grades: [grade] } };
    const at = '2026-01-02T03:04:05.000Z';
    const id = '00000000-0000-4000-8000-0000000000aa';
    const view = { id, revision: 3, type, archivedAt: null, updatedAt: at, updatedBy: 'Teasel' };
    const families = (withRods: 'yes' | 'no') =>
      Object.values(documentOfForm({ ...form, type: id, withRods }, view, null, {})!.shells)
        .map(({ family, half }) => `${family} ${half}`)
        .sort();
    expect(families('no')).toEqual(['main lower', 'main upper']);
    expect(families('yes')).toEqual(['main lower', 'main upper', 'rod lower', 'rod upper']);
    expect(documentOfForm({ ...form, type: id }, view, null, {})).toMatchObject({ origin: { type: id, revision: 3 } });
  });

  it.each([
    ['no name', { ...form, name: ' ' }, layout],
    ['no layout', form, null],
    ['a sheet that is not there yet', { ...form, type: 'any' }, layout],
  ])('starts nothing with %s', (_, said, drawn) => {
    expect(documentOfForm(said, null, drawn, {})).toBeNull();
  });
});
