import {
  CLEARANCE_DECIMALS,
  drawerLabel,
  type FitSolution,
  formatExactLength,
  formatLength,
  INSTRUMENT_DECIMALS,
  type JobsChoice,
  type JobsFit,
  jobsChoices,
  type ShownUnit,
  STATE_WORDS,
} from '@fettle/core';
import { Check } from 'lucide-react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { chosenStations } from '../fit/chosenStations.js';
import { gapText, meanOffText } from '../fit/meanOff.js';
import { useClearances } from '../person/useClearances.js';
import { Button } from '../ui/Button.js';
import { DataTable } from '../ui/DataTable.js';
import type { DataColumn } from '../ui/dataColumns.js';
import { Notice } from '../ui/Notice.js';
import { Panel, Quiet, Row } from '../ui/Panel.js';
import { StateShape } from '../ui/StateMark.js';

const Each = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 0.25rem;
  margin-right: 0.9rem;
  white-space: nowrap;
`;

/** What each station of an engine comes to in the plan, with its verdict. */
function ClearanceList({ job, stations: halves, unit }: Pick<JobsChoice, 'job' | 'stations'> & { unit: ShownUnit }) {
  const { stations, verdicts } = chosenStations(job.document, job.readings, halves);
  return [...stations.keys()]
    .filter((id) => halves[id])
    .map((id) => {
      const { clearance, state } = verdicts.get(id)!;
      return (
        <Each key={id}>
          {id}
          <span className="figure">
            {clearance ? formatLength(clearance.nominal, unit, CLEARANCE_DECIMALS[unit]) : '·'}
          </span>
          <StateShape state={state} size={15} />
          <span className="visually-hidden">{STATE_WORDS[state]}</span>
        </Each>
      );
    });
}

function choiceColumns(unit: ShownUnit): DataColumn<JobsChoice>[] {
  return [
    {
      key: 'engine',
      head: 'Engine',
      sortBy: ({ job }) => job.document.name,
      cell: ({ job }) => <Link to={`/engines/${job.id}/choose`}>{job.document.name}</Link>,
    },
    {
      key: 'spread',
      head: `Spread, ${unit}`,
      isFigure: true,
      sortBy: ({ spread }) => spread,
      cell: ({ spread }) => (spread === null ? '·' : formatExactLength(spread, unit, INSTRUMENT_DECIMALS[unit])),
    },
    {
      key: 'clearances',
      head: `Clearances, ${unit}`,
      cell: ({ job, stations }) => <ClearanceList job={job} stations={stations} unit={unit} />,
    },
    {
      key: 'halves',
      head: 'Shells, upper over lower',
      cell: ({ job, stations }) =>
        Object.entries(stations)
          .map(([id, { upper, lower }]) => {
            const grade = (shell: string) => job.document.shells[shell]?.grade ?? shell;
            const [above, below] = [grade(upper.shell), grade(lower.shell)];
            return `${id} ${above === below ? above : `${above} / ${below}`}`;
          })
          .join(', '),
    },
  ];
}

/** What came of fitting several engines together: the plan engine by engine, or why there is none. */
export function TogetherOutcome({
  asked,
  plan,
  lines,
  onAccept,
  onGoOn,
}: {
  asked: JobsFit;
  plan: FitSolution;
  lines: Parameters<typeof drawerLabel>[0];
  onAccept: () => void;
  onGoOn: () => void;
}) {
  const { shown: unit, said } = useClearances(asked.problem!.unit);
  if (plan.status === 'stopped') {
    return (
      <Notice>
        <div>
          <strong>Out of time</strong>: no selection found, nor proved impossible.{' '}
          <Button onPress={onGoOn}>Search for another 5 min</Button>
        </div>
      </Notice>
    );
  }
  if (plan.cost === null) {
    return plan.conflicts.map(({ message, remedy: advice, remedies = [], partRemedies = [], leftOut = '' }) => (
      <Notice key={message}>
        <div>
          <p>
            <strong>{message}</strong> {remedies.length + partRemedies.length === 0 && advice} {leftOut}
          </p>
          {partRemedies.length > 0 && <p>Checked for this fault alone. The other faults need a change of their own:</p>}
          <ul>
            {[...remedies, ...partRemedies].map((remedy) => (
              <li key={remedy.message}>{said(remedy.message)}</li>
            ))}
          </ul>
        </div>
      </Notice>
    ));
  }
  const choices = jobsChoices(asked, plan);
  const short = [...(plan.prices ?? [])]
    .sort((a, b) => b.price - a.price)
    .slice(0, 4)
    .map(({ id }) => drawerLabel(lines, id));
  return (
    <Panel aria-label="Selection for all">
      <Row style={{ justifyContent: 'space-between' }}>
        <p>
          <strong>
            {choices.length === 1 ? 'One engine' : `${choices.length} engines`}, {plan.stations.length}{' '}
            {plan.stations.length === 1 ? 'station' : 'stations'},{' '}
            {plan.status === 'optimal'
              ? 'proven'
              : `not proven: ${gapText(plan.cost, plan.bound!)} better is not ruled out`}
            .
          </strong>{' '}
          Off target: average <span className="figure">{meanOffText(plan, unit)}</span>.
        </p>
        <Button $kind="primary" onPress={onAccept}>
          <Check aria-hidden size={20} />
          Accept for all {choices.length}
        </Button>
      </Row>
      <DataTable
        label="Engines of the selection"
        items={choices}
        columns={choiceColumns(unit)}
        keyOf={({ job }) => job.id}
      />
      {short.length > 0 && <Quiet>One more of these would help most: {short.join('; ')}.</Quiet>}
    </Panel>
  );
}
