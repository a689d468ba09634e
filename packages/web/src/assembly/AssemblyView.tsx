import type { StationAssembly, StationCheck } from '@fettle/core';
import { Printer, SquareCheckBig } from 'lucide-react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useShortcut } from '../base/shortcuts.js';
import { useNarrow } from '../base/useNarrow.js';
import { useOpenJob } from '../job/JobPage.js';
import { Button } from '../ui/Button.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { TwoColumns } from '../ui/TwoColumns.js';
import { BuiltPanel, FacePanel } from './BuiltPanel.js';
import { CheckRow } from './CheckRow.js';
import { SwapPanel } from './SwapPanel.js';
import { TurnPanel } from './TurnPanel.js';
import { type AssemblyWork, openAt, useAssembly } from './useAssembly.js';

const Stations = styled(Row)`
  gap: 0.4rem;
  button { flex-direction: column; gap: 0; padding: 0.2rem 0.7rem; line-height: 1.2; min-width: 4.2rem; }
  button small { font-weight: 400; color: var(--ink-soft); }
  button[aria-pressed='true'] { background: var(--accent-soft); border-color: var(--accent); border-width: 2px; }
`;

const List = styled.ul`
  list-style: none;
  padding: 0;
  margin: 0.25rem 0 0;
`;

/** The stations in the order in which they are put together, each with what is open. */
function StationBar({ work }: { work: AssemblyWork }) {
  const { stations, station, show } = work;
  return (
    <Stations role="group" aria-label="Stations in working order">
      {stations.map((one) => {
        const open = openAt(one);
        return (
          <Button
            key={one.station}
            aria-pressed={one === station}
            aria-label={`${one.station}: ${open === 0 ? 'all done' : `${open} open`}`}
            onPress={() => show(one.station)}
          >
            {one.station}
            <small>
              {open === 0 ? <SquareCheckBig aria-hidden size={16} color="var(--inside)" /> : `${open} open`}
            </small>
          </Button>
        );
      })}
    </Stations>
  );
}

/** The halves that go in, as they were chosen. */
function HalvesText({ work, one }: { work: AssemblyWork; one: StationAssembly }) {
  const chosen = work.document.choice?.stations[one.station];
  if (!chosen) return <Quiet>No shells selected for it yet.</Quiet>;
  return (
    <p>
      <strong>{chosen.upper.label}</strong> over <strong>{chosen.lower.label}</strong>
      {one.rod !== null && `, rod ${one.rod}`}
    </p>
  );
}

/** Ticks what is open at once, where that is more than one thing; problems are said one by one before. */
function AllInOrder({ work, checks }: { work: AssemblyWork; checks: readonly StationCheck[] }) {
  const open = checks.filter(({ isOpen, made, isOutdated }) => isOpen && (isOutdated || made === null));
  if (open.length < 2) return null;
  return (
    <Button $kind="primary" onPress={() => work.say(open, { state: 'done' })}>
      <SquareCheckBig aria-hidden size={20} />
      All in order
    </Button>
  );
}

/** What is seen to at one station; on a small screen one thing at a time. */
function StationChecks({ work }: { work: AssemblyWork }) {
  const { station, stations, show } = work;
  const isNarrow = useNarrow();
  const { before, after } = station;
  const checks = [...before, ...after];
  const open = checks.filter(({ isOpen }) => isOpen);
  const beforeOpen = before.some(({ isOpen }) => isOpen);
  const single = open[0];
  const shownBefore = isNarrow ? (single && before.includes(single) ? [single] : []) : before;
  const shownAfter = isNarrow ? (single && after.includes(single) && !station.isTurnOpen ? [single] : []) : after;
  const isDone = openAt(station) === 0;
  const next = stations.find((one) => one !== station && openAt(one) > 0);
  return (
    <>
      <Panel aria-label={`Checks at ${station.station}`}>
        <Row style={{ justifyContent: 'space-between' }}>
          <PanelTitle>Assemble {station.station}</PanelTitle>
          <Row>
            <Quiet>
              {checks.length - open.length} of {checks.length} checked
            </Quiet>
            <AllInOrder work={work} checks={before} />
          </Row>
        </Row>
        <HalvesText work={work} one={station} />
        <List>
          {shownBefore.map((check) => (
            <CheckRow key={check.place} work={work} check={check} />
          ))}
        </List>
        {isNarrow && !beforeOpen && <Quiet>Ready to tighten.</Quiet>}
      </Panel>
      {(!isNarrow || !beforeOpen) && (
        <>
          <Panel>
            <p>
              <strong>Tighten</strong> from the middle out, pass by pass: <Link to="../torque">figures and order</Link>.
            </p>
          </Panel>
          <TurnPanel key={station.station} work={work} one={station} />
          {shownAfter.length > 0 && (
            <Panel aria-label={`After tightening ${station.station}`}>
              <Row style={{ justifyContent: 'flex-end' }}>
                <AllInOrder work={work} checks={after} />
              </Row>
              <List>
                {shownAfter.map((check) => (
                  <CheckRow key={check.place} work={work} check={check} />
                ))}
              </List>
            </Panel>
          )}
        </>
      )}
      {isDone && next && (
        <Row>
          <Button $kind="primary" onPress={() => show(next.station)}>
            Next: {next.station}
          </Button>
        </Row>
      )}
    </>
  );
}

/** Putting the engine together: station by station from the middle out, check by check. */
export function AssemblyView() {
  const work = useAssembly(useOpenJob());
  const { stations, station, show } = work;
  const next = stations[(stations.indexOf(station) + 1) % stations.length];
  useShortcut('s', 'Next station', next && next !== station ? () => show(next.station) : null);
  return (
    <TwoColumns>
      <div>
        <StationBar work={work} />
        <StationChecks key={work.station.station} work={work} />
      </div>
      <div>
        <Panel>
          <FacePanel work={work} />
          <BuiltPanel work={work} />
          <SwapPanel work={work} />
          <Row style={{ marginTop: '0.5rem' }}>
            <Link to="../labels">
              <Printer aria-hidden size={18} /> Labels for parts and stations
            </Link>
          </Row>
          <Quiet style={{ marginTop: '0.5rem' }}>
            Cranks are heavy: lift with help. Eye protection with brake cleaner and compressed air; gloves and air with
            solvents. Fingers clear of caps and rods when the shaft turns.
          </Quiet>
        </Panel>
      </div>
    </TwoColumns>
  );
}
