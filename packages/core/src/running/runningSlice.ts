import type { Reminder, Slice, StageState, Todo } from '../stage/slice.js';
import { pressureText } from './pressure.js';
import {
  isRunningBegun,
  PRESSURE_WORDS,
  type PressureVerdict,
  pressureLimitText,
  pressuresNow,
  ranSoFar,
  recheckDueText,
  recheckStates,
  START_WORDS,
  startChecks,
} from './runningFacts.js';
import type { RunningMembers, StartCheck } from './runningPart.js';

/** What the stage is judged with. */
export interface RunningFacts {
  readonly job: RunningMembers;
}

/** Pressures that the engine runs with now and should not. */
function offLimits({ job }: RunningFacts) {
  return pressuresNow(job.running).filter(({ state }) => state === 'under' || state === 'over');
}

function stateOf(facts: RunningFacts): StageState {
  const { running } = facts.job;
  if (!isRunningBegun(running)) return 'open';
  const checks = startChecks(running);
  if (offLimits(facts).length > 0 || checks.some(([, made]) => made?.state === 'found')) return 'attention';
  const isStarted = checks.every(([, made]) => made !== null) && Object.keys(running.entries).length > 0;
  return isStarted && recheckStates(running).every(({ done }) => done !== null) ? 'done' : 'started';
}

function pressureTodo({ moment, read, limit, state }: PressureVerdict): string {
  const side = state === 'under' ? 'low' : 'high';
  return `Find out why the oil pressure ${PRESSURE_WORDS[moment]} is too ${side}: ${pressureText(read)}, limit ${pressureLimitText(limit!)}`;
}

/** Nothing is asked for until somebody notes something: many engines leave for good when they are built. */
function todosOf(facts: RunningFacts): Todo[] {
  const { running } = facts.job;
  if (!isRunningBegun(running)) return [];
  const ran = ranSoFar(running);
  const checks = startChecks(running);
  const open = checks.filter(([, made]) => made === null);
  return [
    ...offLimits(facts).map((one): Todo => ({ urgency: 'amiss', todo: pressureTodo(one) })),
    ...checks.flatMap(([check, made]): Todo[] =>
      made?.state === 'found'
        ? [{ urgency: 'amiss', todo: `Fix the problem at the first start: ${made.words || START_WORDS[check].what}` }]
        : [],
    ),
    ...(open.length > 0 && open.length < checks.length
      ? [{ urgency: 'in-order' as const, todo: `First start: ${START_WORDS[open[0]![0]].what}` }]
      : []),
    ...recheckStates(running).flatMap((one): Todo[] =>
      one.done === null && one.isRunDue
        ? [
            {
              urgency: 'in-order',
              todo: `${one.what}: due ${recheckDueText({ on: null, run: one.run }, running.unit)}, it has run ${ran} ${running.unit}`,
            },
          ]
        : [],
    ),
  ];
}

/** A pressure that is off comes up from its day on, on a closed engine too; what is to be done again waits until it is right. */
function remindersOf(facts: RunningFacts): Reminder[] {
  const { running } = facts.job;
  const off = offLimits(facts);
  if (off.length > 0) return off.map((one) => ({ on: running.entries[one.entry]!.on, todo: pressureTodo(one) }));
  return recheckStates(running).flatMap(({ on, what, done }) => (on === null || done ? [] : [{ on, todo: what }]));
}

/**
 * What becomes of an engine after its build: first start, running in, oil pressures, and what is looked at again. It prints nothing on the build
 * sheet, which says how the engine was built and stays as it was signed.
 */
export const runningSlice: Slice<'running', RunningFacts> = {
  key: 'running',
  state: stateOf,
  todos: todosOf,
  reminders: remindersOf,
  placeWords: ([, key = '', place = '', field = ''], { running }) => {
    if (key === 'unit') return 'unit of the run';
    if (key === 'limits')
      return place in PRESSURE_WORDS ? `oil pressure limit ${PRESSURE_WORDS[place as 'cold']}` : 'oil pressure limits';
    if (key === 'start')
      return place in START_WORDS
        ? `first start: ${START_WORDS[place as StartCheck].what.toLowerCase()}`
        : 'first start';
    if (key === 'rechecks') {
      const what = running.rechecks[place]?.what;
      return what === undefined ? 're-check' : `re-check “${what}”${field === 'done' ? ', done' : ''}`;
    }
    if (key === 'entries') {
      const on = running.entries[place]?.on;
      return on === undefined ? 'reading after the build' : `reading after the build, ${on}`;
    }
    return 'notes after the build';
  },
};
