import { chanceText } from '../clearance/chanceText.js';
import { calibrationDue, INSTRUMENT_ROLES, readingUncertainty } from '../measure/instrument.js';
import { columnText, lengthText, roughText, spreadFigure } from '../measure/lengthText.js';
import type { Nanometres } from '../measure/nanometres.js';
import { familiesOf } from '../part/familiesOf.js';
import { FAMILY_TABLE, type Family } from '../part/family.js';
import { figures, type SheetBlock, words } from '../stage/sheetBlock.js';
import type { Slice, StageState, Todo } from '../stage/slice.js';
import { STATE_WORDS } from '../stage/stationState.js';
import type { JobStation } from '../station/jobStations.js';
import { isTelling, type StationTrial } from '../station/stationTrial.js';
import { stationVerdict } from '../station/stationVerdict.js';
import type { GaugeMode, TrialSchool } from '../station/trialSchema.js';
import { STRIP_TELLS, stripRead } from '../strip/stripClearance.js';
import type { Fasteners } from '../torque/fasteners.js';
import { firstToTry } from './firstToTry.js';
import { stripVerdict } from './stripVerdict.js';
import type { TrialFacts, TrialJob } from './trialJob.js';

/** What each school is called, and why one would follow it. */
export const SCHOOL_WORDS: Readonly<Record<TrialSchool, { readonly name: string; readonly why: string }>> = {
  every: { name: 'measure every station', why: 'every station is tried; takes an hour more' },
  one: { name: 'try one, apply to all', why: 'one offset applies to all assembled alike' },
  codes: { name: 'marks only', why: 'parts sorted by the maker, with shells to match; nothing is measured' },
  turns: { name: 'assemble, check that it turns', why: 'shows nothing binds, not the clearance' },
};

export const MODE_WORDS: Readonly<Record<GaugeMode, string>> = {
  journal: 'zeroed on the journal',
  setting: 'zeroed on a setting size',
  bore: 'zeroed in the bore',
};

/** How a trial stands: something is amiss with it, it has been swapped since, it is read and holds, or it is not read yet. */
export type TrialState = 'void' | 'off' | 'swapped' | 'read' | 'open';

export function trialState(tried: StationTrial | null): TrialState {
  if (!tried || tried.difference === null) return 'open';
  if (tried.isVoid !== null) return 'void';
  if (!isTelling(tried)) return 'off';
  return tried.changed === null ? 'read' : 'swapped';
}

/** What has become of the parts of a trial since, in words. */
export const CHANGED_WORDS: Readonly<Record<NonNullable<StationTrial['changed']>, string>> = {
  halves: 'shells changed since',
  swapped: 'shells swapped since',
  rod: 'another rod since',
  cap: 'cap swapped since',
  machined: 'machined since',
};

/** True if a station was tried and what it says of the assembly stays, whatever parts it has now. */
function hasLesson({ tried, earlier }: JobStation): boolean {
  return [tried, ...earlier].some(isTelling);
}

function chosenStations({ job, stations }: TrialFacts): readonly JobStation[] {
  return stations.filter(({ id }) => job.choice?.stations[id] !== undefined);
}

/** The stations that are to be read with their shells in, by the method that the fitter follows: of one tried and applied, one a family. */
function wantedOf(facts: TrialFacts): readonly JobStation[] {
  const { job } = facts;
  if (job.trialSchool === 'codes' || job.trialSchool === 'turns') return [];
  const chosen = chosenStations(facts);
  if (job.trialSchool === 'every') return chosen;
  return familiesOf(job).flatMap((family) => {
    const own = chosen.filter((station) => station.family === family);
    return own.some(hasLesson) ? [] : own.slice(0, 1);
  });
}

function isDone(facts: TrialFacts): boolean {
  if (facts.job.trialSchool === 'one') return chosenStations(facts).length > 0 && wantedOf(facts).length === 0;
  const wanted = wantedOf(facts);
  return wanted.length > 0 && wanted.every(({ tried }) => trialState(tried) === 'read');
}

/** The stations that a strip, as all that is known there, says are tight or loose. */
function beyondByStrip({ job, stations }: TrialFacts): { readonly id: string; readonly is: 'tight' | 'loose' }[] {
  return stations.flatMap((station) => {
    const state = stripVerdict(job, station)?.state;
    return state === 'tight' || state === 'loose' ? [{ id: station.id, is: state }] : [];
  });
}

function stateOf(facts: TrialFacts): StageState {
  const states = facts.stations.map(({ tried }) => trialState(tried));
  if (states.some((state) => state === 'off' || state === 'void')) return 'attention';
  if (beyondByStrip(facts).length > 0) return 'attention';
  if (isDone(facts)) return 'done';
  return states.includes('read') || states.includes('swapped') ? 'started' : 'open';
}

function todosOf(facts: TrialFacts): Todo[] {
  const { stations } = facts;
  const inState = (wanted: TrialState) =>
    stations.filter(({ tried }) => trialState(tried) === wanted).map(({ id }) => id);
  const [off, gone] = [inState('off'), inState('void')];
  const wanted = wantedOf(facts);
  const swapped = wanted.filter(({ tried }) => trialState(tried) === 'swapped');
  const left = wanted.filter(({ tried }) => trialState(tried) === 'open').map(({ id }) => id);
  const first = stations.every(({ tried }) => tried === null) ? firstToTry(facts.job, wanted) : null;
  const todos: string[] = [
    ...beyondByStrip(facts).map(({ id, is }) => `${id} is ${is} by strip only: measure its bore and journal`),
    ...(off.length > 0 ? [`Check ${off.join(', ')}: clearance not as predicted`] : []),
    ...(gone.length > 0 ? [`Re-read ${gone.join(', ')} with shells in: trial out of date`] : []),
    ...(swapped.length > 0
      ? [
          `Read ${swapped.map(({ id }) => id).join(', ')} again: ${[...new Set(swapped.map(({ tried }) => CHANGED_WORDS[tried!.changed!]))].join(', ')}`,
        ]
      : []),
    ...(first ? [`Try ${first.station} first: ${first.reason}`] : []),
    ...(left.length > 0 && !first ? [`Read ${left.join(', ')} with the shells in`] : []),
  ];
  return todos.map((todo) => ({ turn: 'in-turn', todo }));
}

const STATE_TEXT: Readonly<Record<TrialState, string>> = {
  void: 'out of date',
  off: 'not as predicted',
  swapped: 'other parts since',
  read: 'as predicted',
  open: 'not read',
};

function fastenersText({ kind, name, lubricant, torque }: Fasteners): string {
  const kinds = { unknown: '', maker: 'the engine maker’s', other: 'others than the engine maker’s' };
  return [kinds[kind], name, lubricant, torque].filter((part) => part !== '').join(', ');
}

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

/** The instruments that have a name, each with what one reading of it is known to. */
function instrumentFacts({ instruments, unit }: TrialJob): SheetBlock[] {
  const named = INSTRUMENT_ROLES.filter((role) => instruments[role].name !== '').map(
    (role) =>
      `${INSTRUMENT_WORDS[role]} ${instruments[role].name}, ± ${spreadFigure(readingUncertainty(instruments[role], 1), unit)} ${unit} a reading`,
  );
  return named.length === 0 ? [] : [{ kind: 'fact', label: 'Instruments', text: named.join('; ') }];
}

function sheetOf({ job, stations }: TrialFacts): SheetBlock[] {
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
    const said = fastenersText(job.fasteners[family]);
    return said === '' ? [] : [{ kind: 'fact', label: `Fasteners of the ${family}s`, text: said }];
  });
  const applied = stations.flatMap(({ id, offsets }) =>
    offsets.flatMap(({ offset, u, stations: from, series, isOwn }) =>
      isOwn ? [] : [{ id, text: `${text(offset)} ± ${spread(u)}, ${series}, from ${from.join(', ')}` }],
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

const FASTENER_WORDS: Readonly<Record<string, string>> = {
  kind: 'kind of the fasteners',
  name: 'name of the fasteners',
  lubricant: 'lubricant of the fasteners',
  torque: 'torque of the fasteners',
  since: 'when the fasteners were changed',
};

const WARM_WORDS: Readonly<Record<string, string>> = {
  celsius: 'running temperature',
  iron: 'expansion of iron',
  aluminium: 'expansion of aluminium',
  steel: 'expansion of steel',
  source: 'source of the expansion',
};

const INSTRUMENT_WORDS: Readonly<Record<string, string>> = {
  boreGauge: 'bore gauge',
  micrometer: 'micrometer',
  ballMicrometer: 'ball micrometer',
};

/** Trial assembly: what stations read with their shells in, against what their parts let expect, and what that says of the others. */
export const trialSlice: Slice<'trial', TrialFacts> = {
  key: 'trial',
  state: stateOf,
  todos: todosOf,
  reminders: ({ job }) =>
    INSTRUMENT_ROLES.flatMap((role) => {
      const on = calibrationDue(job.instruments[role]);
      const what = [`the ${INSTRUMENT_WORDS[role]}`, job.instruments[role].name]
        .filter((word) => word !== '')
        .join(' ');
      return on === null ? [] : [{ on, todo: `Have ${what} calibrated` }];
    }),
  sheet: sheetOf,
  placeWords: ([member = '', key = '', field = '']) => {
    if (member === 'trialSchool') return 'checking method';
    if (member === 'warm') return WARM_WORDS[key] ?? 'running temperature';
    if (member === 'instruments') return INSTRUMENT_WORDS[key] ?? 'instruments';
    if (member === 'fasteners') {
      return `${FASTENER_WORDS[field] ?? 'fasteners'} of the ${FAMILY_TABLE[key as Family]?.words ?? 'mains'}`;
    }
    if (member === 'strips') return key === '' ? 'gauging strips' : `gauging strip at ${key}`;
    return key === '' ? 'trials' : `trial of ${key}`;
  },
};
