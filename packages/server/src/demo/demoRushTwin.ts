import { newJob, pieceOfLine, shellOfLine } from '@fettle/core';
import { dial, layout } from './demoParts.js';
import { demoDrawer, demoPieces } from './demoStock.js';
import { type DemoEngine, size } from './demoWriting.js';

/** Small engines that draw on the workshop's drawer. */
export function rushTwin(serial: number, bores: readonly string[], journals: readonly string[]): DemoEngine {
  const mm = (text: string) => size(text, 'mm');
  const base = newJob(`Rush Twin · no. 0${serial}`, 'mm', layout(3, 2, 1, 2), {
    block: 'iron',
    caps: 'iron',
    rods: 'steel',
  });
  const sheet = 'Rush Twin workshop book';
  return {
    id: `4057e200-0${serial}-4000-8000-000000000004`,
    by: 'Teasel',
    document: {
      ...base,
      limits: {
        ...base.limits,
        mainBore: { low: mm('64.000'), high: mm('64.019'), source: `${sheet}, p. 7` },
        mainJournal: { low: mm('59.976'), high: mm('59.994'), source: `${sheet}, p. 8` },
        mainClearance: { low: mm('0.028'), high: mm('0.044'), source: `${sheet}, p. 9` },
        endPlay: { low: mm('0.070'), high: mm('0.150'), source: `${sheet}, p. 11` },
      },
      endPlay: {
        ...base.endPlay,
        kind: 'rings',
        settle: mm('0.010'),
        aim: mm('0.100'),
        readings: serial === 301 ? dial('mm', 'Teasel', 'without', ['0.862', '0.864']) : {},
      },
      pieces: Object.fromEntries(demoPieces().map(({ id, piece }) => [`ring ${piece.name}`, pieceOfLine(id, piece)])),
      measuring: {
        ...base.measuring,
        slots: { ...base.measuring.slots, mainBore: ['front'], mainJournal: ['front-0'] },
      },
      shells: Object.fromEntries(
        demoDrawer().map(({ id, half }) => [`${half.grade}-${half.half}`.toLowerCase(), shellOfLine(id, half)]),
      ),
    },
    readings: [
      { feature: 'mainBore', slot: 'front', by: 'Teasel', texts: bores },
      { feature: 'mainJournal', slot: 'front-0', by: 'Wren', texts: journals },
    ],
  };
}
