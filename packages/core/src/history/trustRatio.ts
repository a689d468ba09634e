import { chiSquareQuantile } from '../measure/distributions.js';
import { INSTRUMENT_ROLES, type Instrument, type InstrumentRole, usualInstruments } from '../measure/instrument.js';
import { nanometres } from '../measure/nanometres.js';
import type { Unit } from '../measure/unit.js';

/** How far trials came off, in standard uncertainties that were stated. */
export interface Trust {
  /** Root mean square of difference over stated standard uncertainty; null of none. */
  readonly ratio: number | null;
  /** Engines that the trials are of. */
  readonly engines: number;
}

/** What that says of the uncertainties that an engine starts with. */
export interface TrustRatio {
  readonly ratio: number;
  /** Within which the true ratio is with a chance of 95 %. */
  readonly low: number;
  readonly high: number;
  /** What to multiply starting uncertainties by; 1 where they are as good as they say. */
  readonly factor: number;
}

/** With fewer engines nothing is proposed. A setting of ours. */
const LEAST_ENGINES = 8;
/** A factor is told, and proposed, to this. */
const STEP = 0.05;
/** Further than this no figures of a workshop are moved at once. */
const MOST = 3;

/**
 * Whether trials came as far off as was stated. The interval is that of a standard deviation (chi-square; NIST/SEMATECH handbook, 7.2.3), with one degree
 * of freedom for each engine and not for each trial: trials of one engine share their errors. Wider is proposed by the ratio found; narrower only as far
 * as the upper end of the interval.
 *
 * @returns null with too few engines
 */
export function trustRatio({ ratio, engines }: Trust): TrustRatio | null {
  if (ratio === null || engines < LEAST_ENGINES) return null;
  const low = ratio * Math.sqrt(engines / chiSquareQuantile(0.975, engines));
  const high = ratio * Math.sqrt(engines / chiSquareQuantile(0.025, engines));
  const wanted = low > 1 ? ratio : high < 1 ? high : 1;
  const factor = Math.min(MOST, Math.max(STEP, Math.ceil(Math.round((wanted / STEP) * 1e6) / 1e6) * STEP));
  return { ratio, low, high, factor: Number(factor.toFixed(2)) };
}

type Instruments = Readonly<Record<InstrumentRole, Instrument>>;
const WIDENED = ['setting', 'repeatability', 'operator'] as const;

/**
 * The instruments of an engine with those that are still as every engine starts widened, or narrowed, by a factor: setting, repeatability and operator; the
 * resolution is the instrument's own.
 *
 * @returns null where none is as it started
 */
export function startedWith(instruments: Instruments, unit: Unit, factor: number): Instruments | null {
  const usual = usualInstruments(unit);
  const started = INSTRUMENT_ROLES.filter((role) =>
    WIDENED.every((field) => instruments[role][field] === usual[role][field]),
  );
  if (started.length === 0) return null;
  const next: Record<InstrumentRole, Instrument> = { ...instruments };
  for (const role of started) {
    const widened = WIDENED.map((field) => [field, nanometres(Math.round((usual[role][field] * factor) / 10) * 10)]);
    next[role] = { ...instruments[role], ...Object.fromEntries(widened) };
  }
  return next;
}
