// @vitest-environment jsdom
import { type JobDocument, newJob, torqueSchema, usualLayout } from '@fettle/core';
import { act, renderHook } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { Around, jobCame, nothingWaits } from '../job/testing/openedJob.js';
import { useJob } from '../job/useJob.js';
import { useTorque } from '../torque/useTorque.js';
import { openAt, useAssembly } from './useAssembly.js';

const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const id = '00000000-0000-4000-8000-0000000000cd';
const blank = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const line = (tightening: object) =>
  torqueSchema.parse({ fastener: 'Caps', steps: 'as given', place: 'main-inner', tightening, source: 'book, p. 4' });
const document: JobDocument = {
  ...blank,
  fasteners: {
    ...blank.fasteners,
    main: { ...blank.fasteners.main, figures: [line({ school: 'stages', unit: 'Nm', final: 90, stages: 2 })] },
  },
};

function open(changed: Partial<JobDocument> = {}) {
  jobCame(id, { ...document, ...changed }, []);
  return renderHook(
    () => {
      const job = useJob(id)!;
      return { job, assembly: useAssembly(job), torque: useTorque(job) };
    },
    { wrapper: Around },
  ).result;
}

beforeEach(nothingWaits);

describe('putting an engine together', () => {
  const check = (seen: ReturnType<typeof open>, key: string) =>
    [...seen.current.assembly.station.before, ...seen.current.assembly.station.after].find(
      ({ place }) => place === `M2/${key}`,
    )!;

  it('begins in the middle, counts what is open, and goes on to the next station', () => {
    const seen = open();
    expect(seen.current.assembly.station.station).toBe('M2');
    const before = openAt(seen.current.assembly.station);
    act(() => seen.current.assembly.say([check(seen, 'dry')], { state: 'done' }));
    expect(openAt(seen.current.assembly.station)).toBe(before - 1);
    expect(seen.current.job.document.assembly.checks['M2/dry']).toMatchObject({ state: 'done', words: '' });
    act(() => seen.current.assembly.say([check(seen, 'dry')], null));
    expect(openAt(seen.current.assembly.station)).toBe(before);
    act(() => seen.current.assembly.show('M3'));
    expect(seen.current.assembly.station.station).toBe('M3');
  });

  it('keeps a finding open until it is decided on, its picture and words together', () => {
    const seen = open();
    const photo = '00000000-0000-4000-8000-0000000000ee';
    act(() => seen.current.assembly.say([check(seen, 'hole')], { state: 'found' }));
    act(() => seen.current.assembly.say([check(seen, 'hole')], { words: 'half covered' }));
    act(() => seen.current.assembly.say([check(seen, 'hole')], { photo }));
    expect(check(seen, 'hole')).toMatchObject({ isOpen: true, made: { state: 'found', words: 'half covered', photo } });
    act(() => seen.current.assembly.decide(check(seen, 'hole'), 'left as it is'));
    expect(check(seen, 'hole')).toMatchObject({ isOpen: false, made: { decision: { words: 'left as it is' } } });
    act(() => seen.current.assembly.decide(check(seen, 'hole'), ''));
    expect(check(seen, 'hole').isOpen).toBe(true);
  });

  it('says how the shaft turns, and asks again for what rested on swapped parts', () => {
    const seen = open();
    act(() => seen.current.assembly.say([check(seen, 'dry')], { state: 'found', words: 'a burr' }));
    act(() => seen.current.assembly.turn('M2', { how: 'stiff', angle: 90, breakaway: { value: 12, unit: 'Nm' } }));
    expect(seen.current.assembly.station.turn).toMatchObject({ how: 'stiff', angle: 90 });
    act(() => seen.current.assembly.swap({ part: 'cap', one: 'M2', other: 'M3', reason: 'numbers misread' }));
    const swapped = Object.values(seen.current.job.document.assembly.swaps);
    expect(swapped).toMatchObject([{ part: 'cap', one: 'M2', other: 'M3', reason: 'numbers misread' }]);
    // What was done in the same moment as the swap rests on the parts that are in now.
    const later = new Date(Date.now() + 5_000).toISOString();
    const assembly = seen.current.job.document.assembly;
    const [swap] = Object.entries(assembly.swaps);
    nothingWaits();
    const again = open({ assembly: { ...assembly, swaps: { [swap![0]]: { ...swap![1], at: later } } } });
    expect(again.current.assembly.station.isTurnOpen).toBe(true);
    expect(check(again, 'dry')).toMatchObject({ isOutdated: true, isOpen: true });
    // Said once more, it begins anew.
    act(() => again.current.assembly.say([check(again, 'dry')], { state: 'done' }));
    expect(again.current.job.document.assembly.checks['M2/dry']).toMatchObject({ state: 'done', words: '' });
    act(() => again.current.assembly.turn('M2', null));
    expect(again.current.job.document.assembly.turns).toEqual({});
  });

  it('is told what the engine has and what its faces are lubricated with', () => {
    const seen = open();
    expect(check(seen, 'lug')).toBeDefined();
    act(() => seen.current.assembly.setBuilt({ lugs: false }));
    expect(check(seen, 'lug')).toBeUndefined();
    act(() => seen.current.assembly.setFace({ school: 'assembly', name: 'tin 4' }));
    expect(check(seen, 'face').what).toBe('Running faces lubricated with assembly lubricant, tin 4');
  });
});

describe('tightening an engine', () => {
  it('goes from pass to pass, and takes a tick back', () => {
    const seen = open();
    expect(seen.current.torque.states.map(({ text }) => text)).toEqual(['45 N·m', '90 N·m']);
    act(() => seen.current.torque.tick(seen.current.torque.next!, true));
    expect(seen.current.torque.next?.text).toBe('90 N·m');
    act(() => seen.current.torque.show('main-inner/1'));
    expect(seen.current.torque.shown?.text).toBe('45 N·m');
    act(() => seen.current.torque.tick(seen.current.torque.shown!, false));
    expect(seen.current.torque.next?.text).toBe('45 N·m');
    expect(seen.current.job.document.torque.passes).toEqual({});
  });

  it('keeps stretches as they were typed, and other figures ask for their passes anew', () => {
    const seen = open();
    act(() => seen.current.torque.tick(seen.current.torque.next!, true));
    act(() =>
      seen.current.torque.setFigures('main', [
        line({ school: 'stretch', unit: 'Nm', snug: 20, low: 140_000, high: 160_000 }),
      ]),
    );
    expect(seen.current.torque.states.map(({ doubt }) => doubt)).toEqual(['other-figure', null]);
    const bolt = (name: string) => seen.current.torque.stretches[0]!.bolts.find((one) => one.name === name)!;
    act(() => seen.current.torque.putStretch(bolt('M1 inner left'), '0,171'));
    act(() => seen.current.torque.putStretch(bolt('M2 inner left'), 'much'));
    expect(seen.current.job.document.torque.stretch).toMatchObject({
      'main-inner/1/left/1': { text: '0,171', nm: 171_000 },
      'main-inner/2/left/1': { text: 'much', nm: null },
    });
    expect(seen.current.torque.stretches[0]!.findings).toMatchObject([{ name: 'M1 inner left', kind: 'over' }]);
    act(() => seen.current.torque.putStretch(bolt('M1 inner left'), ''));
    expect(Object.keys(seen.current.job.document.torque.stretch)).toEqual(['main-inner/2/left/1']);
    act(() => seen.current.torque.setFigures('main', []));
    expect(seen.current.torque.states).toEqual([]);
    expect(seen.current.torque.figures[0]).toMatchObject({ from: 'missing' });
  });
});
