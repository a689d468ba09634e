import {
  type DocumentFault,
  type FitError,
  type FitPlan,
  type FitProgress,
  fit,
  loadIntegerSolver,
  readFitRequest,
  wantsIntegerSolver,
} from '@fettle/core';
import { faultLine, readInput } from './readInput.js';

export interface FitCommandStreams {
  readonly write: (text: string) => void;
  readonly complain: (text: string) => void;
  /** Told how far a search of more than half a second is; left out, nobody is told. */
  readonly tell?: ((text: string) => void) | undefined;
}

export interface FitCommandOptions {
  readonly ndjson: boolean;
  /** Per request; after so long the best plan found is printed as feasible. Infinity for no limit. */
  readonly seconds: number;
  /** Whether to work out what one more half of each shell would save. */
  readonly prices: boolean;
}

type Answer = { readonly plan: FitPlan } | { readonly faults: readonly DocumentFault[] };

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
  tell: FitCommandStreams['tell'],
): Promise<Answer> {
  const read = readInput(text, readFitRequest);
  if (!read.ok) return { faults: read.faults };
  const solver = wantsIntegerSolver(read.request) ? await loadIntegerSolver() : null;
  const end = performance.now() + 1000 * seconds;
  return {
    plan: fit(read.request, {
      prices,
      solver,
      isStopped: () => performance.now() > end,
      ...(tell ? { onProgress: progressTo(tell) } : {}),
    }),
  };
}

/** Invalid beats infeasible beats optimal. */
function statusOf(answers: readonly Answer[]): number {
  if (answers.some((answer) => 'faults' in answer)) return 2;
  return answers.some((answer) => 'plan' in answer && answer.plan.status === 'infeasible') ? 3 : 0;
}

/**
 * Answers one fit request, or one a line, and returns the exit status: 0 all optimal, 2 a request is not valid, 3 a plan is
 * infeasible. Faults go to standard error with their path; with `ndjson` the line also gets a `fettle.error/1` and
 * the others are still solved.
 */
export async function fitCommand(
  text: string,
  options: FitCommandOptions,
  { write, complain, tell }: FitCommandStreams,
): Promise<number> {
  if (!options.ndjson) {
    const answer = await answerTo(text, options, tell);
    if ('plan' in answer) write(`${JSON.stringify(answer.plan, null, 2)}\n`);
    else for (const fault of answer.faults) complain(faultLine(fault, 'request'));
    return statusOf([answer]);
  }
  const answers: Answer[] = [];
  for (const [at, line] of text.split(/\r?\n/u).entries()) {
    if (line.trim() === '') continue;
    const answer = await answerTo(line, options, tell);
    answers.push(answer);
    if ('plan' in answer) {
      write(`${JSON.stringify(answer.plan)}\n`);
      continue;
    }
    const error: FitError = { format: 'fettle.error/1', line: at + 1, errors: [...answer.faults] };
    write(`${JSON.stringify(error)}\n`);
    for (const fault of answer.faults) complain(`line ${at + 1}: ${faultLine(fault, 'request')}`);
  }
  return statusOf(answers);
}
