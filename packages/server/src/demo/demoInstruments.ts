import {
  type CalibrationDraft,
  type InstrumentKind,
  nanometres,
  newInstrument,
  type RegisteredInstrument,
  type StudyEntry,
  type StudyPlan,
  seeded,
  type Unit,
} from '@fettle/core';
import { size } from './demoWriting.js';

/** An instrument that a new installation shows, with what was found on it so many days, or hours, ago. */
export interface DemoInstrument {
  readonly id: string;
  readonly instrument: RegisteredInstrument;
  readonly calibrations: readonly (Omit<CalibrationDraft, 'on'> & { readonly daysAgo: number })[];
  readonly checks: readonly { readonly hoursAgo: number; readonly shown: number; readonly isReset: boolean }[];
}

const idOf = (last: string) => `1257a100-0000-4000-8000-0000000000${last}`;
export const DEMO_GAUGE = idOf('c1');
export const DEMO_MICROMETER = idOf('c3');

function instrument(
  last: string,
  kind: InstrumentKind,
  unit: Unit,
  parts: Partial<RegisteredInstrument>,
  rest: Partial<Pick<DemoInstrument, 'calibrations' | 'checks'>> = {},
): DemoInstrument {
  return {
    id: idOf(last),
    instrument: { ...newInstrument(kind, unit), ...parts },
    calibrations: rest.calibrations ?? [],
    checks: rest.checks ?? [],
  };
}

const mm = (text: string) => size(text, 'mm');
const range = (low: string, high: string, unit: Unit = 'mm') => ({ low: size(low, unit), high: size(high, unit) });

function calibration(
  daysAgo: number,
  certificate: string,
  points: readonly (readonly [at: string, error: string, expanded: string])[],
): DemoInstrument['calibrations'][number] {
  return {
    daysAgo,
    due: null,
    laboratory: 'Saltmarsh metrology room',
    certificate,
    points: points.map(([at, error, expanded]) => ({
      at: mm(at),
      error: mm(error),
      expanded: mm(expanded),
      factor: 2,
    })),
  };
}

/** A study of three people that a new installation shows, with every reading. */
export function demoStudy(): {
  readonly plan: StudyPlan;
  readonly entries: readonly Pick<StudyEntry, 'part' | 'person' | 'trial' | 'nm'>[];
} {
  const plan: StudyPlan = {
    name: 'Main bores of Reed 6',
    unit: 'mm',
    parts: Array.from({ length: 10 }, (_, at) => String(at + 1)),
    people: ['Sorrel', 'Teasel', 'Wren'],
    trials: 3,
    tolerance: mm('0.019'),
  };
  const random = seeded(29);
  const normal = (sd: number) => sd * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const bores = plan.parts.map(() => 68_009_000 + normal(4_000));
  const bias = plan.people.map(() => normal(900));
  const entries = plan.people.flatMap((person, who) =>
    plan.parts.flatMap((part, at) =>
      Array.from({ length: plan.trials }, (_, trial) => {
        // A thousandth of a millimetre is what the dial tells apart; half of it is estimated.
        const nm = nanometres(Math.round((bores[at]! + bias[who]! + normal(700)) / 500) * 500);
        return { part, person, trial: trial + 1, nm };
      }),
    ),
  );
  return { plan, entries };
}

/** Eight instruments of the invented Saltmarsh works: one overdue, one out for calibration after it had moved. */
export function demoInstruments(): DemoInstrument[] {
  const cupboard = { place: 'measuring room, cupboard 2' };
  return [
    instrument(
      'c1',
      'boreGauge',
      'mm',
      { number: 'BG 3', range: range('50', '150'), needle: 'smaller', holder: 'Sorrel', place: 'bench 1' },
      {
        calibrations: [
          calibration(200, 'SM 214', [
            ['-0.2', '0.001', '0.0012'],
            ['0', '0', '0.0010'],
            ['0.2', '-0.001', '0.0012'],
          ]),
        ],
        checks: [
          { hoursAgo: 26, shown: 1_000, isReset: true },
          { hoursAgo: 3, shown: 0, isReset: false },
          { hoursAgo: 0, shown: 1_000, isReset: false },
        ],
      },
    ),
    instrument(
      'c2',
      'boreGauge',
      'in',
      { number: 'BG 7', range: range('2', '6', 'in'), needle: 'smaller', state: 'out', ...cupboard },
      {
        checks: [
          { hoursAgo: 54, shown: 0, isReset: false },
          { hoursAgo: 50, shown: 7_620, isReset: false },
        ],
      },
    ),
    instrument(
      'c3',
      'outsideMicrometer',
      'mm',
      { number: 'M 75', range: range('50', '75'), holder: 'Teasel', place: 'bench 1' },
      {
        calibrations: [
          calibration(470, 'SM 131', [
            ['50', '0', '0.0015'],
            ['62.5', '0.001', '0.0015'],
            ['75', '0.001', '0.0020'],
          ]),
          calibration(105, 'SM 207', [
            ['50', '0', '0.0015'],
            ['62.5', '-0.001', '0.0015'],
            ['75', '-0.002', '0.0020'],
          ]),
        ],
        checks: [{ hoursAgo: 30, shown: 0, isReset: false }],
      },
    ),
    instrument(
      'c4',
      'outsideMicrometer',
      'mm',
      { number: 'M 50', range: range('25', '50'), place: 'bench 2' },
      { calibrations: [calibration(350, 'SM 190', [['25', '0', '0.0015']])] },
    ),
    instrument(
      'c5',
      'ballMicrometer',
      'mm',
      { number: 'BM 1', range: range('0', '25'), ball: mm('5'), ...cupboard },
      { calibrations: [calibration(500, 'SM 118', [['0', '0', '0.0012']])] },
    ),
    instrument('c6', 'dialIndicator', 'mm', {
      number: 'DI 2',
      range: range('0', '10'),
      needle: 'bigger',
      place: 'bench 1',
    }),
    instrument(
      'c7',
      'settingRing',
      'mm',
      { number: 'SR 68', size: mm('68.000'), calibrateAfterMonths: 24, resolution: nanometres(0), ...cupboard },
      { calibrations: [calibration(300, 'SM 175', [['68', '-0.0004', '0.0008']])] },
    ),
    instrument('c8', 'feelers', 'mm', {
      number: 'F 1',
      range: range('0.05', '1.00'),
      calibrateAfterMonths: null,
      place: 'bench 2',
    }),
  ];
}
