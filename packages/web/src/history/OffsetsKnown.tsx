import { momentText, type OffsetGroup } from '@fettle/core';
import { Link } from 'react-router';
import { Fold } from '../ui/Fold.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { Sample } from '../ui/Sample.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { KnownNothing } from './KnownNothing.js';
import { KnownTable } from './KnownTable.js';
import { FAMILY_WORDS, knownLength } from './knownText.js';
import { OffsetChart } from './OffsetChart.js';
import { type Known, useKnown } from './useKnown.js';

function nameOf({ type, family, series, fasteners }: OffsetGroup): string {
  return [type === '' ? 'No engine type' : type, `${FAMILY_WORDS[family]}, ${series}`, fasteners]
    .filter((part) => part !== '')
    .join(' · ');
}

function Group({ group, unit }: { readonly group: OffsetGroup; readonly unit: Known['unit'] }) {
  const text = (value: number, plus = false) => knownLength(value, unit, plus);
  const { mean, u, between, next, engines, samples, latest } = group;
  return (
    <Panel aria-label={nameOf(group)}>
      <PanelTitle>{nameOf(group)}</PanelTitle>
      <p>
        <strong className="figure" style={{ fontSize: '1.75rem' }}>
          {text(mean, true)} {unit}
        </strong>{' '}
        ± <span className="figure">{text(2 * u)}</span>, mean of {engines} {engines === 1 ? 'engine' : 'engines'}; from
        engine to engine <span className="figure">{text(between)}</span> (standard deviation)
        {samples > 0 && `; ${samples} of them samples`}
      </p>
      <p>
        {next ? (
          <>
            The next engine: <span className="figure">{text(next.low, true)}</span> to{' '}
            <span className="figure">{text(next.high, true)}</span> {unit}, with a chance of 95 %.
          </>
        ) : (
          'A forecast for the next engine needs at least three engines.'
        )}
      </p>
      <OffsetChart group={group} unit={unit} />
      <Quiet>
        Dots: mean of one engine’s trials, ± twice its standard uncertainty. Line: the mean. Band: the next engine.
      </Quiet>
      <Fold>
        <summary>
          {latest.length < engines ? `The last ${latest.length} of ${engines} engines` : `The ${engines} engines`}
        </summary>
        <KnownTable
          label={`Offsets of ${nameOf(group)}`}
          file="offsets"
          items={latest}
          keyOf={({ id }) => id}
          columns={[
            {
              head: 'Engine',
              text: ({ name }) => name,
              cell: ({ id, name }) => (
                <>
                  <Link to={`/engines/${id}/trial`}>{name}</Link> <Sample id={id} />
                </>
              ),
            },
            { head: 'Accepted', text: ({ at }) => at.slice(0, 10), cell: ({ at }) => momentText(at, 'day') },
            { head: 'Trials', text: ({ trials }) => String(trials), sortBy: ({ trials }) => trials, isFigure: true },
            {
              head: `Offset, ${unit}`,
              text: ({ offset }) => text(offset, true),
              sortBy: ({ offset }) => offset,
              isFigure: true,
            },
            { head: `±, ${unit}`, text: ({ u: own }) => text(2 * own), sortBy: ({ u: own }) => own, isFigure: true },
          ]}
        />
      </Fold>
    </Panel>
  );
}

/** What assembly adds to the clearance, by type, series and fasteners. */
export function OffsetsKnown() {
  const { scope, unit } = useKnown();
  const { currentData: data, error } = api.useKnownOffsetsQuery(scope, { refetchOnMountOrArgChange: true });
  if (error) return <Notice urgent>{refusalInWords(error)}</Notice>;
  if (!data) return <p aria-busy>Loading …</p>;
  if (data.groups.length === 0) return <KnownNothing>No offsets yet. Read a station with its shells in.</KnownNothing>;
  return data.groups.map((group) => <Group key={nameOf(group)} group={group} unit={unit} />);
}
