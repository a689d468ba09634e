import {
  type Alternative,
  alternativesAt,
  type DocumentFault,
  type FitOptions,
  type FitPlan,
  type FitProgress,
  type FitRequest,
  type FitRequestInput,
  fit,
  loadIntegerSolver,
  type Placement,
  type PlanVariants,
  placementsOf,
  planVariants,
  readFitRequest,
  type SetSaving,
  setSavings,
  wantsIntegerSolver,
} from '@fettle/core';
import { expose } from 'comlink';
import wasm from 'highs/runtime?url';

export type FitAnswer<Result> =
  | { readonly ok: true; readonly result: Result }
  | { readonly ok: false; readonly faults: readonly DocumentFault[] };

/** After so long the best choice found is shown, with its bound. */
const SEARCH_S = 15;

async function answered<Result>(
  input: FitRequestInput,
  work: (request: FitRequest, options: FitOptions) => Result,
): Promise<FitAnswer<Result>> {
  const read = readFitRequest(input);
  if (!read.ok) return read;
  const solver = wantsIntegerSolver(read.request) ? await loadIntegerSolver(wasm) : null;
  const end = performance.now() + 1000 * SEARCH_S;
  return { ok: true, result: work(read.request, { solver, isStopped: () => performance.now() > end }) };
}

/** Everything that is searched for off the page's main thread. */
const search = {
  solve: (input: FitRequestInput, onProgress: (progress: FitProgress) => void): Promise<FitAnswer<FitPlan>> =>
    answered(input, (request, options) => fit(request, { ...options, prices: true, onProgress })),
  alternatives: (input: FitRequestInput, station: string): Promise<FitAnswer<Alternative[]>> =>
    answered(input, (request, options) => alternativesAt(request, station, options)),
  placements: (input: FitRequestInput): Promise<FitAnswer<Placement[]>> =>
    answered(input, (request, options) => placementsOf(request, { engine: '', family: 'rod' }, options)),
  setSavings: (input: FitRequestInput, cost: number): Promise<FitAnswer<SetSaving[]>> =>
    answered(input, (request, options) => setSavings(request, cost, options)),
  variants: (input: FitRequestInput): Promise<FitAnswer<PlanVariants>> =>
    answered(input, (request, options) => planVariants(request, options)),
};
export type FitSearch = typeof search;

expose(search);
