import { describe, expect, it } from 'vitest';
import type { JobDocument } from '../job/jobDocument.js';
import { jobFacts } from '../job/jobFacts.js';
import { newJob } from '../job/newJob.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import { stripVerdict } from './stripVerdict.js';
import { trialSlice } from './trialSlice.js';

const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const um = (value: number) => nanometres(Math.round(value * 1000));
const stamp = { by: 'Wren', at: '2026-02-03T04:05:06.000Z' };

/** An engine of which nothing is known but a strip of 0.2 mm at M2, pressed to the widths that tell these clearances. */
function pressed(front: number, rear: number | null, hasLimits = true): JobDocument {
  const job = newJob('Burr 2', 'mm', usual.ok ? usual.layout : (null as never), {
    block: 'iron',
    caps: 'iron',
    rods: 'steel',
  });
  const width = (clearance: number) => ({
    text: '',
    unit: 'mm' as const,
    nm: um((Math.PI * 200 * 200) / 4 / clearance),
  });
  const widths = { front: width(front), rear: rear === null ? null : width(rear) };
  const mainClearance = { low: um(30), high: um(70), source: 'Burr book, p. 3' };
  return {
    ...job,
    limits: { ...job.limits, mainClearance: hasLimits ? mainClearance : null },
    strips: { M2: { diameter: um(200), name: '', widths, ...stamp } },
  };
}
const verdict = (job: JobDocument) => stripVerdict(job, jobFacts(job, []).stations.find(({ id }) => id === 'M2')!);

describe('a strip as the only method (it was never judged)', () => {
  it.each([
    [50, 50, 'inside'],
    [34, null, 'may-be-tight'],
    [25, null, 'may-be-tight'],
    [20, 22, 'tight'],
    [66, 60, 'may-be-loose'],
    [90, 80, 'loose'],
    // The tighter end is judged, not the mean.
    [21, 50, 'tight'],
  ] as const)('of %d and %s µm is %s between 30 and 70', (front, rear, state) => {
    expect(verdict(pressed(front, rear))?.state).toBe(state);
  });

  it('has no verdict without limits, and is marked on the sheet and among what is to do', () => {
    expect(verdict(pressed(50, 50, false))).toBeNull();
    const facts = jobFacts(pressed(20, 22), []);
    expect(trialSlice.state(facts)).toBe('attention');
    expect(trialSlice.todos(facts)).toContainEqual({
      urgency: 'in-order',
      todo: 'M2 is tight by strip only: measure its bore and journal',
    });
    expect(JSON.stringify(trialSlice.sheet!(facts))).toContain('Too tight, by strip only');
  });
});
