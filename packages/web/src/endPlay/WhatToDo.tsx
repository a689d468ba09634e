import {
  chanceText,
  type EndPlayStep,
  formatLength,
  INSTRUMENT_DECIMALS,
  type JobDocument,
  lengthText,
  momentWord,
  type Nanometres,
  nanometres,
  settleSeen,
  type Unit,
} from '@fettle/core';
import { useState } from 'react';
import styled from 'styled-components';
import { BudgetTable } from '../fit/BudgetTable.js';
import { useBy } from '../person/useBy.js';
import { useClearances } from '../person/useClearances.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { StateMark } from '../ui/StateMark.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import { GapGauge } from './GapGauge.js';
import { PassesTable } from './PassesTable.js';
import { type EndPlayWork, planLength } from './useEndPlay.js';

const Figure = styled.p`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0.25rem 0.9rem;
  .big { font-size: 2.25rem; font-weight: 700; line-height: 1.1; }
  .soft { color: var(--ink-soft); font-size: var(--size-small); }
`;

const Steps = styled.ol`
  li { margin-top: 0.4rem; display: grid; grid-template-columns: 1.4rem minmax(0, 1fr); }
  .number { font-weight: 700; }
  summary { cursor: pointer; min-height: 2rem; color: var(--accent); }
`;

interface StepTextProps {
  readonly step: EndPlayStep;
  readonly unit: Unit;
  readonly isStack: boolean;
  /** True if a choice was accepted already, and did not do it. */
  readonly isChosen: boolean;
  /** What the best of them leads to. */
  readonly leadsTo: Nanometres | null;
}

function StepText({ step, unit, isStack, isChosen, leadsTo }: StepTextProps) {
  const { shown } = useClearances(unit);
  switch (step.kind) {
    case 'seat':
      return (
        <>
          <strong>Line up the flanges.</strong> Snug the thrust cap, knock the shaft both ways, torque again, and
          measure again as “{momentWord('seated')}”.
        </>
      );
    case 'pieces':
      return (
        <>
          <strong>{isStack ? 'Other rings' : step.way === 'thinner' ? 'Thinner ones' : 'Thicker ones'} in stock</strong>
          {isChosen
            ? ': select again from what is fitted now.'
            : leadsTo === null
              ? ', as below.'
              : `, as below: ${lengthText(leadsTo, shown)}.`}
        </>
      );
    case 'dress':
      return (
        <>
          <strong>Dress the faces</strong> on a flat plate with 400 to 600 grit:{' '}
          <span className="figure">{lengthText(step.total, shown)}</span> in all, half from each face, measuring often.{' '}
          {step.isUncoated ? 'Never through a coating.' : 'Only if uncoated: check first, and set it below.'}
          <details>
            <summary>{step.passes.length} passes, with the reading after each</summary>
            <PassesTable
              label="Passes over the plate"
              off="Off each face"
              unit={unit}
              passes={step.passes.map(({ perFace, expected }) => ({ off: perFace, expected }))}
            />
          </details>
        </>
      );
    case 'stop':
      if (step.why === 'uneven')
        return (
          <>
            <strong>Stop:</strong> the angles are further apart than the limits. No washer or shim brings both inside:
            check the flange, the faces and the stack for dirt and runout.
          </>
        );
      return step.why === 'machining' ? (
        <>
          <strong>Stop:</strong> nothing in stock fits and no more can be dressed off. Get other washers or shims, or
          machine.
        </>
      ) : (
        <>
          <strong>Stop:</strong> check the thrust faces of the shaft. Repair a worn face, or get thicker washers.
        </>
      );
  }
}

interface KeepForTypeProps {
  readonly settle: Nanometres;
  readonly origin: NonNullable<JobDocument['origin']>;
  readonly unit: Unit;
}

/** Keeps what a stack was seen to settle on the data sheet of the engine's type, as its next revision, for the engines to come. */
function KeepForType({ settle, origin, unit }: KeepForTypeProps) {
  const { shown } = useClearances(unit);
  const by = useBy();
  const [told, setTold] = useState<string | null>(null);
  const keep = async () => {
    try {
      const { type, revision } = await tell('getType', { id: origin.type });
      await tell('putType', { id: origin.type, body: { revision, by, type: { ...type, settle } } });
      setTold(`Saved on the data sheet of ${type.name}: ${lengthText(settle, shown)}.`);
    } catch (error) {
      setTold(refusalInWords(error));
    }
  };
  return told === null ? (
    <Button onPress={() => void keep()}>Use for every engine of this type</Button>
  ) : (
    <p role="status">{told}</p>
  );
}

/** The figure, how far it is known, its verdict, and what it rests on. */
function FigureNow({ work: { document, now, verdict, kind } }: { readonly work: EndPlayWork }) {
  const { shown } = useClearances(document.unit);
  if (!now) return <Quiet>{kind === 'rings' ? 'Read the gap without shims first.' : 'No readings yet.'}</Quiet>;
  return (
    <>
      <Figure>
        <span className="big figure">{lengthText(now.mean, shown)}</span>
        <span className="figure soft">
          ± {formatLength(nanometres(Math.round(now.expanded)), shown, INSTRUMENT_DECIMALS[shown])}
        </span>
        {verdict && <StateMark state={verdict.state} />}
        <span className="soft">
          {now.count === 1 ? 'one reading' : `${now.count} readings`}, {momentWord(now.moment)}
          {verdict && `; chance of being in limits ${chanceText(verdict.chance)}`}
        </span>
        {now.angles.length > 1 && (
          <span className="figure soft">
            {now.angles.map(({ angle, mean }) => `${lengthText(mean, shown)} at ${angle}°`).join(', ')}
          </span>
        )}
      </Figure>
      <BudgetTable of="the end play" budget={now.budget} unit={shown} factor={now.expanded / now.uncertainty} />
    </>
  );
}

/** What to doubt before anything is done: repeats that are apart, a prediction that was missed. */
function Doubts({ work: { document, now, missed, endPlay } }: { readonly work: EndPlayWork }) {
  const { shown } = useClearances(document.unit);
  return (
    <>
      {now?.isDoubtful && (
        <Notice>
          Repeats at one angle are {lengthText(now.apart, shown)} apart, more than{' '}
          {lengthText(endPlay.repeatWithin, shown)}: check the dial and its stand, lever fully, and measure again.
        </Notice>
      )}
      {missed !== null && (
        <Notice>
          That is {lengthText(Math.abs(missed), shown)} {missed > 0 ? 'more' : 'less'} than predicted. Check for dirt
          behind a piece, a piece in the wrong place, or the dial, then re-read.
        </Notice>
      )}
    </>
  );
}

/** What a stack of rings was seen to settle; null where that is not known, or is doubted. */
function settledIn({ kind, now, endPlay, before, missed }: EndPlayWork): Nanometres | null {
  // What misses its prediction is doubted first, not learnt from.
  if (kind !== 'rings' || now?.moment !== 'fitted' || missed !== null) return null;
  const seen = settleSeen(endPlay, before?.mean ?? null, now.mean);
  return seen !== null && seen >= 0 ? seen : null;
}

/** Offers to count on what the stack was seen to settle, for this engine and for those of its type. */
function Settled({ work }: { readonly work: EndPlayWork }) {
  const { document, endPlay, set } = work;
  const { shown } = useClearances(document.unit);
  const settled = settledIn(work);
  if (settled === null || settled === endPlay.settle) return null;
  return (
    <Row>
      <Quiet>
        With the stack in it reads as if it settled {lengthText(settled, shown)}; {lengthText(endPlay.settle, shown)}{' '}
        was counted on.
      </Quiet>
      <Button onPress={() => set({ settle: settled }, 'what a stack of rings settles')}>
        Count on {lengthText(settled, shown)} from now on
      </Button>
      {document.origin && <KeepForType settle={settled} origin={document.origin} unit={document.unit} />}
    </Row>
  );
}

/** What the end play comes to, on one line with its limits and what the pieces would give; and what to do about it, in order. */
export function WhatToDo({ work }: { readonly work: EndPlayWork }) {
  const { document, now, limit, aim, steps, outcome, shims, kind, endPlay } = work;
  const { shown } = useClearances(document.unit);
  const isGap = now?.moment === 'without';
  const after = outcome && endPlay.choice === null ? planLength(outcome.result, document) : null;
  return (
    <Panel aria-label="Result">
      <PanelTitle>{isGap ? 'Gap without shims' : 'End play now'}</PanelTitle>
      <FigureNow work={work} />
      <Doubts work={work} />
      <GapGauge
        what="End play"
        unit={shown}
        limit={limit}
        aim={aim}
        now={
          now && !isGap ? { mean: now.mean, spread: Math.max((now.largest - now.smallest) / 2, now.expanded) } : null
        }
        after={after}
        others={shims.choices.map(({ result }) => planLength(result, document))}
      />
      <Quiet>
        {limit === null
          ? 'No end play limits on the data sheet: not judged.'
          : `Limits: ${limit.source}. ${kind === 'rings' ? 'Too tight is the dangerous side: when it is hot, it binds.' : ''}`}
      </Quiet>
      <Settled work={work} />
      {steps.length > 0 && (
        <Steps aria-label="What to do, in order">
          {steps.map((step, at) => (
            <li key={step.kind}>
              <span className="number" aria-hidden>
                {at + 1}.
              </span>
              <div>
                <StepText
                  step={step}
                  unit={document.unit}
                  isStack={kind === 'rings'}
                  isChosen={endPlay.choice !== null}
                  leadsTo={after}
                />
              </div>
            </li>
          ))}
        </Steps>
      )}
    </Panel>
  );
}
