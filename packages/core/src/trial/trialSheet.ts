import { chanceText } from '../clearance/chanceText.js';
import { INSTRUMENT_ROLES, readingUncertainty } from '../measure/instrument.js';
import { columnText, lengthText, roughText, spreadFigure } from '../measure/lengthText.js';
import type { Nanometres } from '../measure/nanometres.js';
import { familiesOf } from '../part/familiesOf.js';
import { FAMILY_TABLE } from '../part/family.js';
import { instrumentByKey, instrumentWords, knownInstrument } from '../reading/readWith.js';
import { figures, type SheetBlock, words } from '../stage/sheetBlock.js';
import { STATE_WORDS } from '../stage/stationState.js';
import { offsetSource } from '../station/expectedOffset.js';
import type { JobStation } from '../station/jobStations.js';
import { stationVerdict } from '../station/stationVerdict.js';
import { STRIP_TELLS, stripRead } from '../strip/stripClearance.js';
import { fastenersWords } from '../torque/fastenersWords.js';
import { stripVerdict } from './stripVerdict.js';
import { trialCorrections } from './trialCorrections.js';
import type { TrialFacts, TrialJob } from './trialJob.js';
import { CHANGED_WORDS, MODE_WORDS, SCHOOL_WORDS, STATE_TEXT, trialState } from './trialWords.js';

/** What strips said, against what was measured or worked out; a station of which nothing else is known is marked. */
function stripBlocks(job: TrialJob, stations: readonly JobStation[]): SheetBlock[] {
  const { unit } = job;
  const rows = stations.flatMap((station) => {
    const strip = job.strips[station.id];
    const read = strip && stripRead(strip);
    if (!read) return [];
    const { clearance } = stationVerdict(job, station, job.choice?.stations[station.id] ?? null);
    const only = stripVerdict(job, station);
    const cells = [
      station.id,
      roughText(read.clearance, unit),
      read.taper === null ? '' : roughText(read.taper, unit),
      clearance ? roughText(clearance.nominal, unit) : '',
      only ? `${STATE_WORDS[only.state]}, by strip only` : clearance ? '' : 'by strip only, not judged',
      strip.by,
    ];
    return [{ key: station.id, cells: cells.map((text) => ({ text })) }];
  });
  if (rows.length === 0) return [];
  const unsaid = stations.flatMap(({ id, family }) =>
    FAMILY_TABLE[family].housingsMove && rows.some(({ key }) => key === id) && job.strips[id]?.ringsOff !== true
      ? [id]
      : [],
  );
  return [
    {
      kind: 'table',
      key: 'strips',
      part: 'result',
      title: 'Gauging strips',
      head: [
        words('Station'),
        figures('By strip'),
        figures('Taper'),
        figures('By size'),
        words('Verdict'),
        words('Measured by'),
      ],
      rows,
    },
    { kind: 'note', text: `A strip shows a clearance to ± ${lengthText(STRIP_TELLS, unit)} at best.` },
    ...(unsaid.length === 0
      ? []
      : [{ kind: 'note' as const, text: `Not recorded that the piston rings were off: ${unsaid.join(', ')}.` }]),
  ];
}

/** The instruments that have a name or a number, each with what one reading of it is known to, and when it was calibrated. */
function instrumentFacts(job: TrialJob): SheetBlock[] {
  const { instruments, registered, unit } = job;
  const keys = [...INSTRUMENT_ROLES.filter((role) => instruments[role].name !== ''), ...Object.keys(registered)];
  const named = keys.map((key) => {
    const one = instrumentByKey(job, key);
    const words = knownInstrument(job, key) ? instrumentWords(job, key) : `${instrumentWords(job, key)} ${one.name}`;
    const calibrated = one.calibratedOn === null ? '' : `, calibrated ${one.calibratedOn}`;
    return `${words}, ± ${spreadFigure(readingUncertainty(one, 1), unit)} ${unit} a reading${calibrated}`;
  });
  return named.length === 0 ? [] : [{ kind: 'fact', label: 'Instruments', text: named.join('; ') }];
}

export function sheetOf({ job, stations }: TrialFacts): SheetBlock[] {
  const { unit } = job;
  const text = (length: Nanometres | number | null) => (length === null ? '' : lengthText(length, unit));
  const spread = (u: number) => `${spreadFigure(u, unit)} ${unit}`;
  const tried = stations.flatMap(({ id, tried: one, earlier }) =>
    [...earlier, ...(one ? [one] : [])].flatMap((each, at) =>
      each.measured === null ? [] : [{ id, at, tried: each }],
    ),
  );
  const figure = columnText(
    tried.flatMap(({ tried: { measured, predicted, difference } }) => [measured?.nominal, predicted, difference]),
    unit,
  );
  const cell = (value: number | null) => (value === null ? '' : `${figure(value)} ${unit}`);
  const held = familiesOf(job).flatMap((family): SheetBlock[] => {
    const said = fastenersWords(job.fasteners[family]);
    return said === '' ? [] : [{ kind: 'fact', label: `Fasteners of the ${family}s`, text: said }];
  });
  const applied = stations.flatMap(({ id, offsets }) =>
    offsets.flatMap((one) =>
      one.isOwn ? [] : [{ id, text: `${text(one.offset)} ± ${spread(one.u)}, ${one.series}, ${offsetSource(one)}` }],
    ),
  );
  return [
    { kind: 'fact', label: 'Trial assembly', text: SCHOOL_WORDS[job.trialSchool].name },
    ...instrumentFacts(job),
    ...held,
    ...(applied.length > 0
      ? [
          {
            kind: 'fact' as const,
            label: 'Assembly offset applied',
            text: `${[...new Set(applied.map((one) => one.text))].join('; ')} (at ${[...new Set(applied.map(({ id }) => id))].join(', ')})`,
          },
        ]
      : []),
    ...(tried.length === 0
      ? []
      : [
          {
            kind: 'table' as const,
            key: 'trials',
            part: 'result' as const,
            title: 'Measured with the shells in',
            head: [
              words('Station'),
              words('Shells'),
              figures('Measured'),
              figures('Predicted'),
              figures('Difference'),
              words('Gauge'),
              words('Verdict'),
              words('Measured by'),
            ],
            rows: tried.map(({ id, at, tried: one }) => {
              const { trial, measured, predicted, difference, u, changed } = one;
              const state = trialState(one);
              const cells = [
                id,
                `${trial.upper.label} over ${trial.lower.label}`,
                cell(measured!.nominal),
                cell(predicted),
                difference === null ? '' : `${cell(difference)} ± ${spread(u)}`,
                measured!.mode === null ? 'several ways' : MODE_WORDS[measured!.mode],
                `${state === 'swapped' ? CHANGED_WORDS[changed!] : STATE_TEXT[state]}${one.isConfirmed && !one.isAsPredicted ? ', confirmed' : ''}`,
                trial.by,
              ];
              return { key: `${id} ${at}`, cells: cells.map((cell) => ({ text: cell })) };
            }),
          },
        ]),
    ...tried.flatMap(({ id, tried: one }): SheetBlock[] =>
      trialCorrections(job, one.steps).map((text) => ({ kind: 'note', text: `${id}, ${text}.` })),
    ),
    ...stripBlocks(job, stations),
    ...(job.rules.leastChance === null
      ? []
      : [
          {
            kind: 'note' as const,
            text: `Selected so that each station has a chance of at least ${chanceText(job.rules.leastChance)} of being in limits.`,
          },
        ]),
  ];
}
