import { describe, expect, it } from 'vitest';
import { jobAssembly } from '../assembly/assemblyFacts.js';
import { type JobDocument, jobDocumentSchema } from '../job/jobDocument.js';
import { jobFacts } from '../job/jobFacts.js';
import { newJob } from '../job/newJob.js';
import { usualLayout } from '../part/crankLayout.js';
import { blankStation, type OldStation } from './cameApartPart.js';
import { cameApartSlice } from './cameApartSlice.js';
import { foundApart } from './foundApart.js';
import { LOOKS, suggestedLooks, WEAR_PATTERNS, wearPattern } from './wearPatterns.js';

const stamp = { by: 'Teasel', at: '2026-01-12T09:30:00.000Z' };

function twin(stations: Record<string, Partial<OldStation>> = {}): JobDocument {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const job = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
  const found = Object.fromEntries(
    Object.entries(stations).map(([id, part]) => [id, { ...blankStation(stamp), ...part }]),
  );
  return jobDocumentSchema.parse({ ...job, cameApart: { ...job.cameApart, stations: found } });
}

const shell = (patterns: OldStation['upper']['patterns'], words = '') => ({ patterns, words, photo: null, wall: null });
const facts = (job: JobDocument) => jobFacts(job, []);

describe('a pattern of an old shell', () => {
  it('suggests something to look at, unless it wore as it should', () => {
    for (const pattern of WEAR_PATTERNS) {
      const { looks, isGood } = wearPattern(pattern);
      expect([pattern, looks.length > 0]).toEqual([pattern, isGood !== true]);
      for (const look of looks) expect(LOOKS[look]).toBeTruthy();
    }
  });

  it('names each thing once, the likeliest first', () => {
    expect(suggestedLooks(['edge', 'crossed'])).toEqual(['journal', 'line', 'housing', 'rod']);
    expect(suggestedLooks(['even'])).toEqual([]);
  });
});

describe('what was found apart', () => {
  it('comes up first among the checks of its station in the assembly, and at no other', () => {
    const job = twin({ M2: { upper: shell(['edge'], 'lug bent'), lower: shell(['even']) } });
    const assembly = jobAssembly(job, facts(job).stations);
    const of = (station: string) => assembly.find((one) => one.station === station)!.before;
    expect(of('M2')[0]).toMatchObject({
      place: 'M2/apart-upper',
      what: 'Cause found: old upper shell one edge worn; lug bent',
      why: `look at: ${LOOKS.journal}; ${LOOKS.line}; ${LOOKS.housing}`,
      isOpen: true,
    });
    expect(of('M2').filter(({ place }) => place.includes('apart'))).toHaveLength(1);
    expect(of('M1').some(({ place }) => place.includes('apart'))).toBe(false);
  });

  it('of a cap: an arrow to the rear, or the number of another station', () => {
    const cap = (part: Partial<OldStation>) => foundApart(twin({ M2: part }), 'M2').map(({ what }) => what);
    expect(cap({ arrow: 'rear' })).toEqual(['Cap came off with its arrow to the rear']);
    expect(cap({ arrow: 'rear', number: '3' })).toEqual(['Cap came off with its arrow to the rear and number 3 on it']);
    expect(cap({ arrow: 'front', number: '2' })).toEqual([]);
    expect(cap({ arrow: 'none', number: '' })).toEqual([]);
  });
});

describe('the stage', () => {
  it('asks for nothing until it was begun: an engine may come in parts', () => {
    expect([cameApartSlice.state(facts(twin())), cameApartSlice.todos(facts(twin()))]).toEqual(['open', []]);
    const begun = twin({ M1: { upper: shell(['even']), lower: shell(['scored']) } });
    expect(cameApartSlice.state(facts(begun))).toBe('started');
    expect(cameApartSlice.todos(facts(begun))).toEqual([
      { urgency: 'in-order', todo: 'Describe the old shells of M2, M3' },
    ]);
    const both = { upper: shell(['even']), lower: shell([], 'as new') };
    expect(cameApartSlice.state(facts(twin({ M1: both, M2: both, M3: both })))).toBe('done');
  });

  it('prints what was found, by station', () => {
    const job = twin({
      M1: { arrow: 'front', number: '1', loosen: { value: 70, unit: 'Nm' }, lower: shell(['wiped']) },
    });
    const table = cameApartSlice.sheet!(facts(job)).find((block) => block.kind === 'table');
    expect(table?.kind === 'table' && table.rows.map(({ cells }) => cells.map(({ text }) => text))).toEqual([
      [
        'M1',
        'arrow to the front, number 1, loose at 70 N·m',
        '',
        'wiped',
        '',
        [LOOKS.clearance, LOOKS.supply, LOOKS.journal].join('; '),
        'Teasel',
      ],
    ]);
  });
});
