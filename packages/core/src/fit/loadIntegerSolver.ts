import { type IntegerSolver, integerSolverOf } from './integerSolver.js';
import { SHARED_FROM } from './leastChoice.js';

/** Whether a request is so large that its search may want an integer solver to prove its plan. */
export function wantsIntegerSolver(request: { readonly stations: readonly unknown[] }): boolean {
  return request.stations.length >= SHARED_FROM;
}

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
