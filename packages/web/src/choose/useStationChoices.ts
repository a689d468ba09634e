import type { AcceptedChoice, Alternative, JobFit, JobStation } from '@fettle/core';
import { resultOf } from './fitSearch.js';
import { useAsked } from './useAsked.js';
import type { JobPlan } from './useJobPlan.js';

export interface StationChoices {
  /** What the whole would cost with a pair here, the rest adapted; null while it is not known, Infinity when nothing fits then. */
  readonly costWith: (upper: string, lower: string) => number | null;
  /** The least that the whole can cost; null while it is not known. */
  readonly least: number | null;
  /** The best of what is not chosen here, by the job's own shells and its rod. */
  readonly nextBest: {
    readonly upper: string;
    readonly lower: string;
    readonly rod: number | null;
    readonly cost: number;
  } | null;
}

/** What else could go to a station, and what that would cost the others, worked out beside the plan. */
export function useStationChoices(
  station: JobStation,
  halves: AcceptedChoice['stations'][string] | null,
  { asked, plan }: JobPlan,
): StationChoices {
  const isAsked = asked.ok && plan !== null && asked.request.stations.some(({ id }) => id === station.id);
  const { result } = useAsked(
    isAsked ? asked.request : null,
    async (search) => resultOf(await search.alternatives((asked as JobFit & { ok: true }).request, station.id)),
    station.id,
  );
  const isRod = station.family === 'rod';
  const ways = (result ?? []).map((one: Alternative) => ({
    ...one,
    upper: asked.ok ? (asked.shellIds.get(one.upper) ?? one.upper) : one.upper,
    lower: asked.ok ? (asked.shellIds.get(one.lower) ?? one.lower) : one.lower,
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
    costWith: (upper, lower) => {
      const known = ways.filter((one) => one.isKnown && one.upper === upper && one.lower === lower && isRodOf(one));
      return known.length > 0 ? Math.min(...known.map(({ cost }) => cost ?? Number.POSITIVE_INFINITY)) : null;
    },
    least: ways[0]?.cost ?? null,
    nextBest:
      other && other.cost !== null
        ? { upper: other.upper, lower: other.lower, rod: other.rod, cost: other.cost }
        : null,
  };
}
