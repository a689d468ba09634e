import {
  type FitProgress,
  type IntegerSolver,
  loadIntegerSolver,
  planRequest,
  readFitRequest,
  withSolverIfNeeded,
} from '@fettle/core';
import { type Answer, type CommandStreams, planCommand } from './planCommand.js';
import { readInput } from './readInput.js';

export interface FitCommandOptions {
  readonly ndjson: boolean;
  /** Per request; after so long what was found is printed, as feasible or stopped. Infinity for no limit. */
  readonly seconds: number;
  /** True to work out what one more half of each shell would save. */
  readonly prices: boolean;
}

/** From this many stations on the solver is loaded at once. */
const LARGE = 60;

/** Nothing is said about a search that takes less than this, and not more often, ms. */
const TELL_EVERY_MS = 500;

function progressTo(tell: (text: string) => void): (progress: FitProgress) => void {
  let last = performance.now();
  return ({ doing, cost, bound }) => {
    if (performance.now() - last < TELL_EVERY_MS) return;
    last = performance.now();
    const best = cost === null ? 'no plan yet' : `best ${cost.toFixed(1)}`;
    tell(`${doing}: ${best}${bound === null ? '' : `, none below ${bound.toFixed(1)}`} µm²\n`);
  };
}

async function answerTo(
  text: string,
  { seconds, prices }: FitCommandOptions,
  tell: CommandStreams['tell'],
): Promise<Answer> {
  const read = readInput(text, readFitRequest);
  if (!read.ok) return { faults: read.faults };
  const clock = () => performance.now();
  // Without a clock an explanation is bounded by work alone, and the same however busy the machine is.
  const timed = seconds === Number.POSITIVE_INFINITY ? {} : { clock, until: clock() + 1000 * seconds };
  const progress = tell ? { onProgress: progressTo(tell) } : {};
  const { request } = read;
  const answer = (solver: IntegerSolver) =>
    planRequest(request, { prices, solver, explain: false, ...timed, ...progress });
  // Many stations mostly need the solver: begun without it, the search would be begun twice.
  const isLarge = request.stations.length >= LARGE;
  const plan = isLarge ? answer(await loadIntegerSolver()) : await withSolverIfNeeded(answer);
  if (plan.status !== 'infeasible') return { plan };
  // An explanation mostly needs the solver: with it from the start, nothing is worked out twice.
  const solver = await loadIntegerSolver();
  return { plan: planRequest(request, { solver, ...timed, ...progress }) };
}

/** Answers one fit request, or one a line, and returns the exit status. */
export function fitCommand(
  input: AsyncIterable<Uint8Array>,
  options: FitCommandOptions,
  streams: CommandStreams,
): Promise<number> {
  return planCommand(input, options.ndjson, (text) => answerTo(text, options, streams.tell), streams);
}
