import { BLANK_ASSEMBLY, type EngineType, type JobDocument } from '@fettle/core';
import { type DemoEngine, TRIED } from './demoWriting.js';

/**
 * A Sedge 4 that is being put together: two caps are on and tight, one oil hole was found half covered, two passes are done.
 *
 * @param engine one with its halves chosen
 * @param sheet its data sheet, with the torque steps
 */
export function assembledEngine({ document, readings, by }: DemoEngine, sheet: EngineType): DemoEngine {
  const stamp = (minute: number, who = by) => ({ by: who, at: TRIED.replace(':10:', `:${minute}:`) });
  const done = (minute: number): JobDocument['assembly']['checks'][string] => ({
    state: 'done',
    words: '',
    photo: null,
    decision: null,
    ...stamp(minute),
  });
  const seen = (station: string, checks: readonly string[], minute: number) =>
    Object.fromEntries(checks.map((check) => [`${station}/${check}`, done(minute)]));
  const found = {
    ...done(24),
    state: 'found' as const,
    words: 'Oil hole of the upper shell a third covered',
    decision: { words: 'Hole dressed to the block, edges rounded', ...stamp(26, 'Teasel') },
  };
  const main = ['dry', 'lug', 'groove', 'hole', 'face', 'cap', 'home'];
  return {
    id: '5ed9e400-0226-4000-8000-000000000010',
    by,
    readings,
    document: {
      ...document,
      name: 'Sedge 4 · no. 0226',
      sheet,
      trialSchool: 'turns',
      fasteners: {
        ...document.fasteners,
        main: { ...document.fasteners.main, torque: '25 · 50 N·m, then 60°' },
      },
      trials: {},
      torque: {
        passes: {
          'main-inner/1': { target: '25 N·m', ...stamp(40) },
          'main-inner/2': { target: '50 N·m', ...stamp(44) },
        },
        stretch: {},
      },
      assembly: {
        ...BLANK_ASSEMBLY,
        built: { grooved: 'upper', lugs: true, dowels: false, caps: 'both', boltCovers: true },
        face: { school: 'assembly', name: '' },
        checks: {
          ...seen('M3', [...main, 'washers', 'line'], 20),
          ...seen('M2', main, 23),
          'M2/hole': found,
          ...seen('M4', ['dry', 'lug'], 30),
        },
      },
    },
  };
}
