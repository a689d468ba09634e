import { describe, expect, it } from 'vitest';
import type { JobDocument } from '../job/jobDocument.js';
import { jobDocumentSchema } from '../job/jobDocument.js';
import { jobFacts } from '../job/jobFacts.js';
import { newJob } from '../job/newJob.js';
import { SLICES } from '../job/slices.js';
import { usualLayout } from '../part/crankLayout.js';
import { capsAsk, capsOn } from './capsOn.js';

const usual = usualLayout(5, 4, 1, 3);
if (!usual.ok) throw new Error(usual.message);
const bare = newJob('Sedge 4', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' }, true);
const SAID = { by: 'Wren', at: '2026-03-02T10:00:00.000Z' };
const said: JobDocument = { ...bare, measuring: { ...bare.measuring, capsOn: { mainBore: SAID } } };

describe('caps on, in place, lubricated and torqued while bores are read', () => {
  it('is said once a feature, and stays said', () => {
    expect(capsOn(bare, 'mainBore')).toBeNull();
    expect(capsOn(said, 'mainBore')).toEqual(SAID);
    expect(capsOn(said, 'bigEnd')).toBeNull();
    expect(jobDocumentSchema.parse(JSON.parse(JSON.stringify(said)))).toEqual(said);
  });

  it('ends with other fasteners, or a main cap that was swapped since; not with what came before or another family', () => {
    const fasteners = (since: string, family: 'main' | 'rod' = 'main') =>
      capsOn({ ...said, fasteners: { ...said.fasteners, [family]: { ...said.fasteners[family], since } } }, 'mainBore');
    expect(fasteners('2026-03-02T11:00:00.000Z')).toBeNull();
    expect(fasteners('2026-03-02T09:00:00.000Z')).toEqual(SAID);
    expect(fasteners('2026-03-02T11:00:00.000Z', 'rod')).toEqual(SAID);
    const swap = (one: string, other: string, at: string) =>
      capsOn(
        {
          ...said,
          assembly: {
            ...said.assembly,
            swaps: { a: { part: 'cap', one, other, reason: 'mixed up', by: 'Wren', at } },
          },
        },
        'mainBore',
      );
    expect(swap('M1', 'M2', '2026-03-02T11:00:00.000Z')).toBeNull();
    expect(swap('M1', 'M2', '2026-03-02T09:00:00.000Z')).toEqual(SAID);
    expect(swap('R1', 'R2', '2026-03-02T11:00:00.000Z')).toEqual(SAID);
  });

  it('names the lubricant and the figure that are noted', () => {
    expect(capsAsk(bare, 'mainBore')).toEqual({ lubricant: '', torque: '' });
    const noted = { ...said.fasteners.main, lubricant: 'engine oil', torque: '30 · 60 N·m' };
    expect(capsAsk({ ...said, fasteners: { ...said.fasteners, main: noted } }, 'mainBore')).toEqual({
      lubricant: 'engine oil',
      torque: '30 · 60 N·m',
    });
  });

  it('stands on the sheet, and its lack too', () => {
    const reading = {
      id: '00000000-0000-4000-8000-000000000001',
      feature: 'mainBore',
      station: 1,
      slot: 'front',
      text: '64.012',
      unit: 'mm',
      setting: null,
      nm: 64_012_000,
      replaces: null,
      by: 'Wren',
      at: '2026-03-02T10:05:00.000Z',
    } as never;
    const blocks = (job: JobDocument) =>
      SLICES.find(({ key }) => key === 'bores')!.sheet!(jobFacts(job, [reading])).filter(({ kind }) => kind === 'fact');
    expect(blocks(said)[0]).toMatchObject({ text: 'in place, lubricated, torqued: Wren' });
    expect(blocks(bare)[0]).toMatchObject({ text: 'not confirmed' });
  });
});
