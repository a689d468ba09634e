import { eachFeature, FEATURE_TABLE, type JobDocument, newJob, typedLength } from '@fettle/core';
import { DEMO_GAUGE, DEMO_MICROMETER } from './demoInstruments.js';
import { layout } from './demoParts.js';
import { type DemoEngine, size } from './demoWriting.js';

const AT = '2026-01-12T09:30:00.000Z';

/** Read with instruments of the workshop, corrected by their calibrations; its main bores lie in a line that is bent. */
export function reed6Line(): DemoEngine {
  const mm = (text: string) => size(text, 'mm');
  const base = newJob('Reed 6 · no. 0112', 'mm', layout(7, 6, 1, 4), { block: 'iron', caps: 'iron', rods: 'steel' });
  const shells: JobDocument['shells'] = {};
  for (const half of ['upper', 'lower'] as const) {
    for (const [grade, wall] of [
      ['Fern', '1.990'],
      ['Moss', '1.993'],
      ['Kelp', '1.996'],
    ] as const) {
      const shell = { family: 'main', series: 'Brackish', grade, half, wall: mm(wall), stock: 7, line: null } as const;
      shells[`main-${grade.toLowerCase()}-${half}`] = shell;
    }
  }
  const typed = (text: string) => typedLength(text, 'mm', mm(text), { by: 'Sorrel', at: AT });
  const byMain = (texts: readonly string[]) =>
    Object.fromEntries(texts.flatMap((text, at) => (text === '' ? [] : [[`M${at + 1}`, typed(text)]])));
  const sheet = 'Reed 6 works manual';
  return {
    id: '4eed6000-0112-4000-8000-000000000012',
    by: 'Sorrel',
    document: {
      ...base,
      limits: {
        ...base.limits,
        mainBore: { low: mm('68.000'), high: mm('68.019'), source: `${sheet}, p. 12` },
        mainJournal: { low: mm('63.970'), high: mm('63.990'), source: `${sheet}, p. 14` },
        mainLine: { low: mm('0'), high: mm('0.030'), source: `${sheet}, p. 16` },
        mainNeighbours: { low: mm('0'), high: mm('0.010'), source: `${sheet}, p. 16` },
        mainClearance: { low: mm('0.022'), high: mm('0.052'), source: `${sheet}, p. 15` },
      },
      measuring: {
        ...base.measuring,
        slots: eachFeature((feature) => [FEATURE_TABLE[feature].usualSlots[0]]),
        setting: { ...base.measuring.setting, mainBore: mm('68.000') },
      },
      shells,
      mainLine: {
        height: byMain(['0', '0.004', '0.011', '0.024', '0.012', '0.003', '0']),
        side: byMain(['0', '-0.002', '-0.003', '0.001', '0.002', '0', '0']),
        place: byMain(['', '110', '220', '332', '444', '554', '664']),
      },
      runout: {
        ...base.runout,
        mains: { M4: { '0': typed('0'), '90': typed('0.006'), '180': typed('0.012'), '270': typed('0.006') } },
      },
    },
    instruments: { mainBore: DEMO_GAUGE, mainJournal: DEMO_MICROMETER },
    readings: [
      {
        feature: 'mainBore',
        slot: 'front',
        by: 'Sorrel',
        texts: ['68.009', '68.011', '68.008', '68.010', '68.009', '68.011', '68.008'],
      },
      {
        feature: 'mainJournal',
        slot: 'front-0',
        by: 'Teasel',
        texts: ['63.979', '63.977', '63.981', '63.978', '63.980', '63.976', '63.979'],
      },
    ],
  };
}
