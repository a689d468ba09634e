import type { EngineMembers } from '../engineType/enginePart.js';
import { lengthText, roughText } from '../measure/lengthText.js';
import { figures, type SheetBlock, words } from '../stage/sheetBlock.js';
import type { Slice, StageState, Todo } from '../stage/slice.js';
import type { RunoutMembers } from './runoutPart.js';
import { bentBy, type TurnRead, turnRead } from './turn.js';

type RunoutJob = RunoutMembers & Pick<EngineMembers, 'layout' | 'limits' | 'unit'>;

/** What runout is judged with. */
export interface RunoutFacts {
  readonly job: RunoutJob;
}

/** What was read at one place of the shaft, and whether it is over the limit of the data sheet. */
export interface RunoutAt {
  /** `M2`, or `flange`. */
  readonly place: string;
  readonly read: TurnRead;
  /** Null where the data sheet gives no limit: one for the mains, another for the flange. */
  readonly isOver: boolean | null;
}

/** Every place where the runout of the shaft was read, from the front on. */
export function runoutsOf({ runout, limits, layout }: Pick<RunoutJob, 'runout' | 'limits' | 'layout'>): RunoutAt[] {
  const mains = Array.from({ length: layout.mains }, (_, at) => `M${at + 1}`);
  const limit = limits.runout;
  return [
    ...mains.flatMap((place): RunoutAt[] => {
      const read = turnRead(runout.mains[place] ?? {});
      return read ? [{ place, read, isOver: limit && read.tir > limit.high }] : [];
    }),
    ...[turnRead(runout.flange)].flatMap((read) =>
      read ? [{ place: 'flange', read, isOver: limits.flangeRunout && read.tir > limits.flangeRunout.high }] : [],
    ),
  ];
}

function stateOf({ job }: RunoutFacts): StageState {
  const read = runoutsOf(job);
  if (read.some(({ isOver }) => isOver)) return 'attention';
  const needed = job.runout.steps;
  const mains = read.filter(({ place }) => place !== 'flange');
  if (mains.length === 0) return 'open';
  return mains.some((one) => one.read.count >= needed) ? 'done' : 'started';
}

function todosOf({ job }: RunoutFacts): Todo[] {
  const over = runoutsOf(job).filter(({ isOver }) => isOver);
  if (over.length === 0) return [];
  const mains = over.filter(({ place }) => place !== 'flange');
  const worst = mains.length === 0 ? null : mains.reduce((most, one) => (one.read.tir > most.read.tir ? one : most));
  const flange = over.find(({ place }) => place === 'flange');
  const length = (value: number) => lengthText(value, job.unit);
  return [
    ...(worst
      ? [
          {
            urgency: 'blocked' as const,
            todo: `Shaft bent by ${length(bentBy(worst.read.tir))} at ${worst.place}: read again, then straighten or replace it`,
          },
        ]
      : []),
    ...(flange
      ? [
          {
            urgency: 'blocked' as const,
            todo: `Flange runs out by ${length(flange.read.tir)}, over its limit: clean it, read again, then true it`,
          },
        ]
      : []),
  ];
}

function sheetOf({ job }: RunoutFacts): SheetBlock[] {
  const { unit, limits, runout } = job;
  const read = runoutsOf(job);
  if (read.length === 0) return [];
  const text = (value: number) => roughText(value, unit);
  const verdict = (isOver: boolean | null) => (isOver === null ? 'not judged' : isOver ? 'over its limit' : 'inside');
  return [
    {
      kind: 'table',
      key: 'runout',
      part: 'result',
      title: `Runout, the shaft on its outer mains${runout.startTooth === '' ? '' : `, from ${runout.startTooth} on`}`,
      head: [
        words('Angle'),
        figures('TIR'),
        figures('Bend'),
        figures('Eccentricity'),
        figures('What is left'),
        words('Verdict'),
      ],
      rows: read.map(({ place, read: { tir, once, rest }, isOver }) => ({
        key: place,
        cells: [
          place === 'flange' ? 'Flange' : place,
          text(tir),
          place === 'flange' ? '' : text(bentBy(tir)),
          once ? text(2 * once.swing) : '',
          rest === null ? '' : text(rest),
          verdict(isOver),
        ].map((cell) => ({ text: cell })),
      })),
    },
    ...(limits.runout || !read.some(({ place }) => place !== 'flange')
      ? []
      : [{ kind: 'note' as const, text: 'The data sheet gives no limit for the runout of the shaft.' }]),
    ...(limits.flangeRunout || !read.some(({ place }) => place === 'flange')
      ? []
      : [{ kind: 'note' as const, text: 'The data sheet gives no limit for the runout of the flange.' }]),
  ];
}

/** The runout of the shaft, turned on its outer mains, and of its flange. */
export const runoutSlice: Slice<'runout', RunoutFacts> = {
  key: 'runout',
  state: stateOf,
  todos: todosOf,
  sheet: sheetOf,
  placeWords: ([, key = '', place = '']) => {
    if (key === 'steps') return 'readings per turn';
    if (key === 'startTooth') return 'start tooth of the turn';
    if (key === 'flange') return 'runout of the flange';
    return place === '' ? 'runout' : `runout at ${place}`;
  },
};
