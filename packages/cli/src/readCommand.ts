import {
  judgedReading,
  lengthOfNumber,
  type Nanometres,
  nanometres,
  numberOfLength,
  parseLength,
  unitSchema,
} from '@fettle/core';
import type { CommandStreams } from './planCommand.js';

/** What the command line was given, as typed. */
export interface ReadOptions {
  readonly unit?: string | undefined;
  readonly low?: string | undefined;
  readonly high?: string | undefined;
  readonly resolution?: string | undefined;
}

/** A figure without its point may be hundreds of metres long, and is explained all the same. */
const LONGEST_READ = 1e15 as Nanometres;

/** Digits of a likely figure: no more than a nanometre tells apart, so that 2.4486 is written 2.4486. */
function plain(value: number): number {
  return Number(value.toPrecision(12));
}

/**
 * Judges one reading as typed: inside its limits, believable outside of them, or implausible, and the slips that would explain it.
 * Prints one line of JSON.
 *
 * @returns the exit status: 0 judged, 2 the options or the reading cannot be read
 */
export function readCommand(
  text: string,
  options: ReadOptions,
  { write, complain }: Omit<CommandStreams, 'tell'>,
): number {
  const refuse = (message: string) => {
    complain(`fettle: ${message}\n`);
    return 2;
  };
  const unit = unitSchema.safeParse(options.unit);
  if (!unit.success) return refuse(`--unit is “${options.unit ?? ''}”; use mm or in`);
  const lengths = { low: nanometres(0), high: nanometres(0), resolution: nanometres(0) };
  for (const name of ['low', 'high', 'resolution'] as const) {
    const given = options[name];
    const value = given === undefined || given.trim() === '' ? Number.NaN : Number(given);
    if (!Number.isFinite(value) || Math.abs(value) > 10_000) {
      return refuse(
        `--${name} is “${given ?? ''}”; enter a length in ${unit.data}, such as ${unit.data === 'in' ? '2.4480' : '62.003'}`,
      );
    }
    lengths[name] = lengthOfNumber(value, unit.data);
  }
  const { low, high, resolution } = lengths;
  if (low > high) return refuse(`--low ${options.low} is above --high ${options.high}; swap them`);
  if (resolution < 1) return refuse(`--resolution is “${options.resolution}”; enter a length above 0`);
  const parsed = parseLength(text, { unit: unit.data, signed: 'sign', longest: LONGEST_READ });
  if (!parsed.ok) return refuse(parsed.message);
  const { nm, digits, perOne } = parsed;
  const { verdict, likely } = judgedReading(nm, {
    low: low,
    high: high,
    unit: unit.data,
    digits,
    perOne,
    resolution: resolution,
  });
  const inUnit = (length: Nanometres) => plain(numberOfLength(length, unit.data));
  const slips = likely.map((one) => ({ kind: one.slip, likely: inUnit(one.nm) }));
  write(`${JSON.stringify({ value: inUnit(nm), unit: unit.data, verdict, slips })}\n`);
  return 0;
}
