import { kitChance, readKitQuestion, seeded } from '@fettle/core';
import type { FitCommandStreams } from './fitCommand.js';

/**
 * Answers how likely a kit of halves covers an engine that is known by its bands only.
 *
 * @returns the exit status: 0 answered, 2 the question is not valid
 */
export function kitCommand(text: string, seconds: number, { write, complain, tell }: FitCommandStreams): number {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    complain(`(whole question): not JSON: ${(error as Error).message}\n`);
    return 2;
  }
  const read = readKitQuestion(json);
  if (!read.ok) {
    for (const { path, message } of read.faults) complain(`${path || '(whole question)'}: ${message}\n`);
    return 2;
  }
  const { question } = read;
  const end = performance.now() + 1000 * seconds;
  const answer = kitChance(question, seeded(question.seed), {
    isStopped: () => performance.now() > end,
    ...(tell ? { onEngines: (engines) => tell(`${engines} of ${question.engines} engines drawn\n`) } : {}),
  });
  write(`${JSON.stringify({ format: 'fettle.kit-chance/1', ...answer }, null, 2)}\n`);
  return 0;
}
