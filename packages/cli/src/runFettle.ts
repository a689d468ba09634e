import { createReadStream } from 'node:fs';
import type { Readable } from 'node:stream';
import { parseArgs } from 'node:util';
import { codesCommand } from './codesCommand.js';
import { fitCommand } from './fitCommand.js';
import { keepCommand, knownCommand, personCommand } from './keepCommand.js';
import { kitCommand } from './kitCommand.js';
import type { CommandStreams } from './planCommand.js';
import { readCommand } from './readCommand.js';
import { faultLine, textOfBytes } from './readInput.js';
import { shimsCommand } from './shimsCommand.js';
import { studyCommand } from './studyCommand.js';
import { torqueCommand } from './torqueCommand.js';

const USAGE = `Usage: npm run -s fettle -- fit FILE [--ndjson] [--seconds N] [--prices]
       npm run -s fettle -- shims FILE [--ndjson]
       npm run -s fettle -- codes FILE [--row TEXT --feature NAME --count N]
       npm run -s fettle -- kit FILE [--chance P] [--seconds N]
       npm run -s fettle -- read --unit mm|in --low L --high H --resolution R TEXT
       npm run -s fettle -- study FILE
       npm run -s fettle -- torque --final T --unit ft-lb|in-lb|Nm --stages N
       npm run -s fettle -- backup FILE
       npm run -s fettle -- restore FILE
       npm run -s fettle -- person add NAME owner|fitter|stores|reader
       npm run -s fettle -- person reset NAME
       npm run -s fettle -- person list
       npm run -s fettle -- known rebuild

Reads a fit request from FILE (- for standard input) and prints the fit plan.
  --ndjson      one request per line, one plan per line, in order, as they arrive
  --seconds N   stop each search after N seconds with the best plan found (status
                feasible) or, if none, with the bound proven (stopped)
  --prices      give the saving from one more of each shell that is short

Exit status: 0 all optimal, 2 a request is not valid, 3 a plan is infeasible, 4 a
search was stopped before its proof, 5 the answer could not be written. A reader
that closes early (| head -1) gets the status of what was answered.

The second form reads a shim request and prints the shim plan: rings, thrust
washers, flanged shells, shims at the joint or under a cap. Exit status: 0, 2 and 3
as above.

The third form checks the selection tables of a code sheet or an engine type: the clearance that
the bands of each cell imply, contradictions, and the grade that the bands call for.
  --row TEXT    row of marks as stamped, such as "J 1 1 2 1 1", to decode
  --feature     mainBore, mainJournal, bigEnd or pin: the parts of the row
  --count N     number of stations in the row

Exit status: 0 no problems, 2 the sheet is not valid, 3 problems found.

The fourth form gives the chance that a kit of shells fits an engine known by its
bands only, with the 95 % interval of that chance: engines are simulated within the
bands, and each is searched exactly.
  --chance P    give instead the shells to stock so that an engine can be fitted
                with a chance of at least P, above 0 and up to 1

The fifth form judges one reading as typed: inside its limits, outside of them but
believable, or implausible, and which slips would explain it, the likeliest first.
Write -- before a TEXT that begins with a minus. Exit status: 0 judged, 2 not readable.

The sixth form gives the stages of a final torque: equal ones, each rounded up to the next 5 (to
the next 1 where the final figure is below 20), the last exact.

The seventh form works out a gauge study: every person reads every part equally often. FILE is
JSON, a list of {part, person, trial, value}, or CSV with a head of these names. It prints
standard deviations for repeats (ev), people (av), people by part (interaction), all reading
(grr), parts (pv) and the total (tv), and the sums of squares, in the unit of the file. The
interaction is counted with the repeats (pooled) where its chance is above 0.25. Exit status: 0,
2 cells are missing, or fewer than two parts, people or readings.

Backup writes everything, photos included, to one file. Restore replaces the data with such a file.
Fettle may run during a backup, not during a restore. The previous data stays as a database of
another name. A backup of a newer version is refused.

Person creates an account, sets a new first password (shown once, changed at sign-in), or lists the
accounts. The first is the owner's; from then on people sign in.

Known rebuild works out again what the workshop knows from its engines, which is otherwise done
with every change of an engine. Fettle may run meanwhile.
`;

export interface Surroundings extends CommandStreams {
  readonly input: Readable;
}

/** @throws Error naming an option that there is not */
function readOptions(words: readonly string[]) {
  return parseArgs({
    args: [...words],
    allowPositionals: true,
    options: {
      ndjson: { type: 'boolean', default: false },
      seconds: { type: 'string' },
      prices: { type: 'boolean', default: false },
      row: { type: 'string' },
      feature: { type: 'string' },
      count: { type: 'string' },
      chance: { type: 'string' },
      unit: { type: 'string' },
      low: { type: 'string' },
      high: { type: 'string' },
      resolution: { type: 'string' },
      final: { type: 'string' },
      stages: { type: 'string' },
    },
  });
}

async function bytesOf(stream: Readable): Promise<Uint8Array> {
  const chunks: Buffer[] = [];
  for await (const chunk of stream) chunks.push(Buffer.from(chunk));
  return Buffer.concat(chunks);
}

/**
 * Runs the command line.
 *
 * @param args the words after `fettle`
 * @returns the exit status: 0 all optimal, 2 wrong usage, unreadable file or invalid request, 3 a plan is infeasible, 4 stopped
 */
export async function runFettle(args: readonly string[], surroundings: Surroundings): Promise<number> {
  const { write, complain, tell, isClosed, input } = surroundings;
  const [command, ...rest] = args;
  if (command === '--help' || command === 'help') {
    write(USAGE);
    return 0;
  }
  let parsed: ReturnType<typeof readOptions>;
  try {
    parsed = readOptions(rest);
  } catch (error) {
    complain(`fettle: ${(error as Error).message}\n\n${USAGE}`);
    return 2;
  }
  const { values, positionals: files } = parsed;
  const seconds = values.seconds === undefined ? Number.POSITIVE_INFINITY : Number(values.seconds);
  if (!(seconds > 0)) {
    complain(`fettle: --seconds is “${values.seconds}”; enter a number above 0\n`);
    return 2;
  }
  if (command === 'known' && files.length === 1 && files[0] === 'rebuild') return knownCommand({ complain });
  if (command === 'person') return personCommand(rest, { complain });
  if (command === 'torque' && files.length === 0) return torqueCommand(values, { write, complain });
  if ((command === 'backup' || command === 'restore') && files.length === 1) {
    return keepCommand(command, files[0]!, { complain });
  }
  if (!['fit', 'shims', 'codes', 'kit', 'read', 'study'].includes(command ?? '') || files.length !== 1) {
    complain(USAGE);
    return 2;
  }
  const [file = ''] = files;
  if (command === 'read') return readCommand(file, values, { write, complain });
  const stream = file === '-' ? input : createReadStream(file);
  let text: string;
  try {
    if (command === 'fit') {
      return await fitCommand(
        stream,
        { ndjson: values.ndjson, prices: values.prices, seconds },
        { write, complain, tell, isClosed },
      );
    }
    if (command === 'shims')
      return await shimsCommand(stream, { ndjson: values.ndjson }, { write, complain, isClosed });
    const read = textOfBytes(await bytesOf(stream));
    if (!read.ok) {
      for (const fault of read.faults) complain(`fettle: ${file}: ${faultLine(fault, 'file')}`);
      return 2;
    }
    text = read.text;
  } catch (error) {
    if (!(error instanceof Error && 'syscall' in error)) throw error;
    complain(`fettle: ${file} cannot be read: ${error.message}\n`);
    return 2;
  }
  if (command === 'study') return studyCommand(text, { write, complain });
  if (command === 'kit') {
    const target = values.chance === undefined ? null : Number(values.chance);
    if (target !== null && !(target > 0 && target <= 1)) {
      complain(`fettle: --chance is “${values.chance}”; give a number above 0 and up to 1\n`);
      return 2;
    }
    return kitCommand(text, target, seconds, { write, complain, tell });
  }
  const { row, feature, count } = values;
  if (row === undefined) return codesCommand(text, null, { write, complain });
  if (feature === undefined || !/^[1-9]\d?$/u.test(count ?? '')) {
    complain('fettle: --row needs --feature and --count, a whole number of stations\n');
    return 2;
  }
  return codesCommand(text, { text: row, feature, count: Number(count) }, { write, complain });
}
