import type { IntegerSolver } from './choiceLimits.js';
import { integerSolverOf } from './integerSolver.js';

const loaded = new Map<string | undefined, Promise<IntegerSolver>>();

/**
 * Loads HiGHS, a general-purpose solver in WebAssembly (npm `highs`), once.
 *
 * @param wasm where its WebAssembly file is, where it cannot find that out itself: in a browser
 * @throws when the file cannot be read or compiled
 */
export function loadIntegerSolver(wasm?: string): Promise<IntegerSolver> {
  const known = loaded.get(wasm);
  if (known) return known;
  const loading = import('highs').then(async (module) => {
    const load = module.default as unknown as typeof module.default.default;
    return integerSolverOf(await load(wasm === undefined ? {} : { locateFile: () => wasm }));
  });
  loaded.set(wasm, loading);
  return loading;
}

class SolverWanted extends Error {}

const WANTED: IntegerSolver = () => {
  throw new SolverWanted();
};

/**
 * Runs a search with the integer solver, which is loaded when it is first needed: most searches never need it.
 *
 * @param work what to run; where the solver turns out to be needed it is run once more, with it
 */
export async function withSolverIfNeeded<Answer>(work: (solver: IntegerSolver) => Answer): Promise<Answer> {
  const ready = loaded.get(undefined);
  if (ready) return work(await ready);
  try {
    return work(WANTED);
  } catch (error) {
    if (!(error instanceof SolverWanted)) throw error;
    return work(await loadIntegerSolver());
  }
}
