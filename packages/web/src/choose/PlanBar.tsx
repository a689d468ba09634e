import {
  FAMILIES,
  FAMILY_TABLE,
  type JobDocument,
  momentText,
  type Nanometres,
  type Reading,
  rodCount,
  spreadFigure,
  spreadMainsText,
} from '@fettle/core';
import { Check, Undo2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useShortcut } from '../base/shortcuts.js';
import { fineText, gapText } from '../fit/meanOff.js';
import type { JobPlan } from '../fit/useJobPlan.js';
import { goToNext } from '../job/nextThing.js';
import { useClearances } from '../person/useClearances.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Conflicts } from './Conflicts.js';
import { Doubts } from './PlanDoubts.js';
import { changeText, leftOutText, NO_CHOICE, sameHalves } from './planWords.js';
import type { SelectionFacts } from './selectionFacts.js';
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

interface PlanBarProps {
  readonly document: JobDocument;
  readonly readings: readonly Reading[];
  readonly plan: JobPlan;
  readonly play: Play;
  readonly showing: 'best' | 'accepted';
  readonly onShow: (showing: 'best' | 'accepted') => void;
  /** What the selection that the line shows comes to. */
  readonly facts: SelectionFacts;
  /** What is to be known before it is accepted. */
  readonly doubts: readonly string[];
  readonly onAccept: () => void;
  readonly onWithdraw: () => void;
}

/** Searches on where the time was too short. */
function GoOn({ plan: { goOn } }: { plan: JobPlan }) {
  if (!goOn) return null;
  return (
    <Button onPress={goOn.start}>
      Search for another {goOn.seconds < 60 ? `${goOn.seconds} s` : `${goOn.seconds / 60} min`}
    </Button>
  );
}

/** What the search found, in a sentence, and the one thing to do about it. */
export function PlanBar(props: PlanBarProps) {
  const { document, readings, plan: job, play, showing, facts, doubts, onShow, onAccept, onWithdraw } = props;
  const [isAsked, setAsked] = useState(false);
  const { asked, plan, halves, fault, progress } = job;
  const { choice } = document;
  const { shown } = useClearances(document.unit);
  const isAccepted = choice !== null && sameHalves(choice.stations, halves);
  const takeIt = () => {
    onAccept();
    goToNext();
  };
  const accept = () => (doubts.length > 0 ? setAsked(true) : takeIt());
  const isFound = plan?.status === 'optimal' || plan?.status === 'feasible';
  const mayAccept = asked.ok && !fault && !job.isCancelled && isFound && !isAccepted;
  useShortcut('a', 'Accept selection', mayAccept ? accept : null);
  const leftOut = asked.leftOut.length > 0 ? `${leftOutText(asked.leftOut)}: left out.` : '';
  if (!asked.ok) {
    const { text, to, link } = NO_CHOICE[asked.reason];
    return (
      <Notice>
        {text} {leftOut} <Link to={to}>{link}</Link>
      </Notice>
    );
  }
  if (fault) return <Notice urgent>The selection failed: {fault}</Notice>;
  if (job.isCancelled) return <Bar>The search was stopped. Change anything, or open the view again, to search on.</Bar>;
  if (!plan) {
    return (
      <Bar aria-busy>
        <p>
          Finding the best selection …{' '}
          {progress?.cost != null &&
            progress.bound != null &&
            `found one; ${gapText(progress.cost, progress.bound)} better is not ruled out yet`}
        </p>
        {progress && <Button onPress={job.cancel}>Stop</Button>}
      </Bar>
    );
  }
  if (plan.status === 'stopped') {
    return (
      <Bar role="status">
        <p>
          <strong>Out of time</strong>: no selection found, nor proved impossible. Search on, or lock a station, rule
          out a shell, count more shells. {leftOut}
        </p>
        <GoOn plan={job} />
      </Bar>
    );
  }
  if (plan.status === 'infeasible') {
    return (
      <>
        <Conflicts document={document} readings={readings} plan={plan} play={play} asked={asked} />
        {leftOut && <Notice>{leftOut}</Notice>}
      </>
    );
  }
  const fine = (value: Nanometres) => fineText(value, shown);
  const { off, mixed } = facts;
  const total = rodCount(document.layout);
  const changed = changeText(document, shown, job);
  const other = showing === 'best' ? 'accepted' : 'best';
  // The sentence is of the selection that the line shows; only of the best one it is known whether it is proven.
  const isOfBest = showing === 'best' || isAccepted;
  const proof = plan.status === 'optimal' ? ', proven' : ', not proven';
  const which = !isOfBest
    ? 'Accepted selection'
    : plan.status === 'optimal'
      ? 'Best selection'
      : 'Best selection found in time';
  return (
    <Bar>
      <p>
        {off && (
          <>
            Worst {off.station}: <span className="figure">{fine(off.worst)}</span> off target.{' '}
          </>
        )}
        <strong>
          {which} for {facts.stations.main} of {document.layout.mains} mains
          {document.withRods && ` and ${facts.stations.rod} of ${total} rods`}
          {isOfBest && proof}.
        </strong>{' '}
        {off && (
          <>
            Average off target <span className="figure">{fine(off.mean)}</span>;{' '}
          </>
        )}
        {FAMILIES.map((family) => {
          const found = facts.spread[family];
          return (
            found !== undefined && (
              <span key={family}>
                {FAMILY_TABLE[family].isInLine
                  ? `spread along the ${spreadMainsText(document)}`
                  : `along the ${FAMILY_TABLE[family].words}`}{' '}
                <span className="figure">
                  {fine(found.by)}
                  {found.u > 0 && ` ± ${spreadFigure(found.u, shown)}`}
                </span>
                ;{' '}
              </span>
            )
          );
        })}
        {mixed === 0 ? 'none' : mixed} mixed
        {isOfBest &&
          plan.status === 'feasible' &&
          plan.cost !== null &&
          plan.bound !== null &&
          `; ${gapText(plan.cost, plan.bound)} better is not ruled out`}
        . {leftOut} {changed}{' '}
        <strong>
          {choice === null
            ? ''
            : showing === 'accepted'
              ? 'Showing the accepted selection'
              : 'Showing the best selection'}
        </strong>
        {choice && (
          <span>
            {isAccepted
              ? ', same as best'
              : showing === 'accepted'
                ? '; the best one differs'
                : '; the accepted one differs'}
            . Accepted by {choice.by}, {momentText(choice.at)}.
          </span>
        )}
      </p>
      {plan.status === 'feasible' && <GoOn plan={job} />}
      {choice && !isAccepted && (
        <Button onPress={() => onShow(other)}>Show the {other === 'best' ? 'best' : 'accepted'} selection</Button>
      )}
      {choice && (
        <Button onPress={onWithdraw}>
          <Undo2 aria-hidden size={20} />
          Withdraw
        </Button>
      )}
      {isAccepted ? (
        <Button isDisabled>
          <Check aria-hidden size={20} />
          Accepted
        </Button>
      ) : (
        <Button $kind={isAsked ? 'plain' : 'primary'} aria-expanded={isAsked} onPress={accept}>
          Accept selection
        </Button>
      )}
      {isAsked && !isAccepted && doubts.length > 0 && (
        <Doubts
          doubts={doubts}
          onAccept={() => {
            setAsked(false);
            takeIt();
          }}
          onBack={() => setAsked(false)}
        />
      )}
    </Bar>
  );
}
