import {
  type ExpectedOffset,
  expectedKey,
  type Family,
  type Fasteners,
  featureOf,
  firstToTry,
  GAUGE_MODES,
  type GaugeMode,
  type Instrument,
  type InstrumentRole,
  instrumentInUse,
  type JobDocument,
  knownInstrument,
  mainStations,
  type Nanometres,
  type Needle,
  namedFasteners,
  pinnedRods,
  placedRods,
  rodStations,
  type Strip,
  stationVerdict,
  type Trial,
  type TrialReading,
  trialState,
  type Warm,
} from '@fettle/core';
import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { newId } from '../base/newId.js';
import { useLatest } from '../base/useLatest.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { useNeedle } from '../measure/NeedleAsk.js';
import { useBy } from '../person/useBy.js';
import { useKeptChoice } from '../ui/useKeptChoice.js';
import { type StripPart, stripWith } from './stripWith.js';
import { newTrial, type TriedStation, trialOf } from './trialOf.js';

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
  /** Says that a reading that is far from the others is right. */
  readonly confirmReading: (reading: string) => void;
  /** The strip that was pressed at the open station; null where none was. */
  readonly strip: Strip | null;
  /** The diameter of the strip that was used last, to go on with. */
  readonly lastDiameter: Nanometres | null;
  /** Keeps a diameter, or a width (null takes it back), of the strip at the open station. */
  readonly setStrip: (part: StripPart) => void;
  readonly dropStrip: () => void;
  readonly confirm: (isConfirmed: boolean) => void;
  /** A new trial of the open station, with the halves that are accepted now; the one before stays as evidence. */
  readonly restart: () => void;
  readonly set: (part: Partial<Pick<JobDocument, 'trialSchool'>>) => void;
  /** Takes over what other engines let expect of a family and series, or drops it. */
  readonly expect: (family: Family, series: string, offset: Omit<ExpectedOffset, 'by' | 'at'> | null) => void;
  readonly setFasteners: (family: Family, part: Partial<Fasteners>) => void;
  /** Says which way the needle of the bore gauge goes. */
  readonly sayNeedle: (needle: Needle) => void;
  readonly setInstruments: (instruments: JobDocument['instruments']) => void;
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

/** What a reading with the shells in is taken with now: the gauge, and the temperatures of the bores and of the instruments. */
function takenWith(
  document: JobDocument,
  { station }: TriedStation,
): Pick<TrialReading, 'instrumentId' | 'celsius' | 'gaugeCelsius'> {
  const gauge = instrumentInUse(document, 'trials');
  const celsius = document.measuring.celsius[featureOf(station.family, 'housing')];
  return {
    ...(knownInstrument(document, gauge) ? { instrumentId: gauge } : {}),
    celsius,
    gaugeCelsius: celsius === null ? null : document.measuring.gaugeCelsius,
  };
}

/** The station to try first, and the one that is open: the one asked for, or else that. */
function openIn(document: JobDocument, stations: readonly TriedStation[], asked: string | null) {
  const withHalves = stations.flatMap(({ station, halves }) => (halves ? [station] : []));
  const first = document.choice ? firstToTry(document, withHalves) : null;
  const open =
    stations.find(({ station }) => station.id === (asked ?? first?.station)) ?? (stations[0] as TriedStation);
  return { first, open };
}

/** The reading that was taken last, and the diameter of the strip that was used last. */
function takenLast({ trials, strips }: JobDocument) {
  const last = Object.values(trials)
    .flatMap(({ readings }) => Object.values(readings))
    .reduce<TrialReading | null>((latest, one) => (latest === null || one.at > latest.at ? one : latest), null);
  const [strip] = Object.values(strips).sort((one, other) => (one.at < other.at ? 1 : -1));
  return { last, lastDiameter: strip?.diameter ?? null };
}

/** The trial assemblies of an engine, one station open: what is read with its shells in, and what that says. */
export function useTrial(job: OpenJob): TrialWork {
  const change = useChangeDocument(job);
  const by = useBy();
  const [search, setSearch] = useSearchParams();
  const sayNeedle = useNeedle(job, useLatest(job));
  const { document } = job;
  const { unit } = document;
  const stations = useMemo(() => setsOf(job), [job]);
  const { first, open } = openIn(document, stations, search.get('station'));
  const { id } = open.station;
  const { last, lastDiameter } = takenLast(document);
  const gauge = { of: job.id, part: 'trial', field: 'gauge' };
  const [mode, setMode, modeKept] = useKeptChoice<GaugeMode>(gauge, last?.mode ?? 'setting', GAUGE_MODES);
  const put = (trial: (old: JobDocument) => Trial | null | undefined, make: (old: Trial) => Trial, what: string) =>
    change((old) => {
      const found = trial(old);
      return found ? { ...old, trials: { ...old.trials, [id]: make(found) } } : old;
    }, what);
  const setTrial = (make: (old: Trial) => Trial, what: string) => put((old) => old.trials[id], make, what);
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
      const kept: TrialReading = { ...reading, ...takenWith(document, open), unit, by, at: new Date().toISOString() };
      put(
        (old) => trialOf(old, open, by, kept.at),
        (old) => ({ ...old, readings: { ...old.readings, [newId()]: kept } }),
        `reading at ${id}, shells in`,
      );
      modeKept(mode);
    },
    remove: (reading) => {
      // It is read again as it was.
      setMode(open.station.tried?.trial.readings[reading]?.mode ?? mode);
      setTrial((old) => {
        const { [reading]: _, ...readings } = old.readings;
        return { ...old, readings };
      }, `reading at ${id} removed`);
    },
    confirmReading: (reading) =>
      setTrial((old) => {
        const one = old.readings[reading];
        return one ? { ...old, readings: { ...old.readings, [reading]: { ...one, confirmed: true } } } : old;
      }, `reading at ${id} confirmed`),
    strip: document.strips[id] ?? null,
    lastDiameter,
    setStrip: (part) =>
      change((old) => {
        const stamp = { by, at: new Date().toISOString() };
        const strip = stripWith(old.strips[id] ?? null, part, lastDiameter, unit, stamp);
        return strip ? { ...old, strips: { ...old.strips, [id]: strip } } : old;
      }, `gauging strip at ${id}`),
    dropStrip: () =>
      change((old) => {
        const { [id]: _, ...strips } = old.strips;
        return { ...old, strips };
      }, `gauging strip at ${id}`),
    confirm: (isBelieved) => setTrial((old) => ({ ...old, isBelieved }), `confirmation at ${id}`),
    restart: () =>
      change((old) => {
        const trial = newTrial(old, open, by, new Date().toISOString());
        return trial ? { ...old, trials: { ...old.trials, [id]: trial } } : old;
      }, `trial of ${id}`),
    expect: (family, series, offset) =>
      change((old) => {
        const { [expectedKey(family, series)]: _, ...others } = old.expected;
        const stamp = { by, at: new Date().toISOString() };
        const expected = offset ? { ...others, [expectedKey(family, series)]: { ...offset, ...stamp } } : others;
        return { ...old, expected };
      }, `offset expected for ${series}`),
    set: (part) => change((old) => ({ ...old, ...part })),
    setFasteners: (family, part) =>
      change((old) => {
        const before = old.fasteners[family];
        const named = namedFasteners(before, part, new Date().toISOString());
        return named === before ? old : { ...old, fasteners: { ...old.fasteners, [family]: named } };
      }),
    setInstruments: (instruments) =>
      change((old) => ({ ...old, instruments }), 'starting uncertainties of the instruments'),
    setInstrument: (role, part) =>
      change((old) => ({
        ...old,
        instruments: { ...old.instruments, [role]: { ...old.instruments[role], ...part } },
      })),
    sayNeedle,
    setWarm: (part) => change((old) => ({ ...old, warm: { ...old.warm, ...part } })),
    setLeastChance: (leastChance) => change((old) => ({ ...old, rules: { ...old.rules, leastChance } })),
  };
}
