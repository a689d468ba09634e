import { readShimRequest, shims, TooManyStacks } from '@fettle/core';
import { type Answer, type CommandStreams, planCommand } from './planCommand.js';
import { readInput } from './readInput.js';

function answerTo(text: string): Answer {
  const read = readInput(text, readShimRequest);
  if (!read.ok) return { faults: read.faults };
  try {
    return { plan: shims(read.request) };
  } catch (error) {
    if (error instanceof TooManyStacks) return { faults: [{ path: '/counts', message: error.message }] };
    throw error;
  }
}

/** Answers one shim request, or one a line, and returns the exit status: 0 all optimal, 2 not valid, 3 infeasible. */
export function shimsCommand(
  input: AsyncIterable<Uint8Array>,
  { ndjson }: { readonly ndjson: boolean },
  streams: CommandStreams,
): Promise<number> {
  return planCommand(input, ndjson, answerTo, streams);
}
