import { calibrationOn, dueAfter, errorAt, type KnownError } from '../instrument/calibration.js';
import { instrumentKind } from '../instrument/instrumentKinds.js';
import type { KnownInstrument } from '../instrument/knownInstrument.js';
import { asInstrument, instrumentName } from '../instrument/registeredInstrument.js';
import { type DriftSpan, driftedBy, driftSpans, suspectSpan } from '../instrument/zeroCheck.js';
import { INSTRUMENT_ROLES, INSTRUMENT_WORDS, type Instrument, type InstrumentRole } from '../measure/instrument.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Reading } from '../part/reading.js';
import type { InstrumentsMembers } from './instrumentsPart.js';
import { INSTRUMENT_USES, type InstrumentUse, roleOfUse } from './instrumentUses.js';

/** The instruments of an engine: its own, and those of the workshop that it is read with. */
export type InstrumentsJob = Pick<InstrumentsMembers, 'instruments' | 'registered' | 'using' | 'drifts' | 'warm'>;

/** What an instrument is known by in an engine: its id in the register, or the role of the engine's own one. */
export type InstrumentKey = string;

function isRole(key: InstrumentKey): key is InstrumentRole {
  return INSTRUMENT_ROLES.some((role) => role === key);
}

/** A workshop instrument of an engine; null for the engine's own, or one that it does not know. */
export function knownInstrument(
  { registered }: Pick<InstrumentsJob, 'registered'>,
  key: InstrumentKey,
): KnownInstrument | null {
  return Object.hasOwn(registered, key) ? registered[key]! : null;
}

/** What something is read with now. */
export function instrumentInUse(job: Pick<InstrumentsJob, 'registered' | 'using'>, use: InstrumentUse): InstrumentKey {
  const id = job.using[use];
  return id !== undefined && knownInstrument(job, id) !== null ? id : roleOfUse(use);
}

/**
 * An instrument of an engine with what it is known to.
 *
 * @throws RangeError for one that the engine does not know
 */
export function instrumentByKey(
  job: Pick<InstrumentsJob, 'instruments' | 'registered'>,
  key: InstrumentKey,
): Instrument {
  const known = knownInstrument(job, key);
  if (known) return asInstrument(known.instrument, known.calibrations);
  if (isRole(key)) return job.instruments[key];
  throw new RangeError(`The engine has no instrument ${key}.`);
}

/** True if an engine reads something with an instrument of its own of a role. */
export function usesOwn(job: Pick<InstrumentsJob, 'registered' | 'using'>, role: InstrumentRole): boolean {
  return INSTRUMENT_USES.some((use) => instrumentInUse(job, use) === role);
}

/** What something is read with now, with what it is known to. */
export function instrumentFor(
  job: Pick<InstrumentsJob, 'instruments' | 'registered' | 'using'>,
  use: InstrumentUse,
): Instrument {
  return instrumentByKey(job, instrumentInUse(job, use));
}

/**
 * What an instrument of an engine is called: `bore gauge`, or `bore gauge 3`.
 *
 * @example instrumentWords({ registered: {} }, 'boreGauge') // 'bore gauge'
 */
export function instrumentWords(job: Pick<InstrumentsJob, 'registered'>, key: InstrumentKey): string {
  const known = knownInstrument(job, key);
  return known ? instrumentName(known.instrument) : INSTRUMENT_WORDS[key as InstrumentRole];
}

/** What a reading was taken with: the instrument that it names, or the engine's own of its kind. */
export function readWith(
  job: Pick<InstrumentsJob, 'registered'>,
  { feature, taken }: Pick<Reading, 'feature' | 'taken'>,
): InstrumentKey {
  const id = taken?.instrumentId;
  return id !== undefined && knownInstrument(job, id) !== null ? id : roleOfUse(feature);
}

/** What is known of the instrument of a reading at the moment when it was read. */
export interface InstrumentThen {
  readonly key: InstrumentKey;
  /** What it showed too much at that size, by the calibration that was valid; null for an instrument without a register entry. */
  readonly error: KnownError | null;
  /** The day of that calibration; null: none was. */
  readonly calibratedOn: string | null;
  /** The day on which that calibration had run out by then; null: it had not. */
  readonly overdueSince: string | null;
  /** Why that calibration is not to be trusted; null where nobody said so. */
  readonly wrong: string | null;
  /** The span between two zero checks in which it moved by more than is allowed; null: none. */
  readonly span: DriftSpan | null;
  /** What was decided about that span; null where nothing was. */
  readonly decided: { readonly isCorrected: boolean } | null;
}

const ofOwn = (key: InstrumentRole): InstrumentThen => ({
  key,
  error: null,
  calibratedOn: null,
  overdueSince: null,
  wrong: null,
  span: null,
  decided: null,
});
/** Of an instrument of the engine’s own nothing more is known, whenever it read. */
const OWN: Readonly<Record<InstrumentRole, InstrumentThen>> = {
  boreGauge: ofOwn('boreGauge'),
  micrometer: ofOwn('micrometer'),
  ballMicrometer: ofOwn('ballMicrometer'),
};

/** What an instrument was asked for: a size, and the travel of its needle from what it was set on. */
export interface Asked {
  /** Null for a reading that is no size. */
  readonly size: Nanometres | null;
  /** Null where that is not known. */
  readonly travel: Nanometres | null;
  /** The moment, ISO 8601. */
  readonly at: string;
}

/**
 * What is known of the instrument of a reading at the moment when it was read: the calibration that was valid then, and the zero checks
 * before and after it.
 */
export function instrumentThen(
  job: Pick<InstrumentsJob, 'registered' | 'drifts'>,
  reading: Pick<Reading, 'feature' | 'taken' | 'nm' | 'setting' | 'at'>,
): InstrumentThen {
  const { nm, setting, at } = reading;
  const travel = nm === null || setting === null ? null : nanometres(nm - setting);
  return instrumentAt(job, readWith(job, reading), { size: nm, travel, at });
}

/** What is known of an instrument of an engine at a moment, at the size and travel that it was asked for. */
export function instrumentAt(
  job: Pick<InstrumentsJob, 'registered' | 'drifts'>,
  key: InstrumentKey,
  asked: Asked,
): InstrumentThen {
  const { at } = asked;
  const known = knownInstrument(job, key);
  if (!known) return OWN[key as InstrumentRole];
  const { instrument, calibrations, checks } = known;
  const calibration = calibrationOn(calibrations, at);
  const due = calibration && dueAfter(calibration, instrument.calibrateAfterMonths);
  const span = suspectSpan(driftSpans(checks), at, instrument.drift);
  const decision = span && Object.hasOwn(job.drifts, span.to.id) ? job.drifts[span.to.id]! : null;
  return {
    key,
    error:
      calibration === null || calibration.wrong !== null ? { kind: 'none' } : errorOf(known, calibration.points, asked),
    calibratedOn: calibration?.on ?? null,
    overdueSince: due !== null && due < at.slice(0, 10) ? due : null,
    wrong: calibration?.wrong?.reason ?? null,
    span,
    decided: decision && { isCorrected: decision.isCorrected },
  };
}

/** A micrometer is calibrated by size; a dial by its travel from the size that it was set on. */
function errorOf(
  { instrument }: KnownInstrument,
  points: KnownInstrument['calibrations'][number]['points'],
  { size, travel }: Asked,
): KnownError {
  if (size === null) return { kind: 'none' };
  if (!instrumentKind(instrument.kind).compares) return errorAt(points, size);
  return travel === null ? { kind: 'none' } : errorAt(points, travel);
}

/**
 * What an instrument had drifted by when a reading was taken, nm, where the fitter had it corrected; else 0.
 *
 * @example driftCorrected({ span: null, decided: null }, { at: '2026-01-02T03:04:05.000Z' }) // 0
 */
export function driftCorrected({ span, decided }: InstrumentThen, { at }: Pick<Reading, 'at'>): number {
  return span && decided?.isCorrected ? driftedBy(span, at) : 0;
}

/** True if nothing was decided yet about a reading that was taken while its instrument moved. */
export function isAdrift({ span, decided }: InstrumentThen): boolean {
  return span !== null && decided === null;
}
