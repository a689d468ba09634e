import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newJob } from '../job/newJob.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import { FEATURE_TABLE, FEATURES, partCount } from '../part/feature.js';
import { type Reading, sizeOfDraft } from '../part/reading.js';
import { READING_COLUMNS, readingTable, readReadingTable } from './readingTable.js';

const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const blank = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' }, true);
const job = {
  ...blank,
  measuring: { ...blank.measuring, setting: { ...blank.measuring.setting, mainBore: nanometres(64_000_000) } },
};

let made = 0;
function reading(part: Pick<Reading, 'feature' | 'station' | 'slot' | 'text'>): Reading {
  made += 1;
  const setting = /^[+-]/u.test(part.text) ? nanometres(64_000_000) : null;
  const id = `00000000-0000-4000-8000-${String(made).padStart(12, '0')}`;
  const draft = { ...part, setting, unit: 'mm' as const };
  return { ...draft, id, nm: sizeOfDraft(draft), replaces: null, by: 'Wren', at: '2026-01-02T03:04:05.000Z' };
}

const head = ['Part', 'Feature', 'Where', 'Reading'];
const rowsOf = (rows: string[][], readings: Reading[] = []) => {
  const read = readReadingTable([head, ...rows], job, readings);
  if (!read.ok) throw new Error(read.missing.join());
  return read.rows;
};

describe('readings as a table', () => {
  const readings = [
    reading({ feature: 'pin', station: 2, slot: 'rear-90', text: '47.981' }),
    reading({ feature: 'mainBore', station: 2, slot: 'rear', text: '+1.2' }),
    reading({ feature: 'mainBore', station: 2, slot: 'front', text: '64,011' }),
    reading({ feature: 'mainJournal', station: 1, slot: 'front-0', text: '' }),
  ];

  it('stand in the order of the work, as they were typed and with what they come to', () => {
    expect(readingTable(job, readings)).toEqual([
      [...READING_COLUMNS],
      ['M2', 'Main bore', 'Front plane', '64,011', '', '64.011 mm', '', '', 'Wren', '2026-01-02T03:04:05.000Z'],
      ['M2', 'Main bore', 'Rear plane', '+1.2', '64.000 mm', '64.012 mm', '', '', 'Wren', '2026-01-02T03:04:05.000Z'],
      ['P2', 'Crankpin', 'Rear, 90°', '47.981', '', '47.981 mm', '', '', 'Wren', '2026-01-02T03:04:05.000Z'],
    ]);
  });

  it('come back as they are: nothing changes', () => {
    const read = readReadingTable(readingTable(job, readings), job, readings);
    expect(read.ok && read.rows.map((row) => row.ok && [row.line !== null, row.isChange])).toEqual(
      Array(3).fill([true, false]),
    );
  });

  it('come back whatever they are, from any part, place and setting', () => {
    const part = fc.constantFrom(...FEATURES).chain((feature) =>
      fc.record({
        feature: fc.constant(feature),
        station: fc.integer({ min: 1, max: partCount(job.layout, feature) }),
        slot: fc.constantFrom(...FEATURE_TABLE[feature].slots),
        text: fc.oneof(
          fc.integer({ min: 40_000, max: 70_000 }).map((um) => (um / 1000).toFixed(3)),
          fc.integer({ min: -50, max: 50 }).map((off) => `${off < 0 ? '-' : '+'}${(Math.abs(off) / 10).toFixed(1)}`),
        ),
      }),
    );
    fc.assert(
      fc.property(
        fc.uniqueArray(part, {
          maxLength: 12,
          selector: ({ feature, station, slot }) => `${feature}${station}${slot}`,
        }),
        (parts) => {
          const all = parts.map(reading);
          const read = readReadingTable(readingTable(job, all), job, []);
          if (!read.ok) throw new Error(read.missing.join());
          expect(read.rows).toHaveLength(all.length);
          for (const row of read.rows) {
            if (!row.ok) throw new Error(JSON.stringify(row.faults));
            const one = all.find(
              ({ feature, station, slot }) =>
                feature === row.item.feature && station === row.item.station && slot === row.item.slot,
            )!;
            expect(sizeOfDraft({ ...row.item, unit: 'mm' })).toBe(one.nm);
          }
        },
      ),
      { numRuns: 100, seed: 8 },
    );
  });

  it('say of each row what it does, and of a bad one what is wrong in which column', () => {
    const [same, other, fresh] = rowsOf(
      [
        ['M2', 'main bore', 'front plane', '64,011'],
        ['m2', 'mainBore', 'rear', '64.013'],
        ['M3', 'Main journal', 'Front, 0°', '59.981'],
      ],
      readings,
    );
    expect([same, other, fresh].map((row) => row!.ok && [row!.line === null, row!.isChange])).toEqual([
      [false, false],
      [false, true],
      [true, true],
    ]);
    const faults = (cells: string[]) =>
      rowsOf([cells]).flatMap((row) =>
        row.ok ? [] : row.faults.map(({ column, message }) => `${column}: ${message}`),
      );
    expect(faults(['M9', 'Main bore', 'Front plane', '64.011'])).toEqual(['Part: “M9” is not one of M1 to M3']);
    expect(faults(['R1', 'Main bore', 'Front plane', '64.011'])).toEqual(['Part: “R1” is not one of M1 to M3']);
    expect(faults(['M1', 'Camshaft', 'Front plane', '64.011'])[0]).toMatch(
      /^Feature: “Camshaft” is not one of Main bore, /u,
    );
    expect(faults(['M1', 'Main bore', 'Front, 0°', '64.011'])).toEqual([
      'Where: “Front, 0°” is no place there; places are named as Front plane or Front, 30°',
    ]);
    expect(faults(['M1', 'Main bore', 'Front plane', '64.o11'])[0]).toMatch(/^Reading: “64\.o11” is not a size/u);
    expect(faults(['P1', 'Crankpin', 'Front, 0°', '+2'])[0]).toContain(
      'is a deviation, but this row has no setting size',
    );
    expect(faults(['M1', 'Main bore', 'Front plane', ''])).toEqual(['Reading: missing']);
    expect(
      rowsOf([
        ['', '', '', ''],
        ['M1', 'Main bore', 'Front plane', '64.01'],
      ]).map(({ row }) => row),
    ).toEqual([3]);
    const twice = rowsOf([
      ['M1', 'Main bore', 'Front plane', '64.01'],
      ['M1', 'Main bore', 'Front plane', '64.02'],
    ]);
    expect(twice[1]).toMatchObject({
      ok: false,
      faults: [{ column: 'Part', message: 'same kind as row 2; use one row per kind' }],
    });
    expect(readReadingTable([['Part', 'Where']], job, [])).toEqual({ ok: false, missing: ['Feature', 'Reading'] });
  });
});
