/** npm run bench, budgets: what the uncertainty of a long engine's clearances, and a gauge study, cost beside working the engine out. */
import { gaugeStudy, studyOf } from '../../instrument/gaugeStudy.js';
import { budgetUncertainty } from '../../measure/budget.js';
import { nanometres } from '../../measure/nanometres.js';
import { seeded } from '../../measure/seeded.js';
import { usualLayout } from '../../part/crankLayout.js';
import type { Reading } from '../../part/reading.js';
import { predictedBudget } from '../../station/stationVerdict.js';
import { jobDocumentSchema } from '../jobDocument.js';
import { jobFacts } from '../jobFacts.js';
import { newJob } from '../newJob.js';

const MAINS = 13;
const ROUNDS = 60;
const um = (value: number) => nanometres(Math.round(value * 1000));

function timed(of: () => void): { readonly median: number; readonly worst: number } {
  // The first rounds compile it.
  for (let at = 0; at < 10; at += 1) of();
  const times = Array.from({ length: ROUNDS }, () => {
    const before = performance.now();
    of();
    return performance.now() - before;
  }).sort((one, other) => one - other);
  return { median: times[ROUNDS >> 1]!, worst: times.at(-1)! };
}

const usual = usualLayout(MAINS, 12, 1, 7);
if (!usual.ok) throw new Error(usual.message);
const blank = newJob('Samphire', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const shell = {
  family: 'main' as const,
  series: 'Osier',
  grade: 'thin',
  half: 'either' as const,
  wall: um(1_996),
  stock: null,
  line: null,
};
const job = jobDocumentSchema.parse({ ...blank, shells: { thin: shell } });
const readings = Array.from({ length: MAINS }, (_, at) => at + 1).flatMap((station) =>
  (
    [
      ['mainBore', 'front', 64_010],
      ['mainBore', 'rear', 64_011],
      ['mainJournal', 'front-0', 59_980],
      ['mainJournal', 'rear-90', 59_981],
    ] as const
  ).map(([feature, slot, size], at): Reading => {
    const id = `00000000-0000-4000-8000-${String(station * 10 + at).padStart(12, '0')}`;
    const [nm, at_] = [um(size), '2026-01-02T03:04:05.000Z'];
    return {
      id,
      feature,
      station,
      slot,
      text: 'x',
      unit: 'mm',
      setting: null,
      nm,
      replaces: null,
      by: 'Wren',
      at: at_,
    };
  }),
);
const half = { shell: 'thin', label: 'thin', wall: um(1_996) };
const facts = timed(() => void jobFacts({ ...job }, [...readings]));
const { stations } = jobFacts(job, readings);
const budgets = timed(() => {
  for (const station of stations) {
    const budget = predictedBudget(job, station, { upper: half, lower: half });
    if (budget) budgetUncertainty(budget);
  }
});
const random = seeded(1);
const study = Array.from({ length: 90 }, (_, at) => ({
  part: String(at % 10),
  person: String(Math.floor(at / 10) % 3),
  trial: String(Math.floor(at / 30)),
  value: random(),
}));
const studied = timed(() => {
  const read = studyOf(study);
  if (read.ok) gaugeStudy(read.study);
});
const ratio = (one: { readonly median: number }) => (one.median / facts.median).toFixed(2);
console.log(
  `budgets of all stations of an engine of ${MAINS} mains: ${budgets.median.toFixed(2)} ms, worst ${budgets.worst.toFixed(2)} (aim 5), ` +
    `${ratio(budgets)} × the time of working the engine out`,
);
console.log(
  `a gauge study of 10 parts, 3 people, 3 readings: ${studied.median.toFixed(2)} ms, worst ${studied.worst.toFixed(2)}, ${ratio(studied)} ×`,
);
