import { MOST_STAGES, TORQUE_UNITS, torqueStages } from '@fettle/core';
import type { CommandStreams } from './planCommand.js';

/** What the command line was given, as typed. */
export interface TorqueOptions {
  readonly final?: string | undefined;
  readonly unit?: string | undefined;
  readonly stages?: string | undefined;
}

/**
 * Prints the stages of a final torque as one JSON object, in the unit it was given in.
 *
 * @returns the exit status: 0 given, 2 the options cannot be read
 */
export function torqueCommand(options: TorqueOptions, { write, complain }: Omit<CommandStreams, 'tell'>): number {
  const refuse = (message: string) => {
    complain(`fettle: ${message}\n`);
    return 2;
  };
  const unit = TORQUE_UNITS.find((one) => one === options.unit);
  if (!unit) return refuse(`--unit is “${options.unit ?? ''}”; use one of ${TORQUE_UNITS.join(', ')}`);
  const typed = options.final?.trim() ?? '';
  const final = /^\d*\.?\d+$/u.test(typed) ? Number(typed) : Number.NaN;
  if (!(final > 0 && final <= 100_000)) {
    return refuse(`--final is “${options.final ?? ''}”; enter the final torque in ${unit}, above 0, such as 70`);
  }
  const stages = /^\d+$/u.test(options.stages?.trim() ?? '') ? Number(options.stages) : Number.NaN;
  if (!(stages >= 1 && stages <= MOST_STAGES)) {
    return refuse(`--stages is “${options.stages ?? ''}”; give a whole number from 1 to ${MOST_STAGES}`);
  }
  write(`${JSON.stringify({ unit, steps: torqueStages(final, stages) })}\n`);
  return 0;
}
