import { kitChance, loadIntegerSolver, readKitQuestion, seeded, wantsIntegerSolver } from '@fettle/core';
import type { FitCommandStreams } from './fitCommand.js';
import { faultLine, readInput } from './readInput.js';

/**
 * Answers how likely a kit of halves covers an engine that is known by its bands only.
 *
 * @returns the exit status: 0 answered, 2 the question is not valid
 */
export async function kitCommand(
  text: string,
  seconds: number,
  { write, complain, tell }: FitCommandStreams,
): Promise<number> {
  const read = readInput(text, readKitQuestion);
  if (!read.ok) {
    for (const fault of read.faults) complain(faultLine(fault, 'question'));
    return 2;
  }
  const { question } = read;
  // A kit for many stations needs what proves large drawers.
  const solver = wantsIntegerSolver(question) ? await loadIntegerSolver() : null;
  const end = performance.now() + 1000 * seconds;
  const answer = kitChance(question, seeded(question.seed), {
    solver,
    isStopped: () => performance.now() > end,
    ...(tell ? { onEngines: (engines) => tell(`${engines} of ${question.engines} engines drawn\n`) } : {}),
  });
  write(`${JSON.stringify({ format: 'fettle.kit-chance/1', ...answer }, null, 2)}\n`);
  return 0;
}
