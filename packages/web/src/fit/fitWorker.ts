import type {
  ClearanceDraw,
  DocumentFault,
  FitProblem,
  FitSolution,
  ShimChoice,
  ShimPlan,
  ShimRequestInput,
  Simulated,
} from '@fettle/core';
import {
  type Alternative,
  alternativesAt,
  drawnClearance,
  type ExpectedReading,
  type FitOptions,
  type FitProgress,
  fit,
  type JobsPiecesQuestion,
  type JobsShimPart,
  type JobsShimPlan,
  jobsShims,
  type OneLengthRequest,
  type PieceOrder,
  type Placement,
  type PlanVariants,
  pieceOrder,
  placementsOf,
  planVariants,
  readShimRequest,
  readySearch,
  type SetSavings,
  setSavings,
  shimChoices,
  shims,
} from '@fettle/core';
import { expose } from 'comlink';
import wasm from 'highs/runtime?url';

export type FitAnswer<Result> =
  | { readonly ok: true; readonly result: Result }
  | { readonly ok: false; readonly faults: readonly DocumentFault[] };

export interface ShimAnswer {
  readonly plan: ShimPlan;
  readonly choices: readonly ShimChoice[];
}

/** After so long the answer is what was found till then, seconds; who wants more asks for more. */
const SEARCH_S = 15;

const clock = () => performance.now();
/** Loaded and run once from when the worker starts, so that no search waits for it. */
const ready = readySearch(clock, wasm);

/** What a search may take, from when it begins. */
async function limits(seconds = SEARCH_S): Promise<FitOptions> {
  const solver = await ready;
  return { solver, clock, until: clock() + 1000 * seconds };
}

/** Everything that is searched for off the page's main thread. */
const search = {
  solve: async (
    problem: FitProblem,
    onProgress: (progress: FitProgress) => void,
    seconds?: number,
  ): Promise<FitSolution> => fit(problem, { ...(await limits(seconds)), prices: true, onProgress }),
  alternatives: async (problem: FitProblem, station: string): Promise<Alternative[]> =>
    alternativesAt(problem, station, await limits()),
  placements: async (problem: FitProblem): Promise<Placement[]> =>
    placementsOf(problem, { engine: '', family: 'rod' }, await limits()),
  setSavings: async (problem: FitProblem, cost: number): Promise<SetSavings> =>
    setSavings(problem, cost, await limits()),
  variants: async (problem: FitProblem): Promise<PlanVariants> => planVariants(problem, await limits()),
  /** Which pieces should be on the shelf for a reading that is not taken yet. */
  pieceOrder: async (
    input: ShimRequestInput,
    expected: ExpectedReading,
    target: number,
    prices: Readonly<Record<string, number>>,
  ): Promise<FitAnswer<PieceOrder>> => {
    const read = readShimRequest(input);
    if (!read.ok) return read;
    return { ok: true, result: pieceOrder(read.request as OneLengthRequest, expected, target, prices) };
  },
  /** The best pieces for several engines that draw on one shelf. */
  jobsShims: async ({ parts, stock }: JobsPiecesQuestion): Promise<FitAnswer<JobsShimPlan>> => {
    const read: JobsShimPart[] = [];
    for (const { key, request: input, lines } of parts) {
      const one = readShimRequest(input);
      if (!one.ok) return one;
      read.push({ key, request: one.request, lines: new Map(lines) });
    }
    return { ok: true, result: jobsShims(read, new Map(stock)) };
  },
  /** A predicted clearance, drawn so many times. */
  drawn: async (draw: ClearanceDraw, draws: number, seed: number): Promise<Simulated> =>
    drawnClearance(draw, draws, seed),
  /** The best pieces for a gap, and the next best of what the pieces on hand give. */
  shims: async (input: ShimRequestInput, most: number): Promise<FitAnswer<ShimAnswer>> => {
    const read = readShimRequest(input);
    if (!read.ok) return read;
    return { ok: true, result: { plan: shims(read.request), choices: shimChoices(read.request, most) } };
  },
};
export type FitSearch = typeof search;

expose(search);
