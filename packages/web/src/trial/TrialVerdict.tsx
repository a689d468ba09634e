import {
  COVERAGE,
  chanceText,
  lengthText,
  type ShownUnit,
  spreadFigure,
  trialCorrections,
  workedOutText,
} from '@fettle/core';
import styled from 'styled-components';
import { GapGauge } from '../endPlay/GapGauge.js';
import { BudgetTable } from '../fit/BudgetTable.js';
import { useClearances } from '../person/useClearances.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Quiet, Row } from '../ui/Panel.js';
import type { TrialWork } from './useTrial.js';

const Big = styled.p`
  display: flex;
  align-items: baseline;
  flex-wrap: wrap;
  gap: 0 0.75rem;
  font-family: var(--figures);
  font-size: 2rem;
  font-weight: 700;
  line-height: 1.2;
  small { font-family: var(--text); font-size: 1rem; font-weight: 400; color: var(--ink-soft); }
`;

/** Twice a standard uncertainty with its unit: `0.005 mm`. */
export function spreadText(u: number, unit: ShownUnit): string {
  return `${spreadFigure(u, unit)} ${unit}`;
}

const CHANGED_NOTES = {
  cap: 'Cap swapped since. Re-measure the bore, reassemble and re-read.',
  rod: 'Another rod is on this pin now. Reassemble and re-read.',
  machined: 'Housing or journal machined since. Reassemble and re-read.',
  swapped: 'Shells swapped since. Reassemble and re-read.',
} as const;

type Tried = NonNullable<TrialWork['open']['station']['tried']>;

interface Measured extends Tried {
  readonly measured: NonNullable<Tried['measured']>;
}

interface PartProps {
  readonly work: TrialWork;
  readonly tried: Measured;
}

/** The clearance that was measured, where its ± comes from, and how it lies to limits and prediction. */
function MeasuredClearance({ work: { document, open }, tried }: PartProps) {
  const { shown: unit } = useClearances(document.unit);
  const { measured, uMeasured, steps, predicted } = tried;
  const { id, limits, aim } = open.station;
  const toReference = Math.round(steps.reduce((sum, step) => sum + step.toReference, 0) / steps.length);
  const celsius = [...new Set(steps.flatMap((step) => step.celsius ?? []))];
  return (
    <>
      <Big>
        {workedOutText(measured.nominal, unit)} {unit}
        <small>
          ± {spreadText(uMeasured, unit)}, mean of {measured.count}
        </small>
      </Big>
      {toReference !== 0 && (
        <Quiet>
          At 20 °C: read at {celsius.join(' and ')} °C, {workedOutText(toReference, unit, { plus: true })} {unit} by the
          expansion of housing, shells and journal.
        </Quiet>
      )}
      {trialCorrections(document, steps).map((words) => (
        <Quiet key={words}>{words}</Quiet>
      ))}
      <BudgetTable of={`the clearance measured at ${id}`} budget={tried.measuredBudget} unit={unit} />
      <GapGauge
        unit={unit}
        what={`Clearance of ${id}`}
        limit={limits}
        aim={aim}
        now={{ mean: measured.nominal, spread: COVERAGE * uMeasured }}
        after={predicted}
        others={[]}
      />
    </>
  );
}

/** How far the measured clearance is off the predicted one, and whether that lies within what is known. */
function Difference({ work: { document, open }, tried }: PartProps) {
  const { shown: unit } = useClearances(document.unit);
  const { difference, predicted, u, isAsPredicted } = tried;
  if (difference === null) return null;
  return (
    <>
      {predicted !== null && (
        <p>
          Predicted <span className="figure">{lengthText(predicted, unit)}</span>, measured{' '}
          <strong className="figure">{workedOutText(difference, unit, { plus: true })}</strong> off; ±{' '}
          <span className="figure">{spreadText(u, unit)}</span> is within uncertainty.{' '}
          <strong>{isAsPredicted ? 'As predicted.' : 'Not as predicted.'}</strong>
        </p>
      )}
      <BudgetTable
        act="Where ± of the difference comes from"
        of={`measured less predicted at ${open.station.id}`}
        budget={tried.budget}
        unit={unit}
      />
    </>
  );
}

/** What has ended the trial, or changed under it. */
function ChangedNotice({ work: { open }, tried: { isVoid, changed, trial } }: PartProps) {
  if (isVoid !== null) return <Notice>Out of date: fasteners changed since. Reassemble and re-read.</Notice>;
  if (changed === null) return null;
  if (changed !== 'halves') return <Notice>{CHANGED_NOTES[changed]} What it says of the assembly stays.</Notice>;
  const { halves } = open;
  return (
    <Notice>
      Read with {trial.upper.label} over {trial.lower.label}; {halves?.upper.label} over {halves?.lower.label} are
      accepted now. Their clearance is worked out from the walls. Re-read once they are in.
    </Notice>
  );
}

/** What to look for before a reading that was not expected is confirmed. */
function LookFor({ work: { confirm }, tried: { isVoid, lookFor, isConfirmed, trial } }: PartProps) {
  if (isVoid !== null || lookFor.length === 0) return null;
  return (
    <Notice>
      <strong>{isConfirmed ? 'Confirmed, though not as predicted.' : 'Check first for:'}</strong>
      {trial.isBelieved && !isConfirmed && ' It was confirmed before a size it rests on was corrected: confirm again.'}
      <ul style={{ paddingLeft: '1.2rem', listStyle: 'disc' }}>
        {lookFor.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      <Row>
        <Button onPress={() => confirm(!isConfirmed)}>
          {isConfirmed ? 'Withdraw confirmation' : 'Checked: reading is right'}
        </Button>
      </Row>
    </Notice>
  );
}

/** What was measured at the open station, against what its parts let expect; and what to look for before it is confirmed. */
export function TrialVerdict({ work }: { readonly work: TrialWork }) {
  const { open, restart } = work;
  const { tried } = open.station;
  if (!tried?.measured) return null;
  const part = { work, tried: { ...tried, measured: tried.measured } };
  return (
    <>
      <MeasuredClearance {...part} />
      <Difference {...part} />
      <ChangedNotice {...part} />
      <LookFor {...part} />
      {open.state === 'read' && open.verdict.chance !== null && (
        <Quiet>Chance that the true clearance is inside its limits: {chanceText(open.verdict.chance)}.</Quiet>
      )}
      {(tried.isVoid !== null || tried.changed !== null) && open.halves && (
        <Row>
          <Button onPress={restart}>Start a new trial</Button>
        </Row>
      )}
    </>
  );
}
