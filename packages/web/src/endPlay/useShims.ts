import type { PieceAsk, ShimPlan } from '@fettle/core';
import { useSame } from '../base/useSame.js';
import { resultOf } from '../fit/fitSearch.js';
import type { ShimAnswer } from '../fit/fitWorker.js';
import { useAsked } from '../fit/useAsked.js';

/** Maximum next best choices shown. */
const SHOWN = 12;

export interface Shims {
  readonly plan: ShimPlan | null;
  /** What the pieces on hand give, the least cost first; inside the limits or not. */
  readonly choices: ShimAnswer['choices'];
  readonly fault: string | null;
}

/** The best pieces for what is asked, searched beside the page; nothing while it cannot be asked. */
export function useShims(asked: PieceAsk): Shims {
  // The same question is the same object, however often the engine is looked up.
  const request = useSame(asked.ok ? asked.request : null);
  const { result, fault } = useAsked(request, async (search) => resultOf(await search.shims(request!, SHOWN)));
  return { plan: result?.plan ?? null, choices: result?.choices ?? [], fault };
}
