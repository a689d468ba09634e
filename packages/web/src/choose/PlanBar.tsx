import {
  type AcceptedChoice,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  type JobDocument,
  type JobFit,
  type LeftOut,
  lengthOfNumber,
} from '@fettle/core';
import { format } from 'date-fns';
import { Check } from 'lucide-react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { Button } from '../look/Button.js';
import { Notice } from '../look/Notice.js';
import type { JobPlan } from './useJobPlan.js';

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem 1rem;
  padding: 0.6rem 1rem;
  background: var(--surface);
  border: 2px solid var(--line-strong);
  border-radius: var(--radius);
  > p { flex: 1 1 18rem; }
`;

const LEFT_OUT: Readonly<Record<LeftOut['reason'], string>> = {
  'not-measured': 'not measured yet',
  blocked: 'outside the data sheet',
  'no-aim': 'without an aim',
  'out-of-round': 'too far out of round or tapered for the limits, whatever the shells',
};

const NO_CHOICE: Readonly<Record<(JobFit & { ok: false })['reason'], { text: string; to: string; link: string }>> = {
  'no-limits': {
    text: 'There are no oil clearance limits on the data sheet, so nothing can be chosen; the clearances are shown all the same.',
    to: '../data',
    link: 'Enter the limits',
  },
  'no-shells': { text: 'There are no halves in the drawer.', to: '../drawer', link: 'Enter the halves' },
  'nothing-measured': { text: 'No main has both a bore and a journal yet.', to: '../bores', link: 'Read the bores' },
};

/** Whether two choices take the same halves at the same mains. */
export function sameHalves(a: AcceptedChoice['stations'], b: AcceptedChoice['stations']): boolean {
  const ids = Object.keys(a);
  return (
    ids.length === Object.keys(b).length &&
    ids.every((id) => a[id]!.upper.shell === b[id]?.upper.shell && a[id]!.lower.shell === b[id]?.lower.shell)
  );
}

function leftOutText(leftOut: readonly LeftOut[]): string {
  const reasons = [...new Set(leftOut.map(({ reason }) => reason))];
  return reasons
    .map(
      (reason) =>
        `${leftOut
          .filter((one) => one.reason === reason)
          .map(({ station }) => station)
          .join(', ')} ${LEFT_OUT[reason]}`,
    )
    .join('; ');
}

interface PlanBarProps {
  readonly document: JobDocument;
  readonly plan: JobPlan;
  readonly showing: 'best' | 'accepted';
  readonly onShow: (showing: 'best' | 'accepted') => void;
  readonly onAccept: () => void;
}

/** What the search found, in a sentence, and the one thing to do about it. */
export function PlanBar({ document, plan: { asked, plan, halves, fault }, showing, onShow, onAccept }: PlanBarProps) {
  const { unit, choice } = document;
  const leftOut = asked.leftOut.length > 0 ? `${leftOutText(asked.leftOut)}: left out.` : '';
  if (!asked.ok) {
    const { text, to, link } = NO_CHOICE[asked.reason];
    return (
      <Notice>
        {text} {leftOut} <Link to={to}>{link}</Link>
      </Notice>
    );
  }
  if (fault) return <Notice urgent>The choice could not be worked out: {fault}</Notice>;
  if (!plan) return <Bar aria-busy>Working out the best choice …</Bar>;
  if (plan.status === 'infeasible') {
    return (
      <>
        {plan.conflicts.map((conflict) => (
          <Notice key={conflict.message}>
            <strong>{conflict.message}</strong> {conflict.remedy}
          </Notice>
        ))}
        {leftOut && <Notice>{leftOut}</Notice>}
      </>
    );
  }
  const mixed = plan.stations.filter((station) => station.mixed).length;
  const spread = plan.spread[0]
    ? formatExactLength(lengthOfNumber(plan.spread[0].value, unit), unit, INSTRUMENT_DECIMALS[unit])
    : '0';
  const isAccepted = choice !== null && sameHalves(choice.stations, halves);
  const other = showing === 'best' ? 'accepted' : 'best';
  return (
    <Bar>
      <p>
        <strong>
          {plan.status === 'optimal' ? 'Best choice' : 'Best choice found in time'} for {plan.stations.length} of{' '}
          {document.layout.mains} mains, {plan.status === 'optimal' ? 'proven' : 'not proven'}.
        </strong>{' '}
        Spread from the aim <span className="figure">{spread}</span> {unit}, {mixed === 0 ? 'none' : mixed} mixed, cost{' '}
        <span className="figure">{plan.cost?.toFixed(1)}</span> µm²
        {plan.status === 'feasible' && `, no choice costs less than ${plan.bound?.toFixed(1)}`}. {leftOut}{' '}
        {choice && !isAccepted && 'It differs from the accepted choice.'}
        {isAccepted && (
          <span>
            Accepted by {choice.by}, {format(new Date(choice.at), 'd MMM HH:mm')}.
          </span>
        )}
      </p>
      {choice && !isAccepted && (
        <Button onPress={() => onShow(other)}>Show the {other === 'best' ? 'best' : 'accepted'} choice</Button>
      )}
      {isAccepted ? (
        <Button isDisabled>
          <Check aria-hidden size={20} />
          Accepted
        </Button>
      ) : (
        <Button $kind="main" onPress={onAccept}>
          Accept the best choice
        </Button>
      )}
    </Bar>
  );
}
