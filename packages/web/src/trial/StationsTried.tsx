import { CHANGED_WORDS, columnText, type TrialState } from '@fettle/core';
import { ChevronRight, TriangleAlert } from 'lucide-react';
import styled from 'styled-components';
import { useClearances } from '../person/useClearances.js';
import { Button } from '../ui/Button.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../ui/Panel.js';
import { StateMark } from '../ui/StateMark.js';
import type { TriedStation } from './trialOf.js';
import type { TrialWork } from './useTrial.js';

const Stations = styled(Table)`
  @media (max-width: 640px) {
    th:nth-child(2), td:nth-child(2), th:nth-child(5), td:nth-child(5) { display: none; }
    th, td { padding-left: 0.15rem; padding-right: 0.15rem; }
    td button { padding: 0; min-width: 36px; }
  }
  tr[aria-current='true'] td { background: var(--accent-soft); }
  td:first-child { font-weight: 700; white-space: nowrap; }
  td small { display: block; color: var(--ink-soft); }
`;

/** On the narrowest screens the table scrolls in its place; what only a screen reader reads goes with it. */
const Scroll = styled.div`
  position: relative;
  overflow-x: auto;
`;

const Doubt = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 0.35rem;
  font-weight: 700;
  font-size: var(--size-small);
  color: var(--close);
`;

const TRIAL_WORDS: Readonly<Record<TrialState, string>> = {
  void: 'reassemble, re-read',
  off: 'check before it is confirmed',
  swapped: 'other parts since',
  read: 'as predicted',
  open: '',
};

/** How a station stands: measured and how; else what trials of others add to it. */
function Standing({ one }: { readonly one: TriedStation }) {
  const { station, state, verdict } = one;
  const { tried, offsets } = station;
  if (state === 'read' && tried && !tried.isAsPredicted) return <small>confirmed</small>;
  if (state === 'swapped') return <small>{tried?.changed && CHANGED_WORDS[tried.changed]}</small>;
  if (state !== 'open') return <small>{TRIAL_WORDS[state]}</small>;
  const from = verdict.offset ?? offsets[0];
  return from && !from.isOwn ? (
    <small>with {from.engines > 0 ? 'expected offset' : from.stations.join(', ')} applied</small>
  ) : null;
}

/** The state of a station; of one whose trial is in doubt, or holds no more, that instead: what was predicted is not to be trusted. */
export function TrialMark({ one: { state, verdict } }: { readonly one: TriedStation }) {
  if (state !== 'off' && state !== 'void') return <StateMark state={verdict.state} />;
  return (
    <Doubt>
      <TriangleAlert aria-hidden size={20} />
      {state === 'off' ? 'Not as predicted' : 'Out of date'}
    </Doubt>
  );
}

/** Every station with what is predicted and what was measured; the one to try first is named. */
export function StationsTried({ work }: { readonly work: TrialWork }) {
  const { document, stations, open, show, first } = work;
  const { shown: unit, said } = useClearances(document.unit);
  const rows = stations.map((one) => {
    const { tried } = one.station;
    // A row is of one pair: while the trial is of the parts that are there, of the tried pair; else of the accepted one alone.
    const own = tried !== null && tried.changed === null && tried.isVoid === null ? tried : null;
    const predicted = own?.predicted ?? (one.verdict.isMeasured ? null : one.verdict.clearance?.nominal);
    return { one, own, predicted };
  });
  const figure = columnText(
    rows.flatMap(({ own, predicted }) => [predicted, own?.measured?.nominal, own?.difference]),
    unit,
  );
  const text = (value: number | null | undefined) => (value == null ? '' : figure(value));
  return (
    <Panel aria-label="Stations">
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle>With the shells in</PanelTitle>
        {first && (
          <Button $kind="primary" onPress={() => show(first.station)}>
            Try {first.station} first
          </Button>
        )}
      </Row>
      {first && (
        <Quiet>
          {first.station} has {said(first.reason)}: it tests the selection first.
        </Quiet>
      )}
      <Scroll>
        <Stations aria-label={`Clearances, ${unit}`}>
          <thead>
            <tr>
              <th>Station</th>
              <th>Shells</th>
              <th className="number">Predicted</th>
              <th className="number">Measured</th>
              <th className="number">Difference</th>
              <th>State</th>
              <th>
                <span className="visually-hidden">Open</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ one, own, predicted }) => {
              const { station, halves } = one;
              return (
                <tr key={station.id} aria-current={station.id === open.station.id}>
                  <td>{station.id}</td>
                  <td>
                    {halves ? (
                      `${halves.upper.label} over ${halves.lower.label}`
                    ) : (
                      <Quiet as="span">none accepted</Quiet>
                    )}
                  </td>
                  <td className="number">{text(predicted)}</td>
                  <td className="number">{text(own?.measured?.nominal)}</td>
                  <td className="number">{text(own?.difference)}</td>
                  <td>
                    <TrialMark one={one} />
                    <Standing one={one} />
                  </td>
                  <td>
                    <Button $kind="quiet" aria-label={`Open ${station.id}`} onPress={() => show(station.id)}>
                      <ChevronRight aria-hidden size={20} />
                    </Button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </Stations>
      </Scroll>
    </Panel>
  );
}
