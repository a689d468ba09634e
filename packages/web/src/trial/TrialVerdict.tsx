import {
  COVERAGE,
  chanceText,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  lengthText,
  nanometres,
  spreadFigure,
  type Unit,
} from '@fettle/core';
import styled from 'styled-components';
import { GapGauge } from '../endPlay/GapGauge.js';
import { Button } from '../look/Button.js';
import { Notice } from '../look/Notice.js';
import { Quiet, Row } from '../look/Panel.js';
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
export function spreadText(u: number, unit: Unit): string {
  return `${spreadFigure(u, unit)} ${unit}`;
}

const VOID_WORDS = {
  cap: 'Its cap changed places since: this holds no more. Read the bore, put it together anew and read it again.',
  fasteners: 'The fasteners were changed since: this holds no more. Put it together anew and read it again.',
  rod: 'Another rod is on this pin now: this holds no more. Put it together anew and read it again.',
} as const;

/** What was measured at the open station, against what its parts let expect; and what to look for before it is believed. */
export function TrialVerdict({ work }: { readonly work: TrialWork }) {
  const { document, open, believe, restart } = work;
  const { unit } = document;
  const { station, halves, state } = open;
  const { tried, limits, aim } = station;
  if (!tried?.measured) return null;
  const { measured, predicted, difference, u, uMeasured, lookFor, isAsPredicted, trial, isVoid } = tried;
  const signed = (value: number) =>
    formatExactLength(nanometres(Math.round(value)), unit, INSTRUMENT_DECIMALS[unit], { plus: true });
  return (
    <>
      <Big>
        {formatExactLength(measured.nominal, unit, INSTRUMENT_DECIMALS[unit])} {unit}
        <small>
          ± {spreadText(uMeasured, unit)}, mean of {measured.count}
        </small>
      </Big>
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
          Predicted <span className="figure">{lengthText(predicted, unit)}</span> from its parts, measured{' '}
          <strong className="figure">{signed(difference)}</strong> from that; up to ±{' '}
          <span className="figure">{spreadText(u, unit)}</span> is within what both are known to.{' '}
          <strong>{isAsPredicted ? 'As predicted.' : 'Not as predicted.'}</strong>
        </p>
      )}
      {isVoid !== null && <Notice>{VOID_WORDS[isVoid]}</Notice>}
      {isVoid === null && tried.isSwapped && (
        <Notice>
          Read with {trial.upper.label} over {trial.lower.label}; {halves?.upper.label} over {halves?.lower.label} were
          accepted since. What is shown for those is worked out from the walls; read it again once they are in.
        </Notice>
      )}
      {isVoid === null && lookFor.length > 0 && (
        <Notice>
          <strong>
            {trial.isBelieved ? 'Believed, though not as predicted.' : 'Before it is believed, look for:'}
          </strong>
          <ul style={{ paddingLeft: '1.2rem', listStyle: 'disc' }}>
            {lookFor.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
          <Row>
            <Button onPress={() => believe(!trial.isBelieved)}>
              {trial.isBelieved ? 'Do not believe it after all' : 'Looked: it is so'}
            </Button>
          </Row>
        </Notice>
      )}
      {state === 'read' && open.verdict.chance !== null && (
        <Quiet>Chance that the true clearance is inside its limits: {chanceText(open.verdict.chance)}.</Quiet>
      )}
      {(isVoid !== null || tried.isSwapped) && (
        <Row>
          <Button onPress={restart}>Put together anew</Button>
        </Row>
      )}
    </>
  );
}
