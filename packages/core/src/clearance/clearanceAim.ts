import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { ClearanceLimits } from './clearanceVerdict.js';

/**
 * Where in the range the clearance is wanted: the middle, the loose side, the tight side, 0.001 in per inch of journal, or a figure. Each is a
 * method that some fitters swear by.
 */
export type AimRule =
  | { readonly kind: 'middle' }
  | { readonly kind: 'loose-side' }
  | { readonly kind: 'tight-side' }
  | { readonly kind: 'per-inch' }
  | { readonly kind: 'figure'; readonly clearance: Nanometres };

/**
 * How far up the range between the limits each method puts the target. Loose and tight side: half way from the middle to the limit. Common
 * practice; the data sheet's limits hold for every method.
 */
const SHARE_OF_RANGE = { 'tight-side': 0.25, middle: 0.5, 'loose-side': 0.75 } as const;

/**
 * The clearance aimed at in one station: the rule's figure plus the station's extra.
 *
 * @param journal journal diameter, needed by 0.001 in per inch only
 * @param extra added at this station, for instance 0.0005 in at the rear main
 * @example clearanceAim({ kind: 'middle' }, { low: 20_000, high: 50_000 }, null, 5_000) // 40000
 * @example clearanceAim({ kind: 'loose-side' }, { low: 20_000, high: 60_000 }, null, 0) // 50000
 * @returns null when the rule lacks what it is counted from: no limits for a share of their range, no journal for per-inch
 */
export function clearanceAim(
  rule: AimRule,
  limits: ClearanceLimits | null,
  journal: Nanometres | null,
  extra: Nanometres,
): Nanometres | null {
  switch (rule.kind) {
    case 'tight-side':
    case 'middle':
    case 'loose-side':
      return (
        limits && nanometres(Math.round(limits.low + SHARE_OF_RANGE[rule.kind] * (limits.high - limits.low)) + extra)
      );
    case 'per-inch':
      return journal === null ? null : nanometres(Math.round(journal / 1000) + extra);
    case 'figure':
      return nanometres(rule.clearance + extra);
  }
}
