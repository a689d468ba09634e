import { jointState } from '../../crush/crushRead.js';
import type { Joint, JointKind } from '../../crush/crushSchema.js';
import { saddleAdvice } from '../../crush/saddleAdvice.js';
import { lengthText } from '../../measure/lengthText.js';
import type { Nanometres } from '../../measure/nanometres.js';
import { partName } from '../../part/feature.js';
import type { JobDocument } from '../jobDocument.js';
import type { JobFacts } from '../jobFacts.js';
import { figures, type SheetBlock, words } from '../sheetBlock.js';
import type { Slice, StageState, Todo } from '../slice.js';

/** The mains, whose joints have the shims, by name. */
export function jointStations({ layout }: Pick<JobDocument, 'layout'>): string[] {
  return Array.from({ length: layout.mains }, (_, at) => partName('mainBore', at + 1));
}

/** What the shims at a joint are to bring inside: the crush, or the oil clearance of white metal. */
export function jointLimits({ crush, limits }: Pick<JobDocument, 'crush' | 'limits'>) {
  return crush.kind === 'saddle' ? limits.mainClearance : limits.crush;
}

interface JointsRead {
  readonly kind: JointKind;
  readonly states: readonly { readonly station: string; readonly state: ReturnType<typeof jointState> }[];
}

function jointsOf({ job }: JobFacts): JointsRead | null {
  const { kind, joints } = job.crush;
  if (kind === null) return null;
  const limits = jointLimits(job);
  const states = jointStations(job).map((station) => {
    const joint = joints[station];
    return { station, state: joint ? jointState(joint, kind, limits) : null };
  });
  return { kind, states };
}

function stateOf(facts: JobFacts): StageState {
  const read = jointsOf(facts);
  if (!read) return 'open';
  if (read.states.some(({ state }) => state !== null && state !== 'inside')) return 'attention';
  const done = read.states.filter(({ state }) => state === 'inside').length;
  return done === read.states.length ? 'done' : done > 0 ? 'started' : 'open';
}

const JOINT_WORDS = {
  inside: 'inside',
  tight: 'too tight',
  loose: 'too loose',
  'not-square': 'not square',
} as const;

function todosOf(facts: JobFacts): Todo[] {
  const read = jointsOf(facts);
  if (!read) return [];
  const { job } = facts;
  const what = read.kind === 'saddle' ? 'oil clearance' : 'crush';
  if (jointLimits(job) === null) return [{ turn: 'in-turn', todo: `Enter the ${what} limits with their source` }];
  const off = read.states.flatMap(({ station, state }) =>
    state !== null && state !== 'inside' ? [`${station} ${JOINT_WORDS[state]}`] : [],
  );
  if (off.length > 0) return [{ turn: 'in-turn', todo: `Joints: ${off.join(', ')}` }];
  const open = read.states.flatMap(({ station, state }) => (state === null ? [station] : []));
  if (open.length > 0) return [{ turn: 'in-turn', todo: `Read the ${what} at ${open.join(', ')}` }];
  return [];
}

function sheetOf({ job }: JobFacts): SheetBlock[] {
  const { kind, joints } = job.crush;
  if (kind === null) return [];
  const { unit } = job;
  const text = (length: Nanometres | null) => (length === null ? '' : lengthText(length, unit));
  const limits = jointLimits(job);
  const side = (joint: Joint, name: 'left' | 'right') => {
    const { go, noGo } = joint[name];
    return go === null || noGo === null ? '' : `${text(go)} to ${text(noGo)}`;
  };
  const fitted = (joint: Joint, name: 'left' | 'right') => {
    const chosen = joint.choice?.chosen.find(({ place }) => place === name);
    return chosen ? text(chosen.thickness) : text(joint[name].shim);
  };
  const rows = jointStations(job).flatMap((station) => {
    const joint = joints[station];
    if (!joint) return [];
    const state = jointState(joint, kind, limits);
    const read = kind === 'saddle' ? [text(joint.clearance)] : [side(joint, 'left'), side(joint, 'right')];
    const cells = [station, ...read, fitted(joint, 'left'), fitted(joint, 'right')];
    const advice = kind === 'saddle' && limits && saddleAdvice(joint, limits, job.crush.aim);
    const beyond = advice && advice.fromFaces > 0 ? `, ${text(advice.fromFaces)} beyond the shims` : '';
    const said = state === null ? '' : `${JOINT_WORDS[state]}${beyond}`;
    const after = joint.choice ? text(joint.choice.predicted) : '';
    return [{ key: station, cells: [...cells, after, said, joint.recheck ?? ''].map((cell) => ({ text: cell })) }];
  });
  if (rows.length === 0) return [];
  const read = kind === 'saddle' ? [figures('Clearance')] : [figures('Crush, left'), figures('Crush, right')];
  return [
    {
      kind: 'table',
      key: 'joints',
      part: 'result',
      title: kind === 'saddle' ? 'Shims under the caps' : 'Crush and shims at the joints',
      head: [
        words('Joint'),
        ...read,
        figures('Shim, left'),
        figures('Shim, right'),
        figures('Leading to'),
        words('Verdict'),
        words('Read again on'),
      ],
      rows,
    },
  ];
}

const FIELDS: Readonly<Record<string, string>> = {
  kind: 'whether there are shims at the joints',
  aim: 'aim of the crush',
  aimAluminium: 'aim of the crush under aluminium caps',
  alikeWithin: 'how far the shims of two sides may differ',
};

/** Crush, and the shims at the joints: only where an engine has them. */
export const crushSlice: Slice<'crush'> = {
  key: 'crush',
  owns: ['crush'],
  belongs: ({ job }) => job.crush.kind !== null,
  state: stateOf,
  todos: todosOf,
  reminders: ({ job }) =>
    jointStations(job).flatMap((station) => {
      const on = job.crush.joints[station]?.recheck ?? null;
      return on === null ? [] : [{ on, todo: `Read the joint at ${station} again: joints settle` }];
    }),
  sheet: sheetOf,
  placeWords: ([, key = '', station = '', field = '']) => {
    if (key !== 'joints') return FIELDS[key] ?? 'joints';
    if (station === '') return 'joints';
    return field === 'choice' ? `accepted shims at ${station}` : `joint at ${station}`;
  },
};
