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

/** What was measured at the open station, against what its parts let expect; and what to look for before it is believed. */
export function TrialVerdict({ work }: { readonly work: TrialWork }) {
  const { document, open, confirm, restart } = work;
  const { shown: unit } = useClearances(document.unit);
  const { station, halves, state } = open;
  const { tried, limits, aim } = station;
  if (!tried?.measured) return null;
  const {
    measured,
    steps,
    predicted,
    difference,
    u,
    uMeasured,
    lookFor,
    isAsPredicted,
    isConfirmed,
    trial,
    isVoid,
    changed,
  } = tried;
  const toReference = Math.round(steps.reduce((sum, step) => sum + step.toReference, 0) / steps.length);
  const celsius = [...new Set(steps.flatMap((step) => step.celsius ?? []))];
  const corrected = trialCorrections(document, steps);
  const signed = (value: number) => workedOutText(value, unit, { plus: true });
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
          At 20 °C: read at {celsius.join(' and ')} °C, {signed(toReference)} {unit} by the expansion of housing, shells
          and journal.
        </Quiet>
      )}
      {corrected.map((words) => (
        <Quiet key={words}>{words}</Quiet>
      ))}
      <BudgetTable of={`the clearance measured at ${station.id}`} budget={tried.measuredBudget} unit={unit} />
      <GapGauge
        unit={unit}
        what={`Clearance of ${station.id}`}
        limit={limits}
        aim={aim}
        now={{ mean: measured.nominal, spread: COVERAGE * uMeasured }}
        after={predicted}
        others={[]}
      />
      {difference !== null && predicted !== null && (
        <p>
          Predicted <span className="figure">{lengthText(predicted, unit)}</span>, measured{' '}
          <strong className="figure">{signed(difference)}</strong> off; ±{' '}
          <span className="figure">{spreadText(u, unit)}</span> is within uncertainty.{' '}
          <strong>{isAsPredicted ? 'As predicted.' : 'Not as predicted.'}</strong>
        </p>
      )}
      {difference !== null && (
        <BudgetTable
          act="Where ± of the difference comes from"
          of={`measured less predicted at ${station.id}`}
          budget={tried.budget}
          unit={unit}
        />
      )}
      {isVoid !== null && <Notice>Out of date: fasteners changed since. Reassemble and re-read.</Notice>}
      {isVoid === null && changed === 'halves' && (
        <Notice>
          Read with {trial.upper.label} over {trial.lower.label}; {halves?.upper.label} over {halves?.lower.label} are
          accepted now. Their clearance is worked out from the walls. Re-read once they are in.
        </Notice>
      )}
      {isVoid === null && changed !== null && changed !== 'halves' && (
        <Notice>{CHANGED_NOTES[changed]} What it says of the assembly stays.</Notice>
      )}
      {isVoid === null && lookFor.length > 0 && (
        <Notice>
          <strong>{isConfirmed ? 'Confirmed, though not as predicted.' : 'Check first for:'}</strong>
          {trial.isBelieved &&
            !isConfirmed &&
            ' It was confirmed before a size it rests on was corrected: confirm again.'}
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
      )}
      {state === 'read' && open.verdict.chance !== null && (
        <Quiet>Chance that the true clearance is inside its limits: {chanceText(open.verdict.chance)}.</Quiet>
      )}
      {(isVoid !== null || changed !== null) && halves && (
        <Row>
          <Button onPress={restart}>Start a new trial</Button>
        </Row>
      )}
    </>
  );
}
