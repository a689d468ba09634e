import {
  featureOf,
  type JobDocument,
  type JobStation,
  type StationVerdict,
  type Trial,
  type TrialState,
} from '@fettle/core';

/** A station with the halves that are accepted for it, its verdict and how far its trial is. */
export interface TriedStation {
  readonly station: JobStation;
  readonly halves: NonNullable<JobDocument['choice']>['stations'][string] | null;
  readonly verdict: StationVerdict;
  readonly state: TrialState;
}

/** Trials of one station that are kept beside the one that stands. */
const MOST_EARLIER = 20;

/** A new trial of a station with the halves that are accepted for it; the ones before stay as evidence. Null without halves. */
export function newTrial(
  document: JobDocument,
  { station, halves }: TriedStation,
  by: string,
  at: string,
): Trial | null {
  if (!halves) return null;
  const { earlier = [], ...old } = document.trials[station.id] ?? {};
  const before = 'readings' in old && Object.keys(old.readings).length > 0 ? [...earlier, old] : earlier;
  const { kind, name, lubricant, torque } = document.fasteners[station.family];
  const sized = featureOf(station.family, 'housing');
  const half = ({ shell, label, wall }: typeof halves.upper) => ({
    shell,
    label,
    wall,
    series: document.shells[shell]?.series ?? '',
  });
  return {
    upper: half(halves.upper),
    lower: half(halves.lower),
    rod: station.rod,
    madeOf: {
      bore: station.bore?.nominal ?? null,
      journal: station.journal?.nominal ?? null,
      fasteners: { kind, name, lubricant, torque },
      celsius: document.measuring.celsius[sized],
      gaugeCelsius: document.measuring.gaugeCelsius,
    },
    readings: {},
    isBelieved: false,
    at,
    by,
    ...(before.length > 0 ? { earlier: before.slice(-MOST_EARLIER) } : {}),
  };
}

/** The trial of a station that readings go to: the one that stands, while its parts are the ones that are there; else a new one. */
export function trialOf(document: JobDocument, one: TriedStation, by: string, at: string): Trial | null {
  const { tried } = one.station;
  const old = document.trials[one.station.id];
  const isOfOthers = tried !== null && (tried.changed !== null || tried.isVoid !== null);
  return old && !(isOfOthers && one.halves !== null) ? old : newTrial(document, one, by, at);
}
