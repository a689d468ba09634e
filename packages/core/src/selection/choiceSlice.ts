import { chanceText } from '../clearance/chanceText.js';
import type { EffectiveSize } from '../measure/effectiveSize.js';
import { commonDecimals, formatExactLength, formatLength } from '../measure/formatLength.js';
import { spreadFigure } from '../measure/lengthText.js';
import type { Nanometres } from '../measure/nanometres.js';
import { INSTRUMENT_DECIMALS } from '../measure/unit.js';
import type { FeatureRow } from '../part/bearingRows.js';
import { familiesOf } from '../part/familiesOf.js';
import { FAMILY_TABLE, type Family } from '../part/family.js';
import { featureOf } from '../part/feature.js';
import { figures, type SheetBlock, type SheetCell, words } from '../stage/sheetBlock.js';
import type { Slice, StageState, Todo } from '../stage/slice.js';
import { sizeUncertainty } from '../station/clearanceKnown.js';
import { type JobStation, rodLabel } from '../station/jobStations.js';
import { stationVerdict } from '../station/stationVerdict.js';
import { aimsInWords, lockedInWords, rulesInWords } from './rulesInWords.js';
import { RULE_TABLE, type RuleKey } from './ruleTable.js';
import type { SelectionFacts, SelectionJob } from './selectionJob.js';

interface Chosen {
  readonly open: readonly JobStation[];
  /** Stations that are outside their limits with the halves that were accepted. */
  readonly broken: readonly JobStation[];
}

function chosenOf({ job, stations }: SelectionFacts): Chosen {
  const chosen = job.choice?.stations ?? {};
  return {
    open: stations.filter(({ id }) => !chosen[id]),
    broken: stations.filter((station) => {
      const { state } = stationVerdict(job, station, chosen[station.id] ?? null);
      return state === 'tight' || state === 'loose';
    }),
  };
}

function stateOf(facts: SelectionFacts): StageState {
  const { open, broken } = chosenOf(facts);
  if (broken.length > 0) return 'attention';
  if (!facts.job.choice) return 'open';
  return open.length > 0 ? 'started' : 'done';
}

function counted(count: number, one: string): string {
  return `${count} ${one}${count === 1 ? '' : 's'}`;
}

function todosOf(facts: SelectionFacts): Todo[] {
  const { job } = facts;
  const { open, broken } = chosenOf(facts);
  const ids = (list: readonly JobStation[]) => list.map(({ id }) => id).join(', ');
  const todos: Todo[] = [];
  if (broken.length > 0) {
    const todo = `${ids(broken)} out of limits with the accepted shells: select again`;
    todos.push({ urgency: 'in-order', todo });
  }
  if (open.length > 0) {
    const all = familiesOf(job)
      .map((family) => counted(FAMILY_TABLE[family].count(job.layout), FAMILY_TABLE[family].word))
      .join(' and ');
    todos.push({ urgency: 'in-order', todo: `Select shells for ${job.choice ? ids(open) : all}` });
  }
  return todos;
}

/** Every station of a family with its sizes, its halves, its clearance and its verdict. */
function stationsTable({ job, stations }: SelectionFacts, family: Family): SheetBlock {
  const { unit } = job;
  const own = stations.filter((station) => station.family === family);
  const read = own.flatMap(({ bore, journal }) =>
    [bore, journal].flatMap((size) => (size?.kind === 'read' ? [size.nominal] : [])),
  );
  const decimals = commonDecimals(read, unit, INSTRUMENT_DECIMALS[unit], INSTRUMENT_DECIMALS[unit] + 1);
  const sized = (size: EffectiveSize | null, mark: string | null, role: FeatureRow['role']): SheetCell =>
    size === null
      ? { text: '' }
      : size.kind === 'marked'
        ? { text: `mark ${mark}` }
        : {
            text: formatLength(size.nominal, unit, decimals),
            small: `± ${spreadFigure(sizeUncertainty(job, featureOf(family, role), size), unit)}`,
          };
  const fine = (value: Nanometres | null | undefined) => ({
    text: value == null ? '' : formatLength(value, unit, unit === 'mm' ? 4 : 5),
  });
  const rowOf = (station: JobStation): SheetCell[] => {
    const halves = job.choice?.stations[station.id] ?? null;
    const { state, clearance, inside, u, isMeasured } = stationVerdict(job, station, halves);
    const told = u === null ? {} : { small: `± ${spreadFigure(u, unit)}${isMeasured ? ', measured' : ''}` };
    // Grade and wall are columns of their own: a grade may be a number.
    const half = (side: 'upper' | 'lower'): SheetCell[] => {
      if (!halves) return [{ text: '' }, { text: '' }];
      const { shell: id, label, wall } = halves[side];
      const shell = job.shells[id];
      const figure = { text: formatExactLength(wall, unit, INSTRUMENT_DECIMALS[unit]) };
      return [shell ? { text: shell.grade, small: shell.series } : { text: label }, figure];
    };
    const isThrust = FAMILY_TABLE[family].isInLine && job.layout.thrustMain === station.number;
    const rod = station.rod === null ? '' : `, ${rodLabel(job, station.rod)}`;
    return [
      { text: `${station.id}${isThrust ? ' (thrust)' : ''}${rod}` },
      sized(station.bore, station.marks.bore, 'housing'),
      sized(station.journal, station.marks.journal, 'journal'),
      ...half('upper'),
      ...half('lower'),
      fine(station.aim),
      { ...fine(clearance?.nominal), ...(clearance ? told : {}) },
      fine(clearance?.tightest),
      fine(clearance?.loosest),
      { text: '', state, ...(inside === null ? {} : { small: `chance ${chanceText(inside)}` }) },
    ];
  };
  const { heads, name: title } = FAMILY_TABLE[family];
  const { station, housing, journal } = heads;
  return {
    kind: 'table',
    key: `stations ${family}`,
    part: 'result',
    title: `${title}, ${unit === 'mm' ? 'millimetres' : 'inches'}`,
    head: [
      words(station),
      figures(housing),
      figures(journal),
      words('Upper shell'),
      figures('Upper wall'),
      words('Lower shell'),
      figures('Lower wall'),
      figures('Target'),
      figures('Clearance'),
      figures('Tightest'),
      figures('Loosest'),
      words('Verdict'),
    ],
    rows: own.map((one) => ({ key: one.id, cells: rowOf(one) })),
  };
}

/** What was held, forbidden or aimed at beside the others: the choice is the best one with it, not without. */
function heldTable(job: SelectionJob): SheetBlock[] {
  const held = lockedInWords(job);
  if (held.length === 0) return [];
  return [
    {
      kind: 'table',
      key: 'held',
      part: 'result',
      title: 'Locks and targets set by the fitter',
      head: [words('Station'), words('Item')],
      rows: held.map(({ station, text }, at) => ({ key: `${station} ${at}`, cells: [{ text: station }, { text }] })),
    },
  ];
}

function sheetOf(facts: SelectionFacts): SheetBlock[] {
  const { choice } = facts.job;
  return [
    {
      kind: 'fact',
      label: 'Selection accepted',
      text: choice ? choice.by : 'not yet',
      ...(choice ? { at: choice.at } : {}),
    },
    { kind: 'fact', label: 'Target clearance', text: aimsInWords(facts.job) },
    { kind: 'fact', label: 'Rules', text: rulesInWords(facts.job) },
    ...familiesOf(facts.job).map((family) => stationsTable(facts, family)),
    ...heldTable(facts.job),
    {
      kind: 'note',
      text: 'Clearance = bore − journal − both walls, from mean sizes, and what a trial adds; tightest and loosest from the extreme readings; ± twice its standard uncertainty.',
    },
  ];
}

const WISHES: Readonly<Record<string, string>> = {
  upper: 'upper shell locked at',
  lower: 'lower shell locked at',
  noShells: 'shells ruled out at',
  unmixed: 'mixed pairs at',
};

/** The choice of the halves, and what it goes by: rules, wishes, and which rod stays on which pin. */
export const choiceSlice: Slice<'choose', SelectionFacts> = {
  key: 'choose',
  state: stateOf,
  todos: todosOf,
  sheet: sheetOf,
  placeWords: ([member = '', key = '', field = ''], job: SelectionJob) => {
    if (member === 'rules' && key === 'extras') return `added target at ${field === '' ? 'a station' : field}`;
    if (member === 'rules') return key in RULE_TABLE ? RULE_TABLE[key as RuleKey].place : 'rules';
    if (member === 'rods')
      return `${field === 'mark' ? 'mark' : field === 'bank' ? 'bank' : 'crankpin'} of rod ${rodLabel({ rods: {} }, Number(key))}`;
    if (member === 'wishes') return `${WISHES[field] ?? 'wishes at'} ${key}`;
    if (key === 'stations' && field !== '') return `accepted shells at ${field}`;
    return job.choice ? 'accepted selection' : 'choice';
  },
};
