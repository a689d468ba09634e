import { momentText, type TouchedEngine } from '@fettle/core';
import { Link } from 'react-router';
import { DataTable } from '../ui/DataTable.js';
import type { DataColumn } from '../ui/dataColumns.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';

/** What is in doubt of the readings of an engine, in words; empty where nothing is. */
export function doubtsWords({ overdue, wrong, adrift }: Pick<TouchedEngine, 'overdue' | 'wrong' | 'adrift'>): string {
  return [
    wrong > 0 ? `${wrong} under a calibration found wrong` : '',
    adrift > 0 ? `${adrift} while it moved` : '',
    overdue > 0 ? `${overdue} overdue` : '',
  ]
    .filter((words) => words !== '')
    .join(', ');
}

const columns: readonly DataColumn<TouchedEngine>[] = [
  {
    key: 'name',
    head: 'Engine',
    cell: ({ id, name, isClosed }) => (
      <>
        <Link to={`/engines/${id}`}>{name}</Link>
        {isClosed && ', closed'}
      </>
    ),
    sortBy: ({ name }) => name,
  },
  {
    key: 'readings',
    head: 'Readings',
    isFigure: true,
    cell: ({ readings }) => readings,
    sortBy: ({ readings }) => readings,
  },
  { key: 'last', head: 'Last read', cell: ({ last }) => momentText(last), sortBy: ({ last }) => last },
  {
    key: 'doubts',
    head: 'Suspect',
    cell: (engine) => <strong>{doubtsWords(engine)}</strong>,
    sortBy: ({ overdue, wrong, adrift }) => overdue + wrong + adrift,
  },
];

/** The engines that were read with an instrument, those with readings in doubt first. */
export function TouchedEngines({ id }: { readonly id: string }) {
  const { data, error } = api.useInstrumentEnginesQuery({ id }, { refetchOnMountOrArgChange: true });
  return (
    <Panel aria-label="Engines measured with it">
      <PanelTitle>Engines measured with it</PanelTitle>
      {error && <Notice urgent>{refusalInWords(error)}</Notice>}
      {data?.engines.length === 0 && <Quiet>None. Choose it in an engine under “How it is read”.</Quiet>}
      {data && data.engines.length > 0 && (
        <DataTable
          label="Engines measured with it"
          what="engines"
          items={data.engines}
          columns={columns}
          keyOf={(one) => one.id}
        />
      )}
    </Panel>
  );
}
