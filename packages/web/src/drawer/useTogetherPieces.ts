import { acceptedForJobs, type JobsShimPlan, type JobView, jobsPieces, type PieceLine } from '@fettle/core';
import { useMemo, useState } from 'react';
import { useAppDispatch } from '../base/store.js';
import { useSame } from '../base/useSame.js';
import { resultOf } from '../fit/fitSearch.js';
import { useAsked } from '../fit/useAsked.js';
import { useBy } from '../person/useBy.js';
import { jobArrived } from '../saving/savingSlice.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';

/** What the pieces of a plan cost, where all of them have a price; null where one has none. */
function priceOf(
  plan: JobsShimPlan,
  lines: ReadonlyMap<string, ReadonlyMap<string, string>>,
  shelf: readonly PieceLine[],
) {
  let sum = 0;
  for (const [job, { chosen }] of plan.choices) {
    for (const { id, count } of chosen) {
      const line = lines.get(job)?.get(id);
      if (line === undefined) continue;
      const price = shelf.find((one) => one.id === line)?.piece.price ?? null;
      if (price === null) return null;
      sum += count * price;
    }
  }
  return sum;
}

/**
 * One plan of washers and rings for several engines from one shelf, engines left out by hand, and its acceptance.
 *
 * @param onAccepted - looks the engines up again, whether all of them were taken or none
 */
export function useTogetherPieces(
  engines: readonly JobView[],
  shelf: readonly PieceLine[],
  onAccepted: () => Promise<void>,
) {
  const dispatch = useAppDispatch();
  const by = useBy();
  const [accepted, setAccepted] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const pieces = useMemo(
    () =>
      jobsPieces(
        engines.filter(({ id }) => !left.has(id)),
        shelf,
      ),
    [engines, shelf, left],
  );
  const question = useSame(pieces.engines.length === 0 ? null : pieces.question);
  const { result: plan, fault: searchFault } = useAsked(question, async (search) =>
    resultOf(await search.jobsShims(question!)),
  );
  const asked = pieces.engines.map(({ job: { id, document } }) => ({ id, name: document.name, unit: document.unit }));
  const lines = new Map(pieces.engines.map(({ job, lines: own }) => [job.id, new Map(own)]));
  const served = pieces.engines.filter(({ job }) => plan?.choices.has(job.id));
  const accept = async () => {
    if (!plan || plan.cost === null) return;
    setFault(null);
    const at = new Date().toISOString();
    const taken = served.map((one) => ({
      id: one.job.id,
      version: engines.find(({ id }) => id === one.job.id)!.version,
      endPlay: acceptedForJobs(one, plan.choices.get(one.job.id)!, { at, by }),
    }));
    try {
      for (const view of await tell('acceptTogether', { body: { by, jobs: taken } })) dispatch(jobArrived(view));
      setAccepted(
        `Washers and shims of ${taken.length === 1 ? 'one engine' : `${taken.length} engines`} accepted and reserved.`,
      );
    } catch (error) {
      setFault(`${refusalInWords(error)} Nothing was accepted.`);
    }
    await onAccepted();
  };
  return {
    /** The engines that were asked about, in the order of the list. */
    asked,
    /** The plan of least cost; null while it is searched for. */
    plan,
    /** How many engines the plan serves. */
    served: served.length,
    /** What its pieces cost; null where one has no price. */
    price: plan && priceOf(plan, lines, shelf),
    nameOf: (id: string) => asked.find((one) => one.id === id)?.name ?? id,
    areSomeLeftOut: left.size > 0,
    leaveOut: (id: string) => setLeft(new Set([...left, id])),
    includeAll: () => setLeft(new Set()),
    accept,
    /** What was accepted last, in a sentence. */
    accepted,
    fault: fault ?? searchFault,
  };
}

/** A plan of washers and rings for several engines, with what can be done about it. */
export type PiecesTogether = ReturnType<typeof useTogetherPieces>;
