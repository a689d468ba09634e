import { type KitAdvice, type KitProgress, type KitQuestion, kitAdvice, seeded } from '@fettle/core';
import { expose } from 'comlink';

/** Works out what to order, off the page's main thread. */
const advisor = {
  advise: (question: KitQuestion, target: number, onKitProgress: (progress: KitProgress) => void): KitAdvice | null =>
    kitAdvice(question, target, seeded(question.seed), { onKitProgress }),
};
export type KitAdvisor = typeof advisor;

expose(advisor);
