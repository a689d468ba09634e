import { type Candidate, formatExactLength, INSTRUMENT_DECIMALS, roughText } from '@fettle/core';
import styled from 'styled-components';
import { usePairs } from '../choose/usePairs.js';
import { useClearances } from '../person/useClearances.js';
import { Panel, PanelTitle, Quiet, Table } from '../ui/Panel.js';
import { StateMark } from '../ui/StateMark.js';
import type { TrialWork } from './useTrial.js';

/** In a hand the walls are left out: the grade tells them. */
const Pairs = styled(Table)`
  @media (max-width: 640px) {
    th:nth-child(2), td:nth-child(2), th:nth-child(4), td:nth-child(4) { display: none; }
  }
`;

/** Maximum pairs shown, nearest to the target first. */
const SHOWN = 6;

/** What every other pair would read at the open station, by the difference of the walls: nothing is measured again for that. */
export function OtherPairs({ work }: { readonly work: TrialWork }) {
  const { document, open } = work;
  const { station } = open;
  const { unit } = document;
  const { shown } = useClearances(unit);
  // One of the nearest may be the pair that is in.
  const listed = usePairs(document, [station], station.id, (worker, key) =>
    worker.candidates(key, station, SHOWN + 1, null),
  );
  const pairs = listed?.candidates ?? [];
  const trial = station.tried?.measured ? station.tried.trial : null;
  if (!trial || !station.offsets.some(({ isOwn }) => isOwn)) return null;
  const far = ({ clearance, deviation }: Candidate) => Math.abs(deviation ?? clearance.nominal);
  const others = pairs
    .filter(({ upper, lower }) => upper !== trial.upper.shell || lower !== trial.lower.shell)
    .sort((one, other) => far(one) - far(other))
    .slice(0, SHOWN);
  if (others.length === 0) return null;
  const grade = (id: string) => document.shells[id]?.grade ?? id;
  const wall = (value: Candidate['upperWall']) => formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit]);
  return (
    <Panel aria-label={`Other pairs at ${station.id}`}>
      <PanelTitle>Predicted readings of other pairs</PanelTitle>
      <Quiet>By the difference of the walls, from what was measured: no new measuring.</Quiet>
      <Pairs aria-label={`What other pairs would read at ${station.id}`}>
        <thead>
          <tr>
            <th>Upper</th>
            <th className="number">Wall</th>
            <th>Lower</th>
            <th className="number">Wall</th>
            <th className="number">Would read</th>
            <th>Verdict</th>
          </tr>
        </thead>
        <tbody>
          {others.map(({ upper, lower, upperWall, lowerWall, clearance, verdict }) => (
            <tr key={`${upper} ${lower}`}>
              <td>{grade(upper)}</td>
              <td className="number">{wall(upperWall)}</td>
              <td>{grade(lower)}</td>
              <td className="number">{wall(lowerWall)}</td>
              <td className="number">{roughText(clearance.nominal, shown)}</td>
              <td>{verdict && <StateMark state={verdict.state} />}</td>
            </tr>
          ))}
        </tbody>
      </Pairs>
    </Panel>
  );
}
