import { roughText } from '../measure/lengthText.js';
import type { Unit } from '../measure/unit.js';
import { type SheetBlock, words } from '../stage/sheetBlock.js';
import type { Slice, StageState, Todo } from '../stage/slice.js';
import { boltName } from './bolt.js';
import type { StretchFinding } from './boltStretch.js';
import { PLACE_TABLE } from './fastener.js';
import {
  fastenerFigures,
  isPassDone,
  type JobPassState,
  jobPassStates,
  jobStretches,
  type TightenJob,
} from './tightenFacts.js';
import { TIGHTENING_WORDS } from './tightening.js';

/** What tightening is judged with. */
export interface TorqueFacts {
  readonly job: TightenJob;
}

/** What a doubt about a pass is, in words. */
export const PASS_DOUBTS: Readonly<Record<NonNullable<JobPassState['doubt']>, string>> = {
  skipped: 'skipped',
  'out-of-order': 'done out of order',
  'other-figure': 'figure changed since',
  'parts-swapped': 'parts swapped since',
};

/** What is wrong with a bolt's stretch, in words. */
export function stretchWords({ name, kind, by }: StretchFinding, unit: Unit): string {
  const amount = roughText(by, unit);
  if (kind === 'under') return `${name} stretched ${amount} too little`;
  if (kind === 'over') return `${name} stretched ${amount} too much: another bolt`;
  return `${name} stretched ${amount} more than its neighbours: measure its free length again`;
}

/** What a pass goes over, in words. */
export function passPlace({ pass: { place, rod } }: Pick<JobPassState, 'pass'>): string {
  return rod === null ? PLACE_TABLE[place].bolts : `rod ${rod}`;
}

function stateOf({ job }: TorqueFacts): StageState {
  const states = jobPassStates(job);
  if (states.length === 0) return 'open';
  const isAmiss =
    states.some(({ doubt }) => doubt !== null) || jobStretches(job).some(({ findings }) => findings.length > 0);
  if (isAmiss) return 'attention';
  const done = states.filter(isPassDone).length;
  return done === 0 ? 'open' : done === states.length ? 'done' : 'started';
}

function todosOf({ job }: TorqueFacts): Todo[] {
  const states = jobPassStates(job);
  const findings = jobStretches(job).flatMap((one) => one.findings);
  const missing = fastenerFigures(job).find(
    ({ family, from }) => from === 'missing' && job.fasteners[family].kind === 'other',
  );
  const amiss = states.find(({ doubt }) => doubt !== null);
  const next = states.find((state) => !isPassDone(state));
  const todos = [
    ...(missing
      ? [`Enter the figures of the ${missing.family} fasteners' maker: the data sheet's are for others`]
      : []),
    ...(findings[0] ? [`Check ${stretchWords(findings[0], job.unit)}`] : []),
    ...(amiss ? [`Check the pass to ${amiss.text} of the ${passPlace(amiss)}: ${PASS_DOUBTS[amiss.doubt!]}`] : []),
    ...(next && !amiss && job.choice ? [`Tighten the ${passPlace(next)} to ${next.text}`] : []),
  ];
  return todos.map((todo) => ({ urgency: 'in-order', todo }));
}

function sheetOf({ job }: TorqueFacts): SheetBlock[] {
  const states = jobPassStates(job);
  const figures = fastenerFigures(job).flatMap(({ from, fasteners }) => (from === 'missing' ? [] : fasteners));
  const stretches = jobStretches(job);
  const schools = [
    ...new Set(figures.flatMap(({ tightening }) => (tightening ? [TIGHTENING_WORDS[tightening.school].name] : []))),
  ];
  const read = stretches.flatMap((one) => one.read);
  return [
    ...(schools.length === 0 ? [] : [{ kind: 'fact' as const, label: 'Tightened by', text: schools.join('; ') }]),
    ...(states.length === 0
      ? []
      : [
          {
            kind: 'table' as const,
            key: 'passes',
            part: 'result' as const,
            title: 'Tightening, pass by pass',
            head: [words('Fasteners'), words('To'), words('Done by'), words('When'), words('Remark')],
            rows: states.map((state) => ({
              key: state.pass.key,
              cells: [
                { text: passPlace(state) },
                { text: state.text },
                { text: state.done?.by ?? 'not done' },
                state.done ? { text: '', at: state.done.at } : { text: '' },
                { text: state.doubt === null ? '' : PASS_DOUBTS[state.doubt] },
              ],
            })),
          },
        ]),
    ...(read.length === 0
      ? []
      : [
          {
            kind: 'table' as const,
            key: 'stretch',
            part: 'result' as const,
            title: 'Stretch of bolts',
            head: [words('Bolt'), words('Stretch'), words('Remark')],
            rows: read.map(({ id, name, stretch }) => {
              const finding = stretches.flatMap((one) => one.findings).find((one) => one.id === id);
              const cells = [name, roughText(stretch, job.unit), finding ? stretchWords(finding, job.unit) : 'inside'];
              return { key: id, cells: cells.map((text) => ({ text })) };
            }),
          },
        ]),
  ];
}

/** Tightening of the main and rod fasteners, pass by pass. */
export const torqueSlice: Slice<'torque', TorqueFacts> = {
  key: 'torque',
  state: stateOf,
  todos: todosOf,
  sheet: sheetOf,
  placeWords: ([, key = '', place = '']) => {
    if (key === 'stretch') return place === '' ? 'stretch of bolts' : `stretch of ${boltName(place)}`;
    return place === '' ? 'tightening' : `tightening pass ${place}`;
  },
};
