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

type FoundPlan = Pick<NonNullable<JobPlan['plan']>, 'status' | 'cost' | 'bound'>;

/** Searches on where the time was too short. */
function GoOn({ plan: { goOn } }: { plan: JobPlan }) {
  if (!goOn) return null;
  return (
    <Button onPress={goOn.start}>
      Search for another {goOn.seconds < 60 ? `${goOn.seconds} s` : `${goOn.seconds / 60} min`}
    </Button>
  );
}

/** That the search is still under way. */
function Searching({ plan: { progress, cancel } }: { plan: JobPlan }) {
  const { cost = null, bound = null } = progress ?? {};
  return (
    <Bar aria-busy>
      <p>
        Finding the best selection …{' '}
        {cost !== null && bound !== null && `found one; ${gapText(cost, bound)} better is not ruled out yet`}
      </p>
      {progress && <Button onPress={cancel}>Stop</Button>}
    </Bar>
  );
}

/** That the time was too short to find one. */
function OutOfTime({ plan, leftOut }: { plan: JobPlan; leftOut: string }) {
  return (
    <Bar role="status">
      <p>
        <strong>Out of time</strong>: no selection found, nor proved impossible. Search on, or lock a station, rule out
        a shell, count more shells. {leftOut}
      </p>
      <GoOn plan={plan} />
    </Bar>
  );
}

/** How far the clearances of each family are apart. */
function Spreads({ document, facts }: Pick<PlanBarProps, 'document' | 'facts'>) {
  const { shown } = useClearances(document.unit);
  return FAMILIES.map((family) => {
    const found = facts.spread[family];
    if (found === undefined) return null;
    const { isInLine, words } = FAMILY_TABLE[family];
    return (
      <span key={family}>
        {isInLine ? `spread along the ${spreadMainsText(document)}` : `along the ${words}`}{' '}
        <span className="figure">
          {fineText(found.by, shown)}
          {found.u > 0 && ` ± ${spreadFigure(found.u, shown)}`}
        </span>
        ;{' '}
      </span>
    );
  });
}

/** Which of the two selections is shown, and who accepted the other. */
function WhichIsShown({ choice, showing, isAccepted }: Pick<PlanBarProps, 'showing'> & WhichProps) {
  if (choice === null) return null;
  const beside = isAccepted ? ', same as best' : `; the ${showing === 'accepted' ? 'best' : 'accepted'} one differs`;
  return (
    <>
      <strong>Showing the {showing === 'accepted' ? 'accepted' : 'best'} selection</strong>
      <span>
        {beside}. Accepted by {choice.by}, {momentText(choice.at)}.
      </span>
    </>
  );
}

interface WhichProps {
  readonly choice: JobDocument['choice'];
  /** True if the best selection is the accepted one. */
  readonly isAccepted: boolean;
}

interface FoundProps extends PlanBarProps {
  readonly found: FoundPlan;
  readonly isAccepted: boolean;
  /** What of the engine is not selected for. */
  readonly leftOut: string;
}

/** What the selection that the line shows comes to. */
function FoundText({ document, plan: job, found, showing, facts, isAccepted, leftOut }: FoundProps) {
  const { shown } = useClearances(document.unit);
  const fine = (value: Nanometres) => fineText(value, shown);
  const { off, mixed, stations } = facts;
  const isProven = found.status === 'optimal';
  // The sentence is of the selection that the line shows; only of the best one it is known whether it is proven.
  const isOfBest = showing === 'best' || isAccepted;
  const best = isProven ? 'Best selection' : 'Best selection found in time';
  return (
    <p>
      {off && (
        <>
          Worst {off.station}: <span className="figure">{fine(off.worst)}</span> off target.{' '}
        </>
      )}
      <strong>
        {isOfBest ? best : 'Accepted selection'} for {stations.main} of {document.layout.mains} mains
        {document.withRods && ` and ${stations.rod} of ${rodCount(document.layout)} rods`}
        {isOfBest && (isProven ? ', proven' : ', not proven')}.
      </strong>{' '}
      {off && (
        <>
          Average off target <span className="figure">{fine(off.mean)}</span>;{' '}
        </>
      )}
      <Spreads document={document} facts={facts} />
      {mixed === 0 ? 'none' : mixed} mixed
      {isOfBest &&
        !isProven &&
        found.cost !== null &&
        found.bound !== null &&
        `; ${gapText(found.cost, found.bound)} better is not ruled out`}
      . {leftOut} {changeText(document, shown, job)}{' '}
      <WhichIsShown choice={document.choice} showing={showing} isAccepted={isAccepted} />
    </p>
  );
}

/** A selection that was found: what it comes to, and accepting it. */
function FoundBar(props: FoundProps & { readonly isAsked: boolean; readonly onAsk: (isAsked: boolean) => void }) {
  const { document, plan, found, showing, doubts, isAccepted, isAsked, onAsk, onShow, onAccept, onWithdraw } = props;
  const { choice } = document;
  const other = showing === 'best' ? 'accepted' : 'best';
  return (
    <Bar>
      <FoundText {...props} />
      {found.status === 'feasible' && <GoOn plan={plan} />}
      {choice && !isAccepted && <Button onPress={() => onShow(other)}>Show the {other} selection</Button>}
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
        <Button
          $kind={isAsked ? 'plain' : 'primary'}
          aria-expanded={isAsked}
          onPress={() => (doubts.length > 0 ? onAsk(true) : onAccept())}
        >
          Accept selection
        </Button>
      )}
      {isAsked && !isAccepted && doubts.length > 0 && (
        <Doubts
          doubts={doubts}
          onAccept={() => {
            onAsk(false);
            onAccept();
          }}
          onBack={() => onAsk(false)}
        />
      )}
    </Bar>
  );
}

/** What the search found, in a sentence, and the one thing to do about it. */
export function PlanBar(props: PlanBarProps) {
  const { document, readings, plan: job, play, doubts } = props;
  const [isAsked, setAsked] = useState(false);
  const { asked, plan, halves, fault } = job;
  const isAccepted = document.choice !== null && sameHalves(document.choice.stations, halves);
  const onAccept = () => {
    props.onAccept();
    goToNext();
  };
  const isFound = plan?.status === 'optimal' || plan?.status === 'feasible';
  const mayAccept = asked.ok && !fault && !job.isCancelled && isFound && !isAccepted;
  const accept = () => (doubts.length > 0 ? setAsked(true) : onAccept());
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
  if (!plan) return <Searching plan={job} />;
  if (plan.status === 'stopped') return <OutOfTime plan={job} leftOut={leftOut} />;
  if (plan.status === 'infeasible') {
    return (
      <>
        <Conflicts document={document} readings={readings} plan={plan} play={play} asked={asked} />
        {leftOut && <Notice>{leftOut}</Notice>}
      </>
    );
  }
  const found = { found: plan, isAccepted, leftOut, onAccept };
  return <FoundBar {...props} {...found} isAsked={isAsked} onAsk={setAsked} />;
}
