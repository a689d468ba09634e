import { describe, expect, it } from 'vitest';
import { fit } from '../fit/fit.js';
import { type JobDocument, jobDocumentSchema } from '../job/jobDocument.js';
import { newJob } from '../job/newJob.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import type { Reading } from '../part/reading.js';
import { jobFit } from '../selection/jobFit.js';
import { plannedHalves } from '../selection/plannedHalves.js';
import { endPlayOfHalves, thrustFlanges } from './thrustFlanges.js';

const um = (value: number) => nanometres(value * 1000);
const stamp = { by: 'Wren', at: '2026-01-02T03:04:05.000Z' };

const half = (grade: string, side: 'upper' | 'lower' | 'either', width?: number) => ({
  family: 'main' as const,
  series: 'A',
  grade,
  half: side,
  wall: um(1_995),
  ...(width === undefined ? {} : { width: um(width), positions: ['thrust' as const] }),
  stock: 6,
  line: null,
});

/** Three mains, the middle one with flanged halves; an end play of 0.050 with 31.80 over the flanges. */
function flangedTwin(parts: Partial<JobDocument['endPlay']> = {}): JobDocument {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const job = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
  const limit = (low: number, high: number) => ({ low: um(low), high: um(high), source: 'book, p. 1' });
  const reading = {
    moment: 'found' as const,
    angle: 0 as const,
    text: '0.05',
    unit: 'mm' as const,
    nm: um(50),
    ...stamp,
  };
  return jobDocumentSchema.parse({
    ...job,
    limits: {
      ...job.limits,
      mainBore: limit(64_000, 64_019),
      mainJournal: limit(59_976, 59_994),
      mainClearance: limit(20, 60),
      endPlay: limit(70, 270),
    },
    shells: {
      plain: half('Plain', 'either'),
      narrow: half('Narrow', 'upper', 31_680),
      wide: half('Wide', 'upper', 31_780),
    },
    endPlay: {
      ...job.endPlay,
      kind: 'flanged',
      fitted: { front: null, rear: null, width: um(31_800) },
      readings: { one: reading },
      ...parts,
    },
  });
}

const readings: Reading[] = [1, 2, 3].flatMap((station) =>
  (['mainBore', 'mainJournal'] as const).flatMap((feature) =>
    (feature === 'mainBore' ? (['front', 'rear'] as const) : (['front-0', 'front-90'] as const)).map(
      (slot, at): Reading => ({
        id: `00000000-0000-4000-8000-${station}${feature === 'mainBore' ? 1 : 2}${at}000000000`,
        feature,
        station,
        slot,
        text: '',
        unit: 'mm',
        setting: null,
        nm: um(feature === 'mainBore' ? 64_012 : 59_982),
        replaces: null,
        ...stamp,
      }),
    ),
  ),
);

function planned(job: JobDocument) {
  const asked = jobFit(job, readings);
  if (!asked.ok) throw new Error(asked.reason);
  const plan = fit(asked.problem);
  return { plan, halves: plannedHalves(job, asked, plan) };
}

describe('a thrust main whose halves carry the flanges', () => {
  it('gets halves for its clearance and its end play at once', () => {
    const { plan, halves } = planned(flangedTwin());
    expect(plan.status).toBe('optimal');
    // By hand: 0.05 + 31.80 − 31.68 = 0.17, the middle; with the wide one it would be 0.07.
    expect(plan.stations.find(({ id }) => id === 'M2')).toMatchObject({ clearance: um(40), endPlay: um(170) });
    expect(halves.M2!.upper.shell).toBe('narrow');
    expect(endPlayOfHalves(flangedTwin(), halves.M2!)).toBe(um(170));
    expect(endPlayOfHalves(flangedTwin(), halves.M1!)).toBeNull();
    // Elsewhere plain halves only.
    expect([halves.M1, halves.M3].map((one) => one!.upper.shell)).toEqual(['plain', 'plain']);
  });

  it('is chosen by its clearance alone while the end play, its limits or the fitted width are not known', () => {
    const unknown = [
      flangedTwin({ readings: {} }),
      flangedTwin({ kind: 'washers' }),
      flangedTwin({ fitted: { front: null, rear: null, width: null } }),
      { ...flangedTwin(), limits: { ...flangedTwin().limits, endPlay: null } },
    ];
    for (const job of unknown) {
      expect(thrustFlanges(job)).toBeNull();
      expect(planned(job).plan.stations.every(({ endPlay }) => endPlay === undefined)).toBe(true);
    }
    expect(thrustFlanges(flangedTwin())).toMatchObject({ station: 'M2', reading: um(50), weight: 0 });
  });
});
