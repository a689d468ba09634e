import { type AcceptedChoice, type Alternative, FAMILY_TABLE, type JobFit, type JobStation } from '@fettle/core';
import { useAsked } from '../fit/useAsked.js';
import type { JobPlan } from '../fit/useJobPlan.js';

export interface StationChoices {
  /** How far all stations are off target on average with a pair here, the rest adapted, nm; null: not known, Infinity: nothing fits then. */
  readonly meanOffWith: (upper: string, lower: string) => number | null;
  /** The same for the best selection; null while it is not known. */
  readonly best: number | null;
  /** The best of what is not chosen here, by the job's own shells and its rod. */
  readonly nextBest: {
    readonly upper: string;
    readonly lower: string;
    readonly rod: number | null;
    readonly meanOff: number;
  } | null;
}

/** What else could go to a station, and what that would cost the others, worked out beside the plan. */
export function useStationChoices(
  station: JobStation,
  halves: AcceptedChoice['stations'][string] | null,
  { asked, plan }: JobPlan,
): StationChoices {
  const isAsked = asked.ok && plan !== null && asked.problem.stations.some(({ id }) => id === station.id);
  const { result } = useAsked(
    isAsked ? asked.problem : null,
    (search) => search.alternatives((asked as JobFit & { ok: true }).problem, station.id),
    station.id,
  );
  const isRod = FAMILY_TABLE[station.family].housingsMove;
  const ways = (result ?? []).map((one: Alternative) => ({
    ...one,
    rod: asked.ok ? (asked.rodNumbers.get(one.housing) ?? null) : null,
  }));
  const isRodOf = ({ rod }: { rod: number | null }) => !isRod || rod === station.rod;
  const other = ways.find(
    (one) =>
      one.cost !== null &&
      halves !== null &&
      (one.upper !== halves.upper.shell || one.lower !== halves.lower.shell || !isRodOf(one)),
  );
  return {
    meanOffWith: (upper, lower) => {
      // Ways come the cheapest first: of those with one pair the first is what the search would take.
      const way = ways.find((one) => one.isKnown && one.upper === upper && one.lower === lower && isRodOf(one));
      return way ? (way.meanOff ?? Number.POSITIVE_INFINITY) : null;
    },
    best: ways[0]?.meanOff ?? null,
    nextBest:
      other && other.meanOff !== null
        ? { upper: other.upper, lower: other.lower, rod: other.rod, meanOff: other.meanOff }
        : null,
  };
}
