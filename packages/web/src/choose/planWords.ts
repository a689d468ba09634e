import {
  type AcceptedChoice,
  type JobDocument,
  type JobFit,
  type LeftOut,
  planOffTarget,
  rodLabel,
  type ShownUnit,
} from '@fettle/core';
import { moreOff } from '../fit/meanOff.js';
import type { JobPlan } from '../fit/useJobPlan.js';

const LEFT_OUT: Readonly<Record<LeftOut['reason'], string>> = {
  'not-measured': 'not measured yet',
  blocked: 'outside the data sheet',
  'no-aim': 'no target',
  uncertain: 'too uncertain for the required chance',
  'out-of-round': 'out of round or tapered beyond any shell',
  'no-limits': 'without oil clearance limits on the data sheet',
  'no-shells': 'no shells in stock',
  'no-rod': 'without a measured rod for each',
  'two-rods': 'two rods locked there',
  'rod-blocked': 'the rod locked there is out of limits',
  'rod-not-measured': 'the rod locked there is not measured',
};

export const NO_CHOICE: Readonly<
  Record<(JobFit & { ok: false })['reason'], { text: string; to: string; link: string }>
> = {
  'no-limits': {
    text: 'No oil clearance limits on the data sheet, so nothing can be selected. Clearances are shown.',
    to: '../data',
    link: 'Enter the limits',
  },
  'no-drawer': {
    text: 'Workshop stock not loaded yet: free shells unknown.',
    to: '/drawer',
    link: 'Open workshop stock',
  },
  'no-shells': { text: 'No shells in stock.', to: '../drawer', link: 'Enter the shells' },
  'nothing-measured': { text: 'No main has both a bore and a journal yet.', to: '../bores', link: 'Measure the bores' },
};

/** True if two choices take the same halves at the same mains. */
export function sameHalves(a: AcceptedChoice['stations'], b: AcceptedChoice['stations']): boolean {
  const ids = Object.keys(a);
  return (
    ids.length === Object.keys(b).length &&
    ids.every(
      (id) =>
        a[id]!.upper.shell === b[id]?.upper.shell &&
        a[id]!.lower.shell === b[id]?.lower.shell &&
        a[id]!.rod === b[id]?.rod,
    )
  );
}

export function leftOutText(leftOut: readonly LeftOut[]): string {
  const reasons = [...new Set(leftOut.map(({ reason }) => reason))];
  return reasons
    .map(
      (reason) =>
        `${leftOut
          .filter((one) => one.reason === reason)
          .map(({ station, rods }) => (rods ? `${station} (${rods.join(', ')})` : station))
          .join(', ')} ${LEFT_OUT[reason]}`,
    )
    .join('; ');
}

/** A change against the plan before, in words; null when nothing changed. */
export function changeText(document: JobDocument, shown: ShownUnit, { plan, halves, before }: JobPlan): string | null {
  if (!before || !plan || plan.cost === null) return null;
  const ids = [...new Set([...Object.keys(before.halves), ...Object.keys(halves)])];
  const changed = ids.filter((id) => {
    const [old, now] = [before.halves[id], halves[id]];
    return (
      !old || !now || old.upper.shell !== now.upper.shell || old.lower.shell !== now.lower.shell || old.rod !== now.rod
    );
  });
  if (before.plan.cost === null) return 'Before this step nothing fitted.';
  const [now, then] = [planOffTarget(plan), planOffTarget(before.plan)];
  const by = now && then && moreOff(now.mean, then.mean, shown);
  if (changed.length === 0 && by === null) return null;
  const cost =
    by === null
      ? 'as near target on average'
      : `${by.text} ${by.isFurther ? 'further off' : 'nearer'} target on average`;
  const where =
    changed.length === 0
      ? 'no station changes'
      : changed
          .map((id) => {
            const rod = halves[id]?.rod;
            const isMoved = rod != null && rod !== before.halves[id]?.rod;
            return isMoved ? `${id} takes ${rodLabel(document, rod)}` : id;
          })
          .join(', ');
  return `Change from previous: ${cost}; changed: ${where}.`;
}
