import type { DocumentFault, FitError, FitPlan } from '@fettle/core';
import { type FitProgress, fit, readFitRequest, withSolverIfNeeded } from '@fettle/core';
import { faultLine, readInput } from './readInput.js';

export interface FitCommandStreams {
  readonly write: (text: string) => void;
  readonly complain: (text: string) => void;
  /** Told how far a search of more than half a second is; left out, nobody is told. */
  readonly tell?: ((text: string) => void) | undefined;
}

export interface FitCommandOptions {
  readonly ndjson: boolean;
  /** Per request; after so long what was found is printed, as feasible or stopped. Infinity for no limit. */
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
  const clock = () => performance.now();
  const until = clock() + 1000 * seconds;
  const progress = tell ? { onProgress: progressTo(tell) } : {};
  return {
    plan: await withSolverIfNeeded((solver) => fit(read.request, { prices, solver, clock, until, ...progress })),
  };
}

/** The exit status of one answer: 2 not valid, 3 infeasible, 4 stopped before a proof, 0 optimal. */
function statusOf(answer: Answer): 0 | 2 | 3 | 4 {
  if ('faults' in answer) return 2;
  const { status } = answer.plan;
  return status === 'infeasible' ? 3 : status === 'optimal' ? 0 : 4;
}

/** What the command ends with after several answers: not valid before infeasible before stopped before optimal. */
const WORST_FIRST = [2, 3, 4, 0] as const;

/** Lines as they arrive, without their ends; an unfinished last one too. Only a line feed ends a line: it cannot stand inside JSON text. */
async function* linesOf(chunks: AsyncIterable<Uint8Array>): AsyncGenerator<string> {
  const decoder = new TextDecoder();
  let rest = '';
  for await (const chunk of chunks) {
    const parts = (rest + decoder.decode(chunk, { stream: true })).split('\n');
    rest = parts.pop()!;
    yield* parts;
  }
  rest += decoder.decode();
  if (rest !== '') yield rest;
}

async function textOf(chunks: AsyncIterable<Uint8Array>): Promise<string> {
  let text = '';
  const decoder = new TextDecoder();
  for await (const chunk of chunks) text += decoder.decode(chunk, { stream: true });
  return text + decoder.decode();
}

/**
 * Answers one fit request, or one a line, and returns the exit status: 0 all optimal, 2 a request is not valid, 3 a plan is
 * infeasible, 4 stopped before a proof. Faults go to standard error with their path; with `ndjson` each line is answered as it
 * arrives, one with a fault gets a `fettle.error/1` and the others are still solved.
 */
export async function fitCommand(
  input: AsyncIterable<Uint8Array>,
  options: FitCommandOptions,
  { write, complain, tell }: FitCommandStreams,
): Promise<number> {
  if (!options.ndjson) {
    const answer = await answerTo(await textOf(input), options, tell);
    if ('plan' in answer) write(`${JSON.stringify(answer.plan, null, 2)}\n`);
    else for (const fault of answer.faults) complain(faultLine(fault, 'request'));
    return statusOf(answer);
  }
  const seen = new Set<number>();
  let at = 0;
  for await (const line of linesOf(input)) {
    at += 1;
    if (line.trim() === '') continue;
    const answer = await answerTo(line, options, tell);
    seen.add(statusOf(answer));
    if ('plan' in answer) {
      write(`${JSON.stringify(answer.plan)}\n`);
      continue;
    }
    const error: FitError = { format: 'fettle.error/1', line: at, errors: [...answer.faults] };
    write(`${JSON.stringify(error)}\n`);
    for (const fault of answer.faults) complain(`line ${at}: ${faultLine(fault, 'request')}`);
  }
  return WORST_FIRST.find((status) => seen.has(status)) ?? 0;
}
