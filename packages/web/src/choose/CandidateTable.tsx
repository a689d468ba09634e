import {
  type AcceptedChoice,
  type Candidate,
  CLEARANCE_DECIMALS,
  formatLength,
  type JobDocument,
  type JobStation,
  pairVerdict,
  STATE_WORDS,
} from '@fettle/core';
import { useState } from 'react';
import styled from 'styled-components';
import { moreOff } from '../fit/meanOff.js';
import { useClearances } from '../person/useClearances.js';
import { Quiet, Table } from '../ui/Panel.js';
import { ShowMore } from '../ui/ShowMore.js';
import { StateShape } from '../ui/StateMark.js';
import { usePairs } from './usePairs.js';
import type { StationChoices } from './useStationChoices.js';

const Scroll = styled.div`
  max-height: 15.5rem;
  overflow-y: auto;
  td { font-size: var(--size-small); padding: 0.3rem 0.25rem; line-height: 1.2; }
  th { padding: 0.25rem; }
  small { display: block; font-weight: 400; color: var(--ink-soft); }
  tr[aria-current='true'] td { background: var(--accent-soft); font-weight: 700; }
`;

/** Pairs shown at first, nearest to the target; the factor for each request for more. */
const SHOWN = 60;
const MORE = 4;

interface CandidateTableProps {
  readonly station: JobStation;
  readonly document: JobDocument;
  readonly halves: AcceptedChoice['stations'][string] | null;
  readonly choices: StationChoices;
}

/** What each pair at hand would give at a station, and what it would cost all of them. */
export function CandidateTable({ station, document, halves, choices }: CandidateTableProps) {
  const { shown: unit } = useClearances(document.unit);
  const [most, setMost] = useState(SHOWN);
  const [upper, lower] = [halves?.upper.shell, halves?.lower.shell];
  const listed = usePairs(document, [station, most, upper, lower], station.id, (pairs, key) =>
    pairs.candidates(key, station, most, upper && lower ? { upper, lower } : null),
  );
  if (listed === null) return <Quiet aria-busy>Listing pairs …</Quiet>;
  const { candidates, all } = listed;
  if (candidates.length === 0) return null;
  const { meanOffWith, best } = choices;
  const label = (id: string) => document.shells[id]?.grade ?? id;
  const extraText = (mean: number | null) => {
    if (mean === null || best === null) return '·';
    if (mean === Number.POSITIVE_INFINITY) return 'no fit';
    const more = moreOff(mean, best, unit);
    return more === null ? 'same' : `${more.isFurther ? '+' : '−'}${more.text.split(' ')[0]}`;
  };
  // The same station never reads differently in the line and here: a pair is judged with all that is known of it.
  const stateOf = (candidate: Candidate) => pairVerdict(document, station, candidate).state;
  const table = (
    <Scroll tabIndex={0} role="region" aria-label={`Clearance of each pair at ${station.id}`}>
      <Table>
        <thead>
          <tr>
            <th>Upper</th>
            <th>Lower</th>
            <th className="number">
              Clearance <small>off target</small>
            </th>
            <th className="number">
              All stations <small>extra off target</small>
            </th>
            <th>
              <span className="visually-hidden">Verdict</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {candidates.map((candidate) => (
            <tr
              key={`${candidate.upper} ${candidate.lower}`}
              aria-current={upper === candidate.upper && lower === candidate.lower}
            >
              <td>{label(candidate.upper)}</td>
              <td>{label(candidate.lower)}</td>
              <td className="number">
                {formatLength(candidate.clearance.nominal, unit, CLEARANCE_DECIMALS[unit])}
                {candidate.deviation !== null && (
                  <small>{formatLength(candidate.deviation, unit, CLEARANCE_DECIMALS[unit], { plus: true })}</small>
                )}
              </td>
              <td className="number">{extraText(meanOffWith(candidate.upper, candidate.lower))}</td>
              <td title={STATE_WORDS[stateOf(candidate)]}>
                <StateShape state={stateOf(candidate)} size={16} />
                <span className="visually-hidden">{STATE_WORDS[stateOf(candidate)]}</span>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Scroll>
  );
  return (
    <>
      {table}
      <ShowMore
        shown={candidates.length}
        all={all}
        what="pairs"
        which={`${station.aim === null ? 'the tightest' : 'those nearest target'}${candidates.length > most ? ' and the selected one' : ''}`}
        onMore={() => setMost(MORE * most)}
      />
    </>
  );
}
