import { createReadStream } from 'node:fs';
import type { Readable } from 'node:stream';
import { type FitCommandStreams, fitCommand } from './fitCommand.js';

const USAGE = `Usage: npm run -s fettle -- fit FILE [--ndjson]

Reads a fit request from FILE (- for standard input) and prints the fit plan.
  --ndjson   one request a line gives one plan a line, in order

Exit status: 0 all optimal, 2 a request is not valid, 3 a plan is infeasible.
`;

export interface Surroundings extends FitCommandStreams {
  readonly input: Readable;
}

async function textOf(stream: Readable): Promise<string> {
  const chunks: Buffer[] = [];
  for await (const chunk of stream) chunks.push(Buffer.from(chunk));
  return Buffer.concat(chunks).toString('utf8');
}

/**
 * Runs the command line.
 *
 * @param args the words after `fettle`
 * @returns the exit status: 0 all optimal, 2 wrong usage, unreadable file or invalid request, 3 a plan is infeasible
 */
export async function runFettle(args: readonly string[], surroundings: Surroundings): Promise<number> {
  const { write, complain, input } = surroundings;
  const [command, ...rest] = args;
  if (command === '--help' || command === 'help') {
    write(USAGE);
    return 0;
  }
  const ndjson = rest.includes('--ndjson');
  const files = rest.filter((word) => word === '-' || !word.startsWith('-'));
  const unknown = rest.filter((word) => word !== '--ndjson' && !files.includes(word));
  if (command !== 'fit' || files.length !== 1 || unknown.length > 0) {
    complain(unknown.length > 0 ? `fettle: there is no option ${unknown.join(' ')}\n\n${USAGE}` : USAGE);
    return 2;
  }
  const [file = ''] = files;
  let text: string;
  try {
    text = await textOf(file === '-' ? input : createReadStream(file));
  } catch (error) {
    complain(`fettle: cannot read ${file}: ${(error as Error).message}\n`);
    return 2;
  }
  return fitCommand(text, ndjson, { write, complain });
}
