import type { AimRule } from '../clearance/clearanceAim.js';
import { lengthText } from '../measure/lengthText.js';
import type { Nanometres } from '../measure/nanometres.js';
import { rodLabel } from '../station/jobStations.js';
import { RULES } from './ruleTable.js';
import type { SelectionJob } from './selectionJob.js';

/** What each way of setting the target is called in a list. */
export const AIM_WORDS = {
  middle: 'Middle of the limits',
  'loose-side': 'Loose side: three quarters up the limits',
  'tight-side': 'Tight side: a quarter up the limits',
  'per-inch': '0.001 in per inch of journal',
  figure: 'A figure',
} as const satisfies Record<AimRule['kind'], string>;

/**
 * What the clearances are aimed at, by family, in a line of words.
 *
 * @example aimsInWords({ unit: 'mm', withRods: false, rules: { aim: { kind: 'middle' } } }) // 'middle of the limits'
 */
export function aimsInWords({ rules, unit, withRods }: Pick<SelectionJob, 'rules' | 'unit' | 'withRods'>): string {
  const text = (rule: AimRule) =>
    rule.kind === 'figure' ? lengthText(rule.clearance, unit) : AIM_WORDS[rule.kind].toLowerCase();
  return withRods ? `mains: ${text(rules.aim)}; rods: ${text(rules.rodAim)}` : text(rules.aim);
}

/** The rules of the choice in a line of words. */
export function rulesInWords(job: Pick<SelectionJob, 'rules' | 'unit' | 'layout' | 'withRods'>): string {
  const { rules, unit } = job;
  const length = (value: Nanometres) => lengthText(value, unit);
  const words = RULES.flatMap(([key, { isOf, words: wordsOf }]) =>
    isOf?.(job) === false ? [] : (wordsOf?.(rules[key], length, rules) ?? []),
  ).join('; ');
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}`;
}

/** One thing that the fitter holds, forbids or aims at beside what all stations aim at. */
export interface HeldThing {
  readonly station: string;
  readonly text: string;
}

/** What is held, forbidden and aimed at single stations, in their order as it was entered; rods that are kept on a pin last. */
export function lockedInWords({ wishes, rods, rules, shells, unit }: SelectionJob): HeldThing[] {
  const grade = (id: string) => (shells[id] ? `${shells[id].grade} ${shells[id].half} (${shells[id].series})` : id);
  return [
    ...Object.entries(wishes).flatMap(([station, { upper, lower, noShells, unmixed }]): HeldThing[] => [
      ...[...new Set([upper, lower])].flatMap((id) => (id === null ? [] : [{ station, text: `${grade(id)} locked` }])),
      ...noShells.map((id) => ({ station, text: `${grade(id)} ruled out` })),
      ...(unmixed ? [{ station, text: 'no mixed pair' }] : []),
    ]),
    ...Object.entries(rules.extras).map(([station, extra]) => ({
      station,
      text: `added target ${lengthText(extra, unit)}`,
    })),
    ...Object.entries(rods).flatMap(([rod, { pin }]) =>
      pin === null ? [] : [{ station: `P${pin}`, text: `${rodLabel({ rods }, Number(rod))} locked there` }],
    ),
  ];
}
