import { type DocumentFault, type FitPlan, type FitRequestInput, fit, readFitRequest } from '@fettle/core';
import { expose } from 'comlink';

export type FitAnswer =
  | { readonly ok: true; readonly plan: FitPlan }
  | { readonly ok: false; readonly faults: readonly DocumentFault[] };

/** After so long the best choice found is shown, with its bound. */
const SEARCH_S = 15;

const search = {
  /** Solves a fit request off the page's main thread. */
  solve(input: FitRequestInput): FitAnswer {
    const read = readFitRequest(input);
    const end = performance.now() + 1000 * SEARCH_S;
    return read.ok
      ? { ok: true, plan: fit(read.request, { isStopped: () => performance.now() > end }) }
      : { ok: false, faults: read.faults };
  },
};
export type FitSearch = typeof search;

expose(search);
