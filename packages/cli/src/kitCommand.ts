import { kitAdvice, kitChance, loadIntegerSolver, readKitQuestion, seeded } from '@fettle/core';
import type { CommandStreams } from './planCommand.js';
import { faultLine, readInput } from './readInput.js';

/**
 * Answers how likely a kit of halves covers an engine that is known by its bands only, or which kit covers it with a chance asked for.
 *
 * @param target chance asked for, above 0 and up to 1; null tells the chance of the kit in the question
 * @returns the exit status: 0 answered, 2 the question is not valid, 3 stopped, or the chance asked for cannot be reached
 */
export async function kitCommand(
  text: string,
  target: number | null,
  seconds: number,
  { write, complain, tell }: CommandStreams,
): Promise<number> {
  const read = readInput(text, readKitQuestion);
  if (!read.ok) {
    for (const fault of read.faults) complain(faultLine(fault, 'question'));
    return 2;
  }
  const { question } = read;
  const clock = () => performance.now();
  const limits = { solver: await loadIntegerSolver(), clock, until: clock() + 1000 * seconds };
  if (target !== null) {
    const advice = kitAdvice(question, target, seeded(question.seed), {
      ...limits,
      ...(tell ? { onKitProgress: ({ stage, done }) => tell(`${stage} ${Math.round(100 * done)} %\n`) } : {}),
    });
    if (!advice) {
      complain(`fettle: stopped after ${seconds} seconds. Allow more time, or fewer engines.\n`);
      return 3;
    }
    write(`${JSON.stringify({ format: 'fettle.kit-advice/1', ...advice }, null, 2)}\n`);
    return advice.isReached ? 0 : 3;
  }
  const answer = kitChance(question, seeded(question.seed), {
    ...limits,
    ...(tell ? { onEngines: (engines) => tell(`${engines} of ${question.engines} engines simulated`) } : {}),
  });
  write(`${JSON.stringify({ format: 'fettle.kit-chance/1', ...answer }, null, 2)}\n`);
  return 0;
}
