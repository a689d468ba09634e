import { chiSquareQuantile, fQuantile, fTail } from '../measure/distributions.js';
import { meanOf, squaresOf } from '../measure/mean.js';

/** One reading of a study. */
export interface StudyReading {
  readonly part: string;
  readonly person: string;
  /** Which of the person's readings of the part it is. */
  readonly trial: string;
  readonly value: number;
}

/** What keeps a study from being worked out. */
export type StudyFault =
  | { readonly kind: 'few-parts' | 'few-people' | 'few-trials' }
  /** A person did not read a part as often as the others did; or two readings are told as one. */
  | { readonly kind: 'missing' | 'twice'; readonly part: string; readonly person: string; readonly trial: string };

/** A crossed study: every person reads every part equally often. */
export interface Study {
  readonly parts: readonly string[];
  readonly people: readonly string[];
  readonly trials: number;
  /** By part, then person: the readings. */
  readonly cells: readonly (readonly (readonly number[])[])[];
}

interface Interval {
  readonly low: number;
  readonly high: number;
}

/** A standard deviation in the unit of the readings, with the interval that holds it with a chance of 95 %. */
export interface Component {
  readonly sd: number;
  readonly interval: Interval;
}

/** What a gauge study says. Standard deviations are in the unit of the readings. */
export interface StudyResult {
  /** Repeatability: how one person's readings of one part differ (EV). */
  readonly repeatability: Component;
  /** Reproducibility: how people differ (AV). */
  readonly reproducibility: Component;
  /** How people differ from part to part; 0 where that is not significant. */
  readonly interaction: number;
  /** All that reading adds (GRR). */
  readonly gauge: Component;
  /** How the parts differ (PV). */
  readonly part: Component;
  /** All together (TV). */
  readonly total: number;
  /** GRR of TV, %; null where all readings are alike. */
  readonly percentGauge: number | null;
  /** How many sizes the gauge tells apart among these parts, 1 at least; null: readings do not differ at all. */
  readonly categories: number | null;
  readonly sums: {
    readonly part: number;
    readonly person: number;
    readonly interaction: number;
    readonly repeat: number;
  };
  /** Chance that an interaction as large comes about by itself. */
  readonly interactionChance: number;
  /** True if the interaction was not significant, and was counted with the repeats. */
  readonly isPooled: boolean;
}

/** An interaction is left out where its chance is above this: the usual setting of such studies. */
const POOLED_ABOVE = 0.25;

/** The intervals hold with this chance. */
const CONFIDENCE = 0.95;

/**
 * Puts readings in order by part and person, in the order in which those first stand in the list.
 *
 * @returns the study, or what keeps it from being one: fewer than two parts, people or trials; a reading that is missing or told twice
 */
export function studyOf(
  readings: readonly StudyReading[],
): { readonly ok: true; readonly study: Study } | { readonly ok: false; readonly faults: readonly StudyFault[] } {
  const parts = [...new Set(readings.map(({ part }) => part))];
  const people = [...new Set(readings.map(({ person }) => person))];
  const trials = [...new Set(readings.map(({ trial }) => trial))];
  const faults: StudyFault[] = [];
  if (parts.length < 2) faults.push({ kind: 'few-parts' });
  if (people.length < 2) faults.push({ kind: 'few-people' });
  if (trials.length < 2) faults.push({ kind: 'few-trials' });
  const values = new Map<string, Map<string, Map<string, number>>>();
  for (const { part, person, trial, value } of readings) {
    const ofPart = values.get(part) ?? new Map<string, Map<string, number>>();
    values.set(part, ofPart);
    const cell = ofPart.get(person) ?? new Map<string, number>();
    ofPart.set(person, cell);
    if (cell.has(trial)) faults.push({ kind: 'twice', part, person, trial });
    cell.set(trial, value);
  }
  for (const part of parts) {
    for (const person of people) {
      for (const trial of trials) {
        if (!values.get(part)?.get(person)?.has(trial)) faults.push({ kind: 'missing', part, person, trial });
      }
    }
  }
  if (faults.length > 0) return { ok: false, faults };
  const cells = parts.map((part) => people.map((person) => [...values.get(part)!.get(person)!.values()]));
  return { ok: true, study: { parts, people, trials: trials.length, cells } };
}

/** A mean square with its degrees of freedom. */
interface MeanSquare {
  readonly ms: number;
  readonly freedom: number;
}

/** Sums of squares of a balanced two-way layout. Sizes are taken from the first reading, so that large ones lose no digits. */
function sumsOf({ cells, parts, people, trials }: Study): StudyResult['sums'] {
  const zero = cells[0]![0]![0]!;
  const shifted = cells.map((ofPart) => ofPart.map((cell) => cell.map((value) => value - zero)));
  const cellMeans = shifted.map((ofPart) => ofPart.map(meanOf));
  const partMeans = cellMeans.map(meanOf);
  const personMeans = people.map((_, person) => meanOf(cellMeans.map((means) => means[person]!)));
  const grand = meanOf(partMeans);
  const part = people.length * trials * squaresOf(partMeans);
  const person = parts.length * trials * squaresOf(personMeans);
  const interaction = cellMeans.reduce(
    (sum, means, at) =>
      sum + means.reduce((inner, mean, who) => inner + (mean - partMeans[at]! - personMeans[who]! + grand) ** 2, 0),
    0,
  );
  const repeat = shifted.reduce((sum, ofPart) => sum + ofPart.reduce((inner, cell) => inner + squaresOf(cell), 0), 0);
  return { part, person, interaction: trials * interaction, repeat };
}

const alpha = (1 - CONFIDENCE) / 2;

/** Relative distance of the lower and of the upper end of a mean square's interval: `1 − ν/χ²` and `ν/χ² − 1`. */
function ends({ freedom }: MeanSquare): { readonly down: number; readonly up: number } {
  return {
    down: 1 - freedom / chiSquareQuantile(1 - alpha, freedom),
    up: freedom / chiSquareQuantile(alpha, freedom) - 1,
  };
}

interface Term {
  readonly of: MeanSquare;
  readonly times: number;
}

/**
 * Interval of a sum of mean squares: Graybill and Wang, Journal of the American Statistical Association 75, 1980 (cited from memory).
 *
 * @param terms with factors above 0
 */
function sumInterval(terms: readonly Term[]): Interval {
  const value = terms.reduce((sum, { of, times }) => sum + times * of.ms, 0);
  const spread = (side: 'down' | 'up') =>
    Math.sqrt(terms.reduce((sum, { of, times }) => sum + (ends(of)[side] * times * of.ms) ** 2, 0));
  return rooted({ low: value - spread('down'), high: value + spread('up') });
}

/**
 * Interval of the difference of two mean squares: Ting and others, Journal of Statistical Computation and Simulation 35, 1990 (cited from
 * memory).
 */
function differenceInterval({ of: one, times }: Term, other: MeanSquare): Interval {
  const [a, b] = [times * one.ms, times * other.ms];
  const [first, second] = [ends(one), ends(other)];
  const [high, low] = [1 - alpha, alpha].map((p) => fQuantile(p, one.freedom, other.freedom)) as [number, number];
  const lower = ((high - 1) ** 2 - first.down ** 2 * high ** 2 - second.up ** 2) / high;
  const upper = ((1 - low) ** 2 - first.up ** 2 * low ** 2 - second.down ** 2) / low;
  return rooted({
    low: a - b - Math.sqrt(Math.max(0, (first.down * a) ** 2 + (second.up * b) ** 2 + lower * a * b)),
    high: a - b + Math.sqrt(Math.max(0, (first.up * a) ** 2 + (second.down * b) ** 2 + upper * a * b)),
  });
}

/** An interval of variances as one of standard deviations, none below zero. */
function rooted({ low, high }: Interval): Interval {
  return { low: Math.sqrt(Math.max(0, low)), high: Math.sqrt(Math.max(0, high)) };
}

/**
 * Analysis of variance of a crossed gauge study, parts and people taken as random. An interaction whose chance is above 0.25 is counted with
 * the repeats. Components are never below zero.
 *
 * With `p` parts, `o` people, `r` repeats and mean squares P, O, I, E: `EV² = E`, `interaction² = (I − E)/r`, `AV² = (O − I)/(p r)`,
 * `PV² = (P − I)/(o r)`; pooled with E′ for both I and E. `GRR² = EV² + AV² + interaction²`, `TV² = GRR² + PV²`, categories
 * `⌊√2 PV/GRR⌋`. Source: the measurement systems analysis manual of the automotive industry (cited from memory).
 *
 * @param study in any unit: the standard deviations come in it
 */
export function gaugeStudy(study: Study): StudyResult {
  const [p, o, r] = [study.parts.length, study.people.length, study.trials];
  const sums = sumsOf(study);
  const square = (sum: number, freedom: number): MeanSquare => ({ ms: sum / freedom, freedom });
  const part = square(sums.part, p - 1);
  const person = square(sums.person, o - 1);
  const crossed = square(sums.interaction, (p - 1) * (o - 1));
  const within = square(sums.repeat, p * o * (r - 1));
  const interactionChance =
    within.ms > 0 ? fTail(crossed.ms / within.ms, crossed.freedom, within.freedom) : crossed.ms > 0 ? 0 : 1;
  const isPooled = interactionChance > POOLED_ABOVE;
  const repeat = isPooled ? square(sums.interaction + sums.repeat, crossed.freedom + within.freedom) : within;
  const below = isPooled ? repeat : crossed;
  const variance = (value: number) => Math.max(0, value);
  const ev = repeat.ms;
  const interaction = isPooled ? 0 : variance((crossed.ms - within.ms) / r);
  const av = variance((person.ms - below.ms) / (p * r));
  const pv = variance((part.ms - below.ms) / (o * r));
  const grr = ev + av + interaction;
  const tv = grr + pv;
  const gaugeTerms: Term[] = isPooled
    ? [
        { of: person, times: 1 / (p * r) },
        { of: repeat, times: (p * r - 1) / (p * r) },
      ]
    : [
        { of: person, times: 1 / (p * r) },
        { of: crossed, times: (p - 1) / (p * r) },
        { of: within, times: (r - 1) / r },
      ];
  return {
    repeatability: { sd: Math.sqrt(ev), interval: sumInterval([{ of: repeat, times: 1 }]) },
    reproducibility: {
      sd: Math.sqrt(av),
      interval: differenceInterval({ of: person, times: 1 / (p * r) }, below),
    },
    interaction: Math.sqrt(interaction),
    gauge: { sd: Math.sqrt(grr), interval: sumInterval(gaugeTerms) },
    part: { sd: Math.sqrt(pv), interval: differenceInterval({ of: part, times: 1 / (o * r) }, below) },
    total: Math.sqrt(tv),
    percentGauge: tv > 0 ? 100 * Math.sqrt(grr / tv) : null,
    categories: grr > 0 ? Math.max(1, Math.floor(Math.sqrt((2 * pv) / grr))) : null,
    sums,
    interactionChance,
    isPooled,
  };
}

/**
 * Share of a tolerance that reading takes up: six standard deviations of it, of the width of the limits.
 *
 * @param gauge GRR, in the unit of the width
 * @param width above 0
 * @returns %
 * @example toleranceShare(0.5, 10) // 30
 */
export function toleranceShare(gauge: number, width: number): number {
  return (100 * 6 * gauge) / width;
}
