import type { Writable } from 'node:stream';

/** Exit status where the answer could not be written. */
const NOT_WRITTEN = 5;

export interface StandardStreams {
  readonly write: (text: string) => void;
  readonly complain: (text: string) => void;
  /** True once nobody takes what is written. */
  readonly isClosed: () => boolean;
  /** Waits until everything is written. @returns the exit status: the given one, or 5 where the answer could not be written */
  readonly ended: (status: number) => Promise<number>;
}

/**
 * Standard output and error as the commands use them. A reader that closes its end early (`| head -1`) has what it wants: the command
 * stops without a word, with the status of what it answered. Where the output cannot be written (a full disk) it says so.
 */
export function standardStreams(output: Writable, errors: Writable): StandardStreams {
  let fault: NodeJS.ErrnoException | null = null;
  output.on('error', (error: NodeJS.ErrnoException) => {
    if (fault === null && error.code !== 'EPIPE') errors.write(`fettle: cannot write the answer: ${error.message}\n`);
    fault ??= error;
  });
  // Nobody reads the complaints: there is no one left to tell.
  errors.on('error', () => {});
  return {
    write: (text) => {
      if (fault === null) output.write(text);
    },
    complain: (text) => {
      errors.write(text);
    },
    isClosed: () => fault !== null,
    ended: (status) =>
      new Promise((resolve) => {
        const end = () => resolve(fault === null || fault.code === 'EPIPE' ? status : NOT_WRITTEN);
        // An error is told before the next turn.
        if (fault !== null) end();
        else output.write('', () => setImmediate(end));
      }),
  };
}
