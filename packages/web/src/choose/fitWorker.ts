import { type DocumentFault, type FitPlan, type FitRequestInput, fit, readFitRequest } from '@fettle/core';
import { expose } from 'comlink';

export type FitAnswer =
  | { readonly ok: true; readonly plan: FitPlan }
  | { readonly ok: false; readonly faults: readonly DocumentFault[] };

const search = {
  /** Solves a fit request off the page's main thread. */
  solve(input: FitRequestInput): FitAnswer {
    const read = readFitRequest(input);
    return read.ok ? { ok: true, plan: fit(read.request) } : { ok: false, faults: read.faults };
  },
};
export type FitSearch = typeof search;

expose(search);
