import { type SheetBlock, words } from '../stage/sheetBlock.js';
import type { Slice, StageState, Todo } from '../stage/slice.js';
import { isPassDone, jobPassStates, type TightenJob } from '../torque/tightenFacts.js';
import { torqueText } from '../torque/torqueUnit.js';
import { STIFF_TRIES } from './assemblyChecks.js';
import {
  type AssembledStation,
  type AssemblyJob,
  faceText,
  jobAssembly,
  type StationAssembly,
  type StationCheck,
  swapText,
} from './assemblyFacts.js';
import type { HandTurn } from './assemblySchema.js';

/** What the assembly is judged with; how far the fasteners are tightened is asked as well. */
export interface AssemblyFacts {
  readonly job: AssemblyJob & TightenJob;
  readonly stations: readonly AssembledStation[];
}

/** How the shaft turned, in words. */
export function turnText({ how, angle, breakaway }: Pick<HandTurn, 'how' | 'angle' | 'breakaway'>): string {
  const ways = {
    even: 'free and even',
    uneven: 'free, uneven',
    stiff: angle === null ? 'stiff' : `stiff at ${angle}°`,
  };
  return breakaway === null ? ways[how] : `${ways[how]}, starts at ${torqueText(breakaway.value, breakaway.unit)}`;
}

function checksOf({ before, after }: StationAssembly): readonly StationCheck[] {
  return [...before, ...after];
}

/** True if anything was seen to yet: while sizes are read nothing is, and nothing is worked out. */
function isBegun({ assembly }: Pick<AssemblyJob, 'assembly'>): boolean {
  return Object.keys(assembly.checks).length > 0 || Object.keys(assembly.turns).length > 0;
}

function stateOf({ job, stations }: AssemblyFacts): StageState {
  if (!isBegun(job)) return 'open';
  const all = jobAssembly(job, stations);
  const checks = all.flatMap(checksOf);
  const isAmiss =
    checks.some(
      ({ made, isOpen, isOutdated }) => made !== null && (isOutdated || (made.state === 'found' && isOpen)),
    ) || all.some(({ turn, isTurnOpen }) => turn !== null && (turn.how !== 'even' || isTurnOpen));
  if (isAmiss) return 'attention';
  const isDone = checks.every(({ isOpen }) => !isOpen) && all.every(({ isTurnOpen }) => !isTurnOpen);
  return isDone ? 'done' : 'started';
}

function todosOf({ job, stations }: AssemblyFacts): Todo[] {
  if (!isBegun(job) && job.choice === null) return [];
  const all = jobAssembly(job, stations);
  const undecided = all
    .flatMap(checksOf)
    .find(({ made, isOutdated }) => made?.state === 'found' && made.decision === null && !isOutdated);
  const stiff = all.find(({ turn, isTurnOpen }) => turn?.how === 'stiff' && !isTurnOpen);
  const uneven = all.find(({ turn, isTurnOpen }) => turn?.how === 'uneven' && !isTurnOpen);
  const next = all.find(({ before }) => before.some(({ isOpen }) => isOpen));
  const isTight = jobPassStates(job).every(isPassDone);
  const toTurn =
    next || !isTight ? undefined : all.find((one) => one.isTurnOpen || one.after.some(({ isOpen }) => isOpen));
  const todos = [
    ...(undecided ? [`Decide on what was found at ${undecided.station}: ${undecided.made!.words}`] : []),
    ...(stiff ? [`The shaft is stiff with ${stiff.station} tightened: ${STIFF_TRIES[0]}`] : []),
    ...(uneven ? [`Check ${uneven.station}: the shaft turned unevenly with it tightened. Turn it again`] : []),
    ...(next && job.choice ? [`Assemble ${next.station}, check by check`] : []),
    ...(toTurn && job.choice
      ? [`${toTurn.isTurnOpen ? 'Turn the shaft' : 'Finish the checks'} with ${toTurn.station} tightened`]
      : []),
  ];
  return todos.map((todo) => ({ urgency: 'in-order', todo }));
}

/** What was not seen to, station by station; stations where nothing was are named together. */
function uncheckedText(all: readonly StationAssembly[]): string {
  const open = all.map((one) => ({
    station: one.station,
    left: checksOf(one).filter(({ isOpen }) => isOpen),
    all: checksOf(one),
  }));
  const nothing = open.filter((one) => one.left.length === one.all.length).map(({ station }) => station);
  const some = open.filter(({ left, all: own }) => left.length > 0 && left.length < own.length);
  return [
    ...some.map(({ station, left }) => `${station} ${left.map(({ what }) => what.toLowerCase()).join('; ')}`),
    ...(nothing.length === 0 ? [] : [`${nothing.join(', ')} nothing of it`]),
  ].join('. ');
}

interface BuiltStation {
  readonly station: string;
  /** True if every check is made and settled there. */
  readonly isInOrder: boolean;
  readonly cells: readonly string[];
}

/** Stations that are in order and say the same share a row; one that is not stands by itself. In the order of the first of each. */
function byException(stations: readonly BuiltStation[]) {
  const rows = new Map<string, { readonly names: string[]; readonly cells: readonly string[] }>();
  for (const { station, isInOrder, cells } of stations) {
    const said = isInOrder ? ['all in order', ...cells.slice(1)] : cells;
    const key = isInOrder ? said.join('\n') : station;
    const row = rows.get(key);
    if (row) row.names.push(station);
    else rows.set(key, { names: [station], cells: said });
  }
  return [...rows.values()].map(({ names, cells }) => ({
    key: names[0]!,
    cells: [names.join(', '), ...cells].map((text) => ({ text })),
  }));
}

function sheetOf({ job, stations }: AssemblyFacts): SheetBlock[] {
  const all = jobAssembly(job, stations);
  const checks = all.flatMap((one) => checksOf(one));
  if (checks.every(({ made }) => made === null) && all.every(({ turn }) => turn === null)) return [];
  const count = (one: StationAssembly) => {
    const own = checksOf(one);
    const done = own.filter(({ made, isOutdated }) => made !== null && !isOutdated).length;
    return `${done} of ${own.length}`;
  };
  const found = checks.filter(({ made }) => made?.state === 'found');
  const open = checks.filter(({ isOpen }) => isOpen);
  const face = faceText(job.assembly);
  const people = (one: StationAssembly) => [
    ...new Set([...checksOf(one).flatMap(({ made }) => (made ? [made.by] : [])), ...(one.turn ? [one.turn.by] : [])]),
  ];
  return [
    ...(face === '' ? [] : [{ kind: 'fact' as const, label: 'Running faces lubricated with', text: face }]),
    {
      kind: 'table',
      key: 'assembly',
      part: 'result',
      title: 'Final assembly',
      head: [words('Station'), words('Checks made'), words('Turns'), words('By')],
      rows: byException(
        all.map((one) => ({
          station: one.station,
          isInOrder:
            checksOf(one).every(({ made, isOpen }) => !isOpen && made?.state !== 'found') &&
            !one.isTurnOpen &&
            (one.turn === null || one.turn.how === 'even'),
          cells: [
            count(one),
            one.turn === null ? 'not turned' : `${turnText(one.turn)}${one.isTurnOpen ? ' (before a swap)' : ''}`,
            people(one).join(', '),
          ],
        })),
      ),
    },
    ...(found.length === 0
      ? []
      : [
          {
            kind: 'table' as const,
            key: 'findings',
            part: 'result' as const,
            title: 'Problems found in assembly',
            head: [words('Station'), words('Check'), words('Problem'), words('Decided'), words('By')],
            rows: found.map(({ station, place, what, made }) => ({
              key: place,
              cells: [
                station,
                what,
                `${made!.words}${made!.photo === null ? '' : ' (photo stored)'}`,
                made!.decision?.words ?? 'not decided',
                made!.decision === null ? made!.by : `${made!.by}; ${made!.decision.by}`,
              ].map((text) => ({ text })),
            })),
          },
        ]),
    ...(open.length === 0 ? [] : [{ kind: 'note' as const, text: `Not checked: ${uncheckedText(all)}.` }]),
    ...Object.values(job.assembly.swaps).map((swap) => ({
      kind: 'note' as const,
      text: `Swapped: ${swapText(swap)}, by ${swap.by}: ${swap.reason}.`,
    })),
  ];
}

const BUILT_WORDS: Readonly<Record<string, string>> = {
  grooved: 'which shell is grooved',
  lugs: 'shells have lugs',
  dowels: 'dowels fitted',
  caps: 'how caps are marked',
  boltCovers: 'rod bolts need covers',
};

/** Putting it together: checks at each station, how the shaft turns, parts that change places. */
export const assemblySlice: Slice<'assembly', AssemblyFacts> = {
  key: 'assembly',
  state: stateOf,
  todos: todosOf,
  sheet: sheetOf,
  placeWords: ([, key = '', place = '']) => {
    if (key === 'built') return BUILT_WORDS[place] ?? 'what the engine has';
    if (key === 'face') return 'lubricant of the running faces';
    if (key === 'turns') return place === '' ? 'how the shaft turns' : `how the shaft turns with ${place}`;
    if (key === 'swaps') return 'swapped parts';
    return place === '' ? 'checks of the assembly' : `check at ${place.split('/')[0]}`;
  },
};
