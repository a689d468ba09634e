import {
  type AcceptedChoice,
  BELIEVABLE_WEAR,
  type Candidate,
  CLEARANCE_DECIMALS,
  commonDecimals,
  formatExactLength,
  formatLength,
  INSTRUMENT_DECIMALS,
  type JobDocument,
  type MainStation,
  type Nanometres,
  type Reading,
  type StationVerdict,
} from '@fettle/core';
import { format } from 'date-fns';
import { X } from 'lucide-react';
import styled from 'styled-components';
import { LIMIT_KEYS, LIMIT_NAMES } from '../data/limitText.js';
import { Button } from '../look/Button.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../look/Panel.js';
import { StateMark, StateShape } from '../look/StateMark.js';
import { SLOT_WORDS } from '../measure/featureWords.js';

const Sum = styled.table`
  width: 100%;
  border-collapse: collapse;
  margin: 0.4rem 0;
  td { padding: 0.12rem 0; vertical-align: baseline; }
  td.figure { text-align: right; font-size: var(--size-figure); }
  td.what { padding-left: 0.75rem; color: var(--ink-soft); font-size: var(--size-small); }
  tr.result td { border-top: 2px solid var(--ink); font-weight: 700; }
`;

const Scroll = styled.div`
  max-height: 15.5rem;
  overflow-y: auto;
  td { font-size: var(--size-small); padding: 0.3rem 0.25rem; line-height: 1.2; }
  th { padding: 0.25rem; }
  tr[aria-current='true'] td { background: var(--accent-soft); font-weight: 700; }
`;

const Readings = styled.ul`
  font-size: var(--size-small);
  color: var(--ink-soft);
`;

interface StationPanelProps {
  readonly document: JobDocument;
  readonly station: MainStation;
  readonly readings: readonly Reading[];
  readonly halves: AcceptedChoice['stations'][string] | null;
  readonly verdict: StationVerdict;
  readonly candidates: readonly Candidate[];
  readonly onClose: () => void;
}

function FindingText({ station, unit }: { station: MainStation; unit: JobDocument['unit'] }) {
  return station.findings.map(({ feature, by, side }) => (
    <p key={`${feature}-${side}`}>
      <strong>
        {feature === 'mainBore' ? 'Bore' : 'Journal'} {side === 'over' ? 'above' : 'below'} its limit by{' '}
        {formatExactLength(by, unit, INSTRUMENT_DECIMALS[unit])} {unit}.
      </strong>{' '}
      {by > BELIEVABLE_WEAR
        ? 'No wear does that: a figure is in doubt. Read it again.'
        : 'No shell cures it: read it again, then machine or replace the part.'}
    </p>
  ));
}

/** One main opened up: the sum as on paper, what stands behind each figure, and what the other pairs would give. */
export function StationPanel({ document, station, readings, halves, verdict, candidates, onClose }: StationPanelProps) {
  const { unit } = document;
  const exact = (value: Nanometres) => formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit]);
  const signed = (value: Nanometres) => formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit], { plus: true });
  const { clearance, judged } = verdict;
  const unjudged = LIMIT_KEYS.filter((key) => document.limits[key] === null);
  const summed = [
    station.bore?.nominal,
    station.journal?.nominal,
    halves?.upper.wall,
    halves?.lower.wall,
    clearance?.nominal,
  ];
  const decimals = commonDecimals(
    summed.filter((value) => value !== undefined),
    unit,
    INSTRUMENT_DECIMALS[unit],
    6,
  );
  const summand = (value: Nanometres) => formatLength(value, unit, decimals);
  const own = readings.filter((reading) => reading.station === station.number && reading.text !== '');
  const label = (id: string) => document.shells[id]?.grade ?? id;
  return (
    <Panel aria-label={`Main ${station.number}`}>
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle>{station.id}</PanelTitle>
        <StateMark state={verdict.state} />
        <Button $kind="quiet" aria-label="Close the detail" onPress={onClose}>
          <X aria-hidden size={20} />
        </Button>
      </Row>
      <FindingText station={station} unit={unit} />
      {unjudged.length > 0 && (
        <p>
          Not judged, for the data sheet has no limits:{' '}
          {unjudged.map((key) => LIMIT_NAMES[key].toLowerCase()).join(', ')}.
        </p>
      )}
      {station.bore && station.journal ? (
        <Sum aria-label="Arithmetic">
          <tbody>
            <tr>
              <td className="figure">{summand(station.bore.nominal)}</td>
              <td className="what">bore, mean of {station.bore.count}</td>
            </tr>
            <tr>
              <td className="figure">− {summand(station.journal.nominal)}</td>
              <td className="what">journal, mean of {station.journal.count}</td>
            </tr>
            {halves ? (
              <>
                <tr>
                  <td className="figure">− {summand(halves.upper.wall)}</td>
                  <td className="what">upper, {halves.upper.label}</td>
                </tr>
                <tr>
                  <td className="figure">− {summand(halves.lower.wall)}</td>
                  <td className="what">lower, {halves.lower.label}</td>
                </tr>
              </>
            ) : (
              <tr>
                <td className="figure">− ?</td>
                <td className="what">two walls, nothing chosen</td>
              </tr>
            )}
            {clearance && (
              <tr className="result">
                <td className="figure">{summand(clearance.nominal)}</td>
                <td className="what">oil clearance, {unit}</td>
              </tr>
            )}
          </tbody>
        </Sum>
      ) : (
        <p>
          A clearance needs a bore and a journal; {station.bore ? 'the journal' : station.journal ? 'the bore' : 'both'}{' '}
          is missing.
        </p>
      )}
      {clearance && (
        <Quiet>
          Tightest <span className="figure">{exact(clearance.tightest)}</span>, loosest{' '}
          <span className="figure">{exact(clearance.loosest)}</span>
          {station.aim !== null && (
            <>
              . Aim <span className="figure">{exact(station.aim)}</span>, off by{' '}
              <span className="figure">{signed((clearance.nominal - station.aim) as Nanometres)}</span>
            </>
          )}
          {judged &&
            (judged.margin >= 0 ? (
              <>
                . <span className="figure">{exact(judged.margin)}</span> to the {judged.side} limit.
              </>
            ) : (
              <>
                . Beyond the {judged.side} limit by{' '}
                <span className="figure">{exact(-judged.margin as Nanometres)}</span>.
              </>
            ))}
        </Quiet>
      )}
      {candidates.length > 0 && (
        <Scroll tabIndex={0} role="region" aria-label={`What each pair would give at ${station.id}`}>
          <Table>
            <thead>
              <tr>
                <th>Upper</th>
                <th>Lower</th>
                <th className="number">Gives</th>
                <th className="number">Off aim</th>
                <th>
                  <span className="visually-hidden">Verdict</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {candidates.map((candidate) => (
                <tr
                  key={`${candidate.upper} ${candidate.lower}`}
                  aria-current={halves?.upper.shell === candidate.upper && halves.lower.shell === candidate.lower}
                >
                  <td>{label(candidate.upper)}</td>
                  <td>{label(candidate.lower)}</td>
                  <td className="number">
                    {formatLength(candidate.clearance.nominal, unit, CLEARANCE_DECIMALS[unit])}
                  </td>
                  <td className="number">
                    {candidate.deviation === null
                      ? '·'
                      : formatLength(candidate.deviation, unit, CLEARANCE_DECIMALS[unit], { plus: true })}
                  </td>
                  <td title={candidate.verdict?.state}>
                    {candidate.verdict && <StateShape state={candidate.verdict.state} size={16} />}
                    <span className="visually-hidden">{candidate.verdict?.state ?? 'no limits'}</span>
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        </Scroll>
      )}
      <details>
        <summary>{own.length} readings behind it</summary>
        <Readings>
          {own.map((reading) => (
            <li key={reading.id}>
              {reading.feature === 'mainBore' ? 'Bore' : 'Journal'} {SLOT_WORDS[reading.slot].toLowerCase()}:{' '}
              <span className="figure">{reading.text}</span>, {reading.by},{' '}
              {format(new Date(reading.at), 'd MMM HH:mm')}
            </li>
          ))}
        </Readings>
      </details>
    </Panel>
  );
}
