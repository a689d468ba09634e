import { type Feature, type JobDocument, nanometres, type Slot, trialLength } from '@fettle/core';
import { type DemoEngine, STARTED, size, TRIED } from './demoWriting.js';

/**
 * A Sedge 4 in the middle of its trials: two mains were put together and read, and what they showed is applied to the others.
 *
 * @param engine a Sedge 4 with its limits and halves
 */
export function triedEngine({ document, by }: DemoEngine): DemoEngine {
  const mm = (text: string) => size(text, 'mm');
  const plum = (half: 'upper' | 'lower') => ({ shell: `plum-${half}`, label: `Plum ${half}`, wall: mm('1.995') });
  const both = { upper: plum('upper'), lower: plum('lower') };
  const bores = ['64.012', '64.009', '64.011', '64.010', '64.013'];
  const journals = ['59.984', '59.983', '59.985', '59.982', '59.986'];
  const predicted = (at: number) => nanometres(mm(bores[at]!) - mm(journals[at]!) - 2 * mm('1.995'));
  const tried = (texts: readonly string[]): JobDocument['trials'][string] => ({
    upper: { ...both.upper, series: 'Marsh' },
    lower: { ...both.lower, series: 'Marsh' },
    rod: null,
    readings: Object.fromEntries(
      texts.map((text, at) => {
        const setting = mm('60.000');
        const nm = trialLength(text, { unit: 'mm', mode: 'setting', setting, needle: 'bigger' });
        return [
          `reading ${at + 1}`,
          { text, unit: 'mm', mode: 'setting', setting, needle: 'bigger', nm, by: 'Wren', at: TRIED },
        ];
      }),
    ),
    isBelieved: false,
    at: TRIED,
    by: 'Wren',
  });
  const slots = (feature: Feature, names: readonly Slot[], texts: readonly string[]) =>
    names.map((slot) => ({ feature, slot, by, texts }));
  return {
    id: '5ed9e400-0241-4000-8000-000000000007',
    by,
    document: {
      ...document,
      name: 'Sedge 4 · no. 0241',
      measuring: { ...document.measuring, setting: { ...document.measuring.setting, mainBore: null } },
      shells: Object.fromEntries(
        Object.entries(document.shells).map(([id, shell]) => [
          id,
          id.startsWith('plum') ? { ...shell, stock: 5 } : shell,
        ]),
      ),
      trialSchool: 'one',
      fasteners: {
        ...document.fasteners,
        main: {
          kind: 'maker',
          name: 'M10 cap bolts',
          lubricant: 'engine oil',
          torque: '30 · 55 N·m, then 60°',
          figures: [],
          since: null,
        },
      },
      choice: {
        at: STARTED,
        by,
        stations: Object.fromEntries(
          bores.map((_, at) => [`M${at + 1}`, { ...both, predicted: predicted(at), rod: null }]),
        ),
      },
      // By hand: shells of 60.027 and 60.024 on 59.984 and 59.982 leave 0.043 and 0.042, where the parts let expect 0.038.
      trials: { M1: tried(['+2.7', '+2.7']), M4: tried(['+2.4']) },
    },
    readings: [
      ...slots('mainBore', ['front', 'rear'], bores),
      ...slots('mainJournal', document.measuring.slots.mainJournal, journals),
    ],
  };
}
