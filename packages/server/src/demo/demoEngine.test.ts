import {
  fit,
  formatLength,
  type GaugeMode,
  type JobDocument,
  jobFit,
  mainStations,
  nanometres,
  plannedHalves,
  type Reading,
  sizeOfDraft,
  stationVerdict,
  type Trial,
  trialLength,
} from '@fettle/core';
import { describe, expect, it } from 'vitest';
import { demoEngines } from './demoEngine.js';

const DAY = '2026-02-03T08:00:00.000Z';
const samphire = demoEngines().find(({ document }) => document.name.startsWith('Samphire 8'))!;

function readingsOf(): Reading[] {
  const { unit, measuring } = samphire.document;
  return samphire.readings.flatMap(({ feature, slot, texts }, row) =>
    texts.flatMap((text, at): Reading[] => {
      if (text === '') return [];
      const setting = measuring.setting[feature];
      const id = `00000000-0000-4000-8000-${String(row * 100 + at).padStart(12, '0')}`;
      const place = { feature, station: at + 1, slot, text, unit, setting };
      return [{ ...place, id, nm: sizeOfDraft(place), replaces: null, by: 'Wren', at: DAY }];
    }),
  );
}

describe('Samphire 8, measured whole', () => {
  const readings = readingsOf();
  const asked = jobFit(samphire.document, readings);
  if (!asked.ok) throw new Error(asked.reason);
  const stations = plannedHalves(samphire.document, asked, fit(asked.problem));
  const chosen: JobDocument = { ...samphire.document, choice: { at: DAY, by: 'Wren', stations } };
  const setting = nanometres(62_230_000);
  const inches = (length: number) => formatLength(nanometres(length), 'in', 6).replace('−', '-');

  /** Every main read with its shells in, so that each has 0.0001 in more than its parts let expect. */
  function read(mode: GaugeMode): JobDocument {
    const trials = mainStations(chosen, readings).map((station): [string, Trial] => {
      const { upper, lower, predicted } = stations[station.id]!;
      const clearance = predicted + 2_540;
      const bore = clearance + station.journal!.nominal;
      const text =
        mode === 'journal'
          ? inches(clearance)
          : mode === 'bore'
            ? inches(bore)
            : `${inches(bore - setting).replace(/^(?!-)/u, '+')} in`;
      const nm = trialLength(text, { unit: 'in', mode, setting, needle: 'bigger' });
      const half = ({ shell, label, wall }: typeof upper) => ({
        shell,
        label,
        wall,
        series: chosen.shells[shell]!.series,
      });
      return [
        station.id,
        {
          upper: half(upper),
          lower: half(lower),
          rod: null,
          readings: {
            one: {
              text,
              unit: 'in',
              mode,
              setting: mode === 'setting' ? setting : null,
              needle: 'bigger',
              nm,
              by: 'Wren',
              at: DAY,
            },
          },
          isBelieved: false,
          at: DAY,
          by: 'Wren',
        },
      ];
    });
    return { ...chosen, trials: Object.fromEntries(trials) };
  }

  it('comes to the same clearances however the gauge is zeroed, each as predicted and checked', () => {
    const ways = (['journal', 'setting', 'bore'] as const).map((mode) => {
      const job = read(mode);
      return mainStations(job, readings).map((station) => {
        const { clearance, isMeasured, state } = stationVerdict(job, station, stations[station.id]!);
        expect([station.id, isMeasured, station.tried!.isAsPredicted]).toEqual([station.id, true, true]);
        expect(['checked', 'close']).toContain(state);
        return clearance!.nominal;
      });
    });
    expect(ways[0]).toHaveLength(5);
    // A mean of four readings has a fraction that six decimals of an inch round away: half of 25.4 nm.
    for (const way of ways) {
      const off = way.map((clearance, at) => Math.abs(clearance - ways[0]![at]!));
      expect(Math.max(...off)).toBeLessThanOrEqual(13);
    }
    // By hand, M3: 2.64105 − 2.44905 − 0.0950 − 0.0945 = 0.0025, and 0.0001 more.
    expect(ways[0]![2]! / 25_400_000).toBeCloseTo(0.0026, 9);
  });

  it('is known better where the gauge was zeroed on the journal: the micrometer falls out', () => {
    const known = (mode: GaugeMode) => mainStations(read(mode), readings)[0]!.tried!.uMeasured;
    expect(known('journal')).toBeLessThan(known('setting'));
    // Brought to zero with the micrometer that read the journal, its setting falls out too; what it read of the journal does not.
    expect(known('bore')).toBeLessThan(known('setting'));
    expect(known('bore')).toBeGreaterThan(0);
  });
});
