import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { ClearanceLimits } from './clearanceVerdict.js';

/** Where in the range the clearance is wanted: the middle, 0.001 in per inch of journal, or a figure. */
export type AimRule =
  | { readonly kind: 'middle' }
  | { readonly kind: 'per-inch' }
  | { readonly kind: 'figure'; readonly clearance: Nanometres };

/**
 * The clearance aimed at in one station: the rule's figure plus the station's extra.
 *
 * @param journal journal diameter, needed by 0.001 in per inch only
 * @param extra added at this station, for instance 0.0005 in at the rear main
 * @example clearanceAim({ kind: 'middle' }, { low: 20_000, high: 50_000 }, null, 5_000) // 40000
 * @returns null when the rule lacks what it is counted from: no limits for the middle, no journal for per-inch
 */
export function clearanceAim(
  rule: AimRule,
  limits: ClearanceLimits | null,
  journal: Nanometres | null,
  extra: Nanometres,
): Nanometres | null {
  switch (rule.kind) {
    case 'middle':
      return limits && nanometres(Math.round((limits.low + limits.high) / 2) + extra);
    case 'per-inch':
      return journal === null ? null : nanometres(Math.round(journal / 1000) + extra);
    case 'figure':
      return nanometres(rule.clearance + extra);
  }
}
