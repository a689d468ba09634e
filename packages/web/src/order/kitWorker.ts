import type { KitQuestion } from '@fettle/core';
import { type KitAdvice, type KitProgress, kitAdvice, loadIntegerSolver, seeded } from '@fettle/core';
import { expose } from 'comlink';
import wasm from 'highs/runtime?url';

const clock = () => performance.now();
/** Advice that takes longer is given up, seconds: the page says so. */
const LONGEST_S = 120;

/** Works out what to order, off the page's main thread. */
const advisor = {
  advise: async (
    question: KitQuestion,
    target: number,
    onKitProgress: (progress: KitProgress) => void,
  ): Promise<KitAdvice | null> => {
    const limits = { solver: await loadIntegerSolver(wasm), clock, until: clock() + 1000 * LONGEST_S };
    return kitAdvice(question, target, seeded(question.seed), { ...limits, onKitProgress });
  },
};
export type KitAdvisor = typeof advisor;

expose(advisor);
