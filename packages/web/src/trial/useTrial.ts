import {
  type Family,
  type Fasteners,
  firstToTry,
  formatExactLength,
  GAUGE_MODES,
  type GaugeMode,
  INSTRUMENT_DECIMALS,
  type Instrument,
  type InstrumentRole,
  type JobDocument,
  type JobStation,
  mainStations,
  type Nanometres,
  pinnedRods,
  placedRods,
  rodStations,
  type StationVerdict,
  type Strip,
  type StripEnd,
  stationVerdict,
  type Trial,
  type TrialReading,
  type TrialState,
  trialState,
  type Warm,
} from '@fettle/core';
import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { newId } from '../app/newId.js';
import { useAppSelector } from '../app/store.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { useKeptChoice } from '../look/useKeptChoice.js';
import { NOBODY } from '../person/personSlice.js';

export interface TriedStation {
  readonly station: JobStation;
  readonly halves: NonNullable<JobDocument['choice']>['stations'][string] | null;
  readonly verdict: StationVerdict;
  readonly state: TrialState;
}

export interface TrialWork {
  readonly document: JobDocument;
  readonly stations: readonly TriedStation[];
  /** The one that is open. */
  readonly open: TriedStation;
  readonly show: (id: string) => void;
  /** The one to try first, while none was. */
  readonly first: ReturnType<typeof firstToTry>;
  readonly mode: GaugeMode;
  readonly setMode: (mode: GaugeMode) => void;
  /** The size that the gauge was last zeroed on. */
  readonly lastSetting: Nanometres | null;
  readonly add: (reading: Pick<TrialReading, 'text' | 'mode' | 'setting' | 'needle' | 'nm'>) => void;
  readonly remove: (reading: string) => void;
  /** The strip that was pressed at the open station; null where none was. */
  readonly strip: Strip | null;
  /** The diameter of the strip that was used last, to go on with. */
  readonly lastDiameter: Nanometres | null;
  /** Keeps a diameter, or a width (null takes it back), of the strip at the open station. */
  readonly setStrip: (part: { diameter: Nanometres } | Partial<Record<StripEnd, Nanometres | null>>) => void;
  readonly dropStrip: () => void;
  readonly believe: (isBelieved: boolean) => void;
  /** Forgets the trial of the open station: it is put together anew, with the halves that are accepted now. */
  readonly restart: () => void;
  readonly set: (part: Partial<Pick<JobDocument, 'trialSchool'>>) => void;
  readonly setFasteners: (family: Family, part: Partial<Fasteners>) => void;
  readonly setInstrument: (role: InstrumentRole, part: Partial<Instrument>) => void;
  readonly setWarm: (part: Partial<Warm>) => void;
  readonly setLeastChance: (least: number | null) => void;
}

function setsOf(job: OpenJob): TriedStation[] {
  const { document, readings } = job;
  const chosen = document.choice?.stations ?? {};
  const placed = { ...pinnedRods(document), ...placedRods(chosen) };
  return [...mainStations(document, readings), ...rodStations(document, readings, placed)].map((station) => {
    const halves = chosen[station.id] ?? null;
    return { station, halves, verdict: stationVerdict(document, station, halves), state: trialState(station.tried) };
  });
}

/** A trial of a station with the halves that are accepted for it; one that is there goes on. */
function trialOf(document: JobDocument, { station, halves }: TriedStation, by: string, at: string): Trial | null {
  const old = document.trials[station.id];
  if (old) return old;
  if (!halves) return null;
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
    readings: {},
    isBelieved: false,
    at,
    by,
  };
}

/** A strip of which no width was read. */
function blankStrip(diameter: Nanometres): Strip {
  return { diameter, name: '', widths: { front: null, rear: null }, by: '', at: '' };
}

/** The trial assemblies of an engine, one station open: what is read with its shells in, and what that says. */
export function useTrial(job: OpenJob): TrialWork {
  const change = useChangeDocument(job);
  const by = useAppSelector((state) => state.person.name) || NOBODY;
  const [search, setSearch] = useSearchParams();
  const { document } = job;
  const { unit } = document;
  const stations = useMemo(() => setsOf(job), [job]);
  const first = document.choice
    ? firstToTry(
        document,
        stations.flatMap(({ station, halves }) => (halves ? [station] : [])),
      )
    : null;
  const asked = search.get('station');
  const open =
    stations.find(({ station }) => station.id === (asked ?? first?.station)) ?? (stations[0] as TriedStation);
  const { id } = open.station;
  const last = Object.values(document.trials)
    .flatMap(({ readings }) => Object.values(readings))
    .reduce<TrialReading | null>((latest, one) => (latest === null || one.at > latest.at ? one : latest), null);
  const [{ diameter: lastDiameter } = { diameter: null }] = Object.values(document.strips).sort((one, other) =>
    one.at < other.at ? 1 : -1,
  );
  const gauge = { of: job.id, part: 'trial', field: 'gauge' };
  const [mode, setMode, modeKept] = useKeptChoice<GaugeMode>(gauge, last?.mode ?? 'setting', GAUGE_MODES);
  const setTrial = (make: (old: Trial) => Trial, what: string) =>
    change((old) => {
      const trial = trialOf(old, open, by, new Date().toISOString());
      return trial ? { ...old, trials: { ...old.trials, [id]: make(trial) } } : old;
    }, what);
  return {
    document,
    stations,
    open,
    show: (station) => setSearch({ station }, { replace: true }),
    first: Object.keys(document.trials).length === 0 ? first : null,
    mode,
    setMode,
    lastSetting: last?.setting ?? null,
    add: (reading) => {
      const kept: TrialReading = { ...reading, unit, by, at: new Date().toISOString() };
      setTrial((old) => ({ ...old, readings: { ...old.readings, [newId()]: kept } }), `reading at ${id}, shells in`);
      modeKept(mode);
    },
    remove: (reading) => {
      // It is read again as it was.
      setMode(open.station.tried?.trial.readings[reading]?.mode ?? mode);
      setTrial((old) => {
        const { [reading]: _, ...readings } = old.readings;
        return { ...old, readings };
      }, `reading at ${id} taken back`);
    },
    strip: document.strips[id] ?? null,
    lastDiameter,
    setStrip: (part) =>
      change((old) => {
        const before = old.strips[id] ?? (lastDiameter === null ? null : blankStrip(lastDiameter));
        const stamp = { by, at: new Date().toISOString() };
        if ('diameter' in part) {
          const strip = { ...(before ?? blankStrip(part.diameter)), diameter: part.diameter, ...stamp };
          return { ...old, strips: { ...old.strips, [id]: strip } };
        }
        if (!before) return old;
        const width = (end: StripEnd) => {
          const nm = part[end];
          if (nm === undefined) return before.widths[end];
          return nm === null ? null : { text: formatExactLength(nm, unit, INSTRUMENT_DECIMALS[unit]), unit, nm };
        };
        const strip = { ...before, widths: { front: width('front'), rear: width('rear') }, ...stamp };
        return { ...old, strips: { ...old.strips, [id]: strip } };
      }, `gauging strip at ${id}`),
    dropStrip: () =>
      change((old) => {
        const { [id]: _, ...strips } = old.strips;
        return { ...old, strips };
      }, `gauging strip at ${id}`),
    believe: (isBelieved) => setTrial((old) => ({ ...old, isBelieved }), `what was measured at ${id}`),
    restart: () =>
      change((old) => {
        const { [id]: _, ...trials } = old.trials;
        return { ...old, trials };
      }, `trial of ${id}`),
    set: (part) => change((old) => ({ ...old, ...part })),
    setFasteners: (family, part) =>
      change((old) => {
        const before = old.fasteners[family];
        // Choosing the same once more is no change of fasteners.
        if (Object.entries(part).every(([key, value]) => before[key as keyof Fasteners] === value)) return old;
        // What was never named is no change: what was read rests on the same.
        const isNamed =
          before.kind !== 'unknown' || before.name !== '' || before.torque !== '' || before.lubricant !== '';
        const since = isNamed ? new Date().toISOString() : before.since;
        return { ...old, fasteners: { ...old.fasteners, [family]: { ...before, ...part, since } } };
      }),
    setInstrument: (role, part) =>
      change((old) => ({
        ...old,
        instruments: { ...old.instruments, [role]: { ...old.instruments[role], ...part } },
      })),
    setWarm: (part) => change((old) => ({ ...old, warm: { ...old.warm, ...part } })),
    setLeastChance: (leastChance) => change((old) => ({ ...old, rules: { ...old.rules, leastChance } })),
  };
}
