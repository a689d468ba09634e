import type { Family } from '@fettle/core';
import {
  type AcceptedChoice,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  type JobDocument,
  type JobFit,
  type LeftOut,
  lengthOfNumber,
  rodCount,
  rodLabel,
} from '@fettle/core';
import { format } from 'date-fns';
import { Check } from 'lucide-react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { Button } from '../look/Button.js';
import { Notice } from '../look/Notice.js';
import { Conflicts } from './Conflicts.js';
import type { JobPlan } from './useJobPlan.js';
import type { Play } from './usePlay.js';

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
  uncertain: 'not known well enough for the chance that is asked for',
  'out-of-round': 'too far out of round or tapered for the limits, whatever the shells',
  'no-limits': 'without oil clearance limits on the data sheet',
  'no-shells': 'without halves in the drawer',
  'no-rod': 'without a measured rod for each',
  'two-rods': 'with more than one rod kept there',
  'rod-blocked': 'with a rod kept there that is outside the data sheet',
  'rod-not-measured': 'with a rod kept there that is not measured yet',
};

const NO_CHOICE: Readonly<Record<(JobFit & { ok: false })['reason'], { text: string; to: string; link: string }>> = {
  'no-limits': {
    text: 'There are no oil clearance limits on the data sheet, so nothing can be chosen; the clearances are shown all the same.',
    to: '../data',
    link: 'Enter the limits',
  },
  'no-drawer': {
    text: 'The workshop drawer has not been read yet, so what is free is not known.',
    to: '/drawer',
    link: 'Open the workshop drawer',
  },
  'no-shells': { text: 'There are no halves in the drawer.', to: '../drawer', link: 'Enter the halves' },
  'nothing-measured': { text: 'No main has both a bore and a journal yet.', to: '../bores', link: 'Read the bores' },
};

/** Whether two choices take the same halves at the same mains. */
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

function leftOutText(leftOut: readonly LeftOut[]): string {
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

interface PlanBarProps {
  readonly document: JobDocument;
  readonly plan: JobPlan;
  readonly play: Play;
  readonly showing: 'best' | 'accepted';
  readonly onShow: (showing: 'best' | 'accepted') => void;
  readonly onAccept: () => void;
}

/** A change against the plan before, in words; null when nothing changed. */
function changeText(document: JobDocument, { plan, halves, before }: JobPlan): string | null {
  if (!before || !plan || plan.cost === null) return null;
  const ids = [...new Set([...Object.keys(before.halves), ...Object.keys(halves)])];
  const changed = ids.filter((id) => {
    const [old, now] = [before.halves[id], halves[id]];
    return (
      !old || !now || old.upper.shell !== now.upper.shell || old.lower.shell !== now.lower.shell || old.rod !== now.rod
    );
  });
  if (before.plan.cost === null) return 'Before this step nothing fitted.';
  const by = plan.cost - before.plan.cost;
  if (changed.length === 0 && Math.abs(by) < 0.05) return null;
  const cost =
    Math.abs(by) < 0.05 ? 'the cost stays' : `the cost ${by > 0 ? 'rises' : 'falls'} by ${Math.abs(by).toFixed(1)}`;
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
  return `Against the plan before, ${cost}; changed: ${where}.`;
}

/** Searches on where the time was too short. */
function GoOn({ plan: { goOn } }: { plan: JobPlan }) {
  if (!goOn) return null;
  return (
    <Button onPress={goOn.start}>
      Go on for {goOn.seconds < 60 ? `${goOn.seconds} s` : `${goOn.seconds / 60} min`}
    </Button>
  );
}

/** What the search found, in a sentence, and the one thing to do about it. */
export function PlanBar({ document, plan: job, play, showing, onShow, onAccept }: PlanBarProps) {
  const { asked, plan, halves, fault, progress } = job;
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
  if (job.isCancelled) return <Bar>The search was stopped. Change anything, or open the view again, to search on.</Bar>;
  if (!plan) {
    return (
      <Bar aria-busy>
        <p>
          Working out the best choice … {progress?.cost != null && `best so far ${progress.cost.toFixed(1)} µm², `}
          {progress?.bound != null && `none can cost less than ${progress.bound.toFixed(1)}`}
        </p>
        {progress && <Button onPress={job.cancel}>Stop</Button>}
      </Bar>
    );
  }
  if (plan.status === 'stopped') {
    return (
      <Bar role="status">
        <p>
          <strong>No answer in the time there was</strong>: neither a choice that fits nor a proof that there is none.
          The best bound so far: no choice can cost less than <span className="figure">{plan.bound?.toFixed(1)}</span>{' '}
          µm². Go on, or hold a station, forbid a half, count more halves. {leftOut}
        </p>
        <GoOn plan={job} />
      </Bar>
    );
  }
  if (plan.status === 'infeasible') {
    return (
      <>
        <Conflicts document={document} plan={plan} play={play} asked={asked} />
        {leftOut && <Notice>{leftOut}</Notice>}
      </>
    );
  }
  const mixed = plan.stations.filter((station) => station.mixed).length;
  const spread = (value: number) => formatExactLength(lengthOfNumber(value, unit), unit, INSTRUMENT_DECIMALS[unit]);
  const count = (family: Family) => plan.spread.find((one) => one.family === family);
  const chosen = (family: Family) => asked.request.stations.filter((station) => station.family === family).length;
  const total = rodCount(document.layout);
  const changed = changeText(document, job);
  const isAccepted = choice !== null && sameHalves(choice.stations, halves);
  const other = showing === 'best' ? 'accepted' : 'best';
  return (
    <Bar>
      <p>
        <strong>
          {plan.status === 'optimal' ? 'Best choice' : 'Best choice found in time'} for {chosen('main')} of{' '}
          {document.layout.mains} mains
          {document.withRods && ` and ${chosen('rod')} of ${total} rods`},{' '}
          {plan.status === 'optimal' ? 'proven' : 'not proven'}.
        </strong>{' '}
        {(['main', 'rod'] as const).map((family) => {
          const found = count(family);
          return (
            found && (
              <span key={family}>
                {family === 'main' ? 'Spread from the aim' : 'rods'}{' '}
                <span className="figure">{spread(found.value)}</span> {unit},{' '}
              </span>
            )
          );
        })}
        {mixed === 0 ? 'none' : mixed} mixed, cost <span className="figure">{plan.cost?.toFixed(1)}</span> µm²
        {plan.status === 'feasible' && `, no choice costs less than ${plan.bound?.toFixed(1)}`}. {leftOut} {changed}{' '}
        {choice && !isAccepted && 'It differs from the accepted choice.'}
        {isAccepted && (
          <span>
            Accepted by {choice.by}, {format(new Date(choice.at), 'd MMM HH:mm')}.
          </span>
        )}
      </p>
      {plan.status === 'feasible' && <GoOn plan={job} />}
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
