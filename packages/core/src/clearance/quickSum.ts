import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { type ClearanceLimits, type ClearanceVerdict, clearanceVerdict } from './clearanceVerdict.js';

/** One station on a scrap of paper: what of it is known. */
export interface QuickSumParts {
  readonly bore: Nanometres | null;
  readonly journal: Nanometres | null;
  /** What a gauge that was zeroed on the journal shows in the bare bore: bore minus journal. */
  readonly gauge: Nanometres | null;
  readonly upper: Nanometres | null;
  readonly lower: Nanometres | null;
  readonly limits: ClearanceLimits | null;
  /** Clearance aimed at; left out, the middle of the limits. */
  readonly aim: Nanometres | null;
  /** Wall step from grade to grade, where other walls are to be told. */
  readonly step: Nanometres | null;
}

/** What other walls would do: both of them together changed by so many steps. */
export interface OtherWalls {
  readonly upper: Nanometres;
  readonly lower: Nanometres;
  /** Steps that the two walls together differ by; above zero: thicker. */
  readonly steps: number;
  readonly clearance: Nanometres;
  readonly verdict: ClearanceVerdict | null;
}

export interface QuickSum {
  /** Room between bore and journal, both walls in it. */
  readonly room: Nanometres | null;
  readonly clearance: Nanometres | null;
  readonly verdict: ClearanceVerdict | null;
  readonly aim: Nanometres | null;
  /** What both walls together may be and should be; null without room or limits. */
  readonly walls: { readonly thinnest: Nanometres; readonly thickest: Nanometres; readonly best: Nanometres } | null;
  readonly others: readonly OtherWalls[];
}

/** Maximum steps listed either way. */
const STEPS = 3;
/** Part of the limits next to either end that counts as close, as in an engine. */
const CLOSE = 0.1;

function judged(clearance: Nanometres, limits: ClearanceLimits | null): ClearanceVerdict | null {
  const all = { nominal: clearance, tightest: clearance, loosest: clearance };
  return limits && clearanceVerdict(all, limits, CLOSE);
}

/**
 * The clearance of one station from the few figures that are at hand: `C = bore − journal − walls`, or what the gauge shows less the
 * walls; and what other walls would do. Common practice.
 *
 * @returns nulls for what the figures do not tell
 * @example quickSum({ bore: 64_010_000, journal: 59_980_000, gauge: null, upper: 1_995_000, lower: 1_995_000, limits: null, aim: null, step: null }).clearance // 40000
 */
export function quickSum({ bore, journal, gauge, upper, lower, limits, aim, step }: QuickSumParts): QuickSum {
  const room = gauge ?? (bore !== null && journal !== null ? nanometres(bore - journal) : null);
  const aimed = aim ?? (limits && nanometres(Math.round((limits.low + limits.high) / 2)));
  const clearance = room !== null && upper !== null && lower !== null ? nanometres(room - upper - lower) : null;
  const others: OtherWalls[] = [];
  if (clearance !== null && upper !== null && lower !== null && step !== null && step > 0) {
    for (let steps = -STEPS; steps <= STEPS; steps += 1) {
      if (steps === 0) continue;
      // The upper half takes the odd step; which side does is the fitter's school.
      const first = nanometres(upper + Math.sign(steps) * Math.ceil(Math.abs(steps) / 2) * step);
      const second = nanometres(lower + Math.sign(steps) * Math.floor(Math.abs(steps) / 2) * step);
      if (first <= 0 || second <= 0) continue;
      const other = nanometres(room! - first - second);
      others.push({ upper: first, lower: second, steps, clearance: other, verdict: judged(other, limits) });
    }
  }
  return {
    room,
    clearance,
    verdict: clearance === null ? null : judged(clearance, limits),
    aim: aimed,
    walls:
      room !== null && limits && aimed !== null
        ? {
            thinnest: nanometres(room - limits.high),
            thickest: nanometres(room - limits.low),
            best: nanometres(room - aimed),
          }
        : null,
    others,
  };
}
