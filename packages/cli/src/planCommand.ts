import type { DocumentFault, FitError } from '@fettle/core';
import { faultLine, textOfBytes } from './readInput.js';

export interface CommandStreams {
  readonly write: (text: string) => void;
  readonly complain: (text: string) => void;
  /** Told how far a search of more than half a second is; left out, nobody is told. */
  readonly tell?: ((text: string) => void) | undefined;
  /** True once nobody takes what is written; left out, somebody always does. */
  readonly isClosed?: (() => boolean) | undefined;
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
async function* linesOf(chunks: AsyncIterable<Uint8Array>): AsyncGenerator<Uint8Array> {
  let rest = new Uint8Array(0);
  for await (const chunk of chunks) {
    let from = 0;
    for (let at = chunk.indexOf(LINE_FEED); at >= 0; at = chunk.indexOf(LINE_FEED, from)) {
      yield Buffer.concat([rest, chunk.subarray(from, at)]);
      rest = new Uint8Array(0);
      from = at + 1;
    }
    rest = Buffer.concat([rest, chunk.subarray(from)]);
  }
  if (rest.length > 0) yield rest;
}

const LINE_FEED = 0x0a;

async function bytesOf(chunks: AsyncIterable<Uint8Array>): Promise<Uint8Array> {
  const all: Uint8Array[] = [];
  for await (const chunk of chunks) all.push(chunk);
  return Buffer.concat(all);
}

type AnswerTo = (text: string) => Answer | Promise<Answer>;

async function answerOf(bytes: Uint8Array, answerTo: AnswerTo): Promise<Answer> {
  const read = textOfBytes(bytes);
  return read.ok ? answerTo(read.text) : read;
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
  answerTo: AnswerTo,
  { write, complain, isClosed }: CommandStreams,
): Promise<number> {
  if (!ndjson) {
    const answer = await answerOf(await bytesOf(input), answerTo);
    if ('plan' in answer) write(`${JSON.stringify(answer.plan, null, 2)}\n`);
    else for (const fault of answer.faults) complain(faultLine(fault, 'request'));
    return statusOf(answer);
  }
  const seen = new Set<number>();
  let at = 0;
  for await (const line of linesOf(input)) {
    at += 1;
    if (isClosed?.()) break;
    if (line.every((byte) => byte === 0x20 || byte === 0x09 || byte === 0x0d)) continue;
    const answer = await answerOf(line, answerTo);
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
