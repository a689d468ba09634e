import type { DocumentFault, FitError } from '@fettle/core';
import { faultLine } from './readInput.js';

export interface CommandStreams {
  readonly write: (text: string) => void;
  readonly complain: (text: string) => void;
  /** Told how far a search of more than half a second is; left out, nobody is told. */
  readonly tell?: ((text: string) => void) | undefined;
}

/** A plan, or what keeps its request from being read. */
export type Answer =
  | { readonly plan: { readonly status: 'optimal' | 'feasible' | 'infeasible' | 'stopped' } }
  | { readonly faults: readonly DocumentFault[] };

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
 * Answers one request, or one a line, and returns the exit status: 0 all optimal, 2 a request is not valid, 3 a plan is infeasible, 4
 * stopped before a proof. Faults go to standard error with their path; with `ndjson` each line is answered as it arrives, one with a
 * fault gets a `fettle.error/1` and the others are still answered.
 *
 * @param answerTo reads one request and answers it
 */
export async function planCommand(
  input: AsyncIterable<Uint8Array>,
  ndjson: boolean,
  answerTo: (text: string) => Answer | Promise<Answer>,
  { write, complain }: CommandStreams,
): Promise<number> {
  if (!ndjson) {
    const answer = await answerTo(await textOf(input));
    if ('plan' in answer) write(`${JSON.stringify(answer.plan, null, 2)}\n`);
    else for (const fault of answer.faults) complain(faultLine(fault, 'request'));
    return statusOf(answer);
  }
  const seen = new Set<number>();
  let at = 0;
  for await (const line of linesOf(input)) {
    at += 1;
    if (line.trim() === '') continue;
    const answer = await answerTo(line);
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
