import { type InstrumentReads, instrumentKind, type KindReads, type PersonReads } from '@fettle/core';
import { Link } from 'react-router';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { BehindLink } from './BehindLink.js';
import { KnownNothing } from './KnownNothing.js';
import { type KnownColumn, KnownTable } from './KnownTable.js';
import { knownLength } from './knownText.js';
import { type Known, useKnown } from './useKnown.js';

function columnsOf(unit: Known['unit']): KnownColumn<Omit<PersonReads, 'person'>>[] {
  return [
    { head: 'Readings', text: ({ readings }) => String(readings), sortBy: ({ readings }) => readings, isFigure: true },
    {
      head: 'Corrected',
      text: ({ slips, readings }) => (slips === 0 ? '0' : `${slips} (1 in ${Math.round(readings / slips)})`),
      sortBy: ({ slips, readings }) => slips / Math.max(1, readings),
      isFigure: true,
    },
    { head: 'Read again', text: ({ repeats }) => String(repeats), sortBy: ({ repeats }) => repeats, isFigure: true },
    {
      head: `Repeats within, ${unit}`,
      text: ({ repeatability }) => knownLength(repeatability, unit),
      sortBy: ({ repeatability }) => repeatability,
      isFigure: true,
    },
  ];
}

/** How people and instruments repeat, over all engines. */
export function ReadersKnown() {
  const { scope, unit } = useKnown();
  const { currentData: data, error } = api.useKnownReadersQuery(scope, { refetchOnMountOrArgChange: true });
  if (error) return <Notice urgent>{refusalInWords(error)}</Notice>;
  if (!data) return <p aria-busy>Loading …</p>;
  const { people, instruments, kinds } = data;
  return (
    <>
      <Panel aria-label="People">
        <PanelTitle>People</PanelTitle>
        <Quiet>
          Repeats within: standard deviation of one reading, from repeat readings. A few repeats prove little.
        </Quiet>
        {people.length === 0 ? (
          <KnownNothing>No readings yet.</KnownNothing>
        ) : (
          <KnownTable<PersonReads>
            label="Readings by person"
            file="people"
            items={people}
            keyOf={({ person }) => person}
            columns={[
              {
                head: 'Who',
                text: ({ person }) => person,
                cell: ({ person }) => (
                  <BehindLink to={{ person }} label={`readings of ${person}`}>
                    {person}
                  </BehindLink>
                ),
              },
              ...columnsOf(unit),
            ]}
          />
        )}
      </Panel>
      <Panel aria-label="Instruments">
        <PanelTitle>Instruments</PanelTitle>
        {instruments.length === 0 ? (
          <KnownNothing>No readings with registered instruments.</KnownNothing>
        ) : (
          <KnownTable<InstrumentReads>
            label="Readings by instrument"
            file="instruments-read"
            items={instruments}
            keyOf={({ id }) => id}
            columns={[
              {
                head: 'Instrument',
                text: ({ name, id }) => (name === '' ? id : name),
                cell: ({ id, name }) => (
                  <Link to={`/instruments/${id}`}>{name === '' ? 'not in the register' : name}</Link>
                ),
              },
              ...columnsOf(unit),
              {
                head: 'Engines',
                text: () => '',
                cell: ({ id, name }) => (
                  <BehindLink to={{ what: 'instrument', instrument: id }} label={`readings with ${name || id}`}>
                    Show
                  </BehindLink>
                ),
              },
            ]}
          />
        )}
      </Panel>
      {kinds.length > 0 && (
        <Panel aria-label="Kinds of instrument">
          <PanelTitle>Kinds of instrument</PanelTitle>
          <Quiet>Repeat readings of all registered instruments of a kind, pooled.</Quiet>
          <KnownTable<KindReads>
            label="Readings by kind of instrument"
            file="kinds-read"
            items={kinds}
            keyOf={({ kind }) => kind}
            columns={[
              { head: 'Kind', text: ({ kind }) => instrumentKind(kind).word },
              {
                head: 'Instruments',
                text: ({ instruments: count }) => String(count),
                sortBy: ({ instruments: count }) => count,
                isFigure: true,
              },
              ...columnsOf(unit),
            ]}
          />
        </Panel>
      )}
    </>
  );
}
