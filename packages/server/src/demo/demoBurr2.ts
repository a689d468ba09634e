import { BLANK_JOINT, newJob } from '@fettle/core';
import { layout, pieces } from './demoParts.js';
import { type DemoEngine, size, TRIED } from './demoWriting.js';

/** A white-metal engine of the works: shims at its joints, two of them read, the third to come. */
export function burr2(): DemoEngine {
  const inch = (text: string) => size(text, 'in');
  const base = newJob('Burr 2 · no. 0009', 'in', layout(3, 2, 1, 2), { block: 'iron', caps: 'iron', rods: 'steel' });
  const sheet = 'Burr 2 works drawing';
  const side = (go: string, noGo: string, shim: string) => ({ go: inch(go), noGo: inch(noGo), shim: inch(shim) });
  const wide = (text: string) => ({ text, unit: 'in' as const, nm: inch(text) });
  const strip = (front: string, rear: string | null) => ({
    diameter: inch('.008'),
    name: '',
    widths: { front: wide(front), rear: rear === null ? null : wide(rear) },
    by: 'Sorrel',
    at: TRIED,
  });
  return {
    id: 'b0992000-0009-4000-8000-000000000006',
    by: 'Sorrel',
    document: {
      ...base,
      limits: {
        ...base.limits,
        mainBore: { low: inch('2.8740'), high: inch('2.8750'), source: `${sheet} 14` },
        mainJournal: { low: inch('2.4980'), high: inch('2.4990'), source: `${sheet} 15` },
        mainClearance: { low: inch('.0020'), high: inch('.0040'), source: `${sheet} 15` },
        endPlay: { low: inch('.004'), high: inch('.010'), source: `${sheet} 16` },
        crush: { low: inch('.003'), high: inch('.006'), source: `${sheet} 14` },
      },
      crush: {
        ...base.crush,
        kind: 'split-line',
        joints: {
          M1: { ...BLANK_JOINT, left: side('.0015', '.0020', '.012'), right: side('.0015', '.0020', '.012') },
          M2: { ...BLANK_JOINT, left: side('.0040', '.0045', '.012'), right: side('.0040', '.0045', '.012') },
        },
      },
      // Nothing was measured yet: strips are all that is known of its clearances.
      strips: { M1: strip('.0168', '.0172'), M2: strip('.0160', null) },
      pieces: {
        ...pieces('shim', 'in', [
          ['12 thou', '.0120', 6],
          ['13 thou', '.0130', 4],
          ['13½ thou', '.0135', 2],
        ]),
        ...pieces('shim', 'in', [['Laminated', '.0160', 2]], { leaf: '.002' }),
      },
    },
    readings: [],
  };
}
