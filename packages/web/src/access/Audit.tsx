import { AUDIT_KINDS, type AuditEntry, momentText } from '@fettle/core';
import { Download } from 'lucide-react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useQuery, useSetQuery } from '../base/useQuery.js';
import { useTitle } from '../base/useTitle.js';
import { ButtonLink } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { DataTable } from '../ui/DataTable.js';
import type { DataColumn } from '../ui/dataColumns.js';
import { Field } from '../ui/Field.js';
import { Pager } from '../ui/Pager.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { api } from '../wire/api.js';
import { auditWords } from './auditWords.js';
import { Confirmed } from './Confirmed.js';

const SHOWN = 100;
const ANY = 'all';

const Log = styled(Panel)`
  .when { white-space: nowrap; }
`;

const KIND_WORDS: Readonly<Record<AuditEntry['kind'], string>> = {
  engine: 'engines',
  reading: 'readings',
  drawer: 'drawer',
  instrument: 'instruments',
  type: 'engine types',
  sheet: 'signed sheets',
  access: 'users and devices',
};
const KINDS = [
  { value: ANY, label: 'everything' },
  ...AUDIT_KINDS.map((value) => ({ value, label: KIND_WORDS[value] })),
] as const;

const COLUMNS: DataColumn<AuditEntry>[] = [
  {
    key: 'at',
    head: 'When',
    cell: ({ at }) => <span className="when">{momentText(at, 'to the second')}</span>,
  },
  { key: 'by', head: 'Who', cell: ({ by }) => <strong>{by}</strong> },
  { key: 'device', head: 'Device', cell: ({ device }) => device ?? '' },
  {
    key: 'subject',
    head: 'Action',
    cell: ({ kind, subject, subjectId }) =>
      subjectId !== null && (kind === 'engine' || kind === 'reading' || kind === 'sheet') ? (
        <Link to={`/engines/${subjectId}`}>{subject}</Link>
      ) : kind === 'type' && subjectId !== null ? (
        <Link to={`/types/${subjectId}`}>{subject}</Link>
      ) : kind === 'instrument' && subjectId !== null ? (
        <Link to={`/instruments/${subjectId}`}>{subject}</Link>
      ) : (
        subject
      ),
  },
  { key: 'what', head: 'Done', cell: (entry) => auditWords(entry) },
];

/** Activity log, from which device: filtered, page by page, as a file. It cannot be changed here or anywhere else in Fettle. */
export function Audit() {
  useTitle('Activity log', 'Users and devices');
  return (
    <Confirmed>
      <Record />
    </Confirmed>
  );
}

function Record() {
  const [kindText] = useQuery('kind');
  const [person] = useQuery('person');
  const [from] = useQuery('from');
  const [to] = useQuery('to');
  const [after] = useQuery('after');
  const setQuery = useSetQuery(true);
  const kind = AUDIT_KINDS.find((one) => one === kindText) ?? null;
  const filter = {
    ...(kind === null ? {} : { kind }),
    ...(person === null ? {} : { person }),
    ...(from === null ? {} : { from }),
    ...(to === null ? {} : { to }),
  };
  const asked = { ...filter, most: SHOWN, ...(after === null ? {} : { after }) };
  const { data, error } = api.useListAuditQuery(asked, { refetchOnMountOrArgChange: true });
  const people = [{ value: ANY, label: 'anybody' }, ...(data?.people ?? []).map((value) => ({ value, label: value }))];
  const set = (name: string, value: string) =>
    setQuery({ [name]: value === '' || value === ANY ? null : value, after: null });
  return (
    <Log aria-label="Activity log">
      <Row style={{ alignItems: 'end', marginBottom: '0.75rem' }}>
        <PanelTitle as="h1" style={{ flex: 1 }}>
          Activity log
        </PanelTitle>
        <Choice label="Item" value={kind ?? ANY} options={KINDS} onChange={(value) => set('kind', value)} />
        <Choice
          label="By"
          value={person ?? ANY}
          options={
            people.some(({ value }) => value === (person ?? ANY))
              ? people
              : [...people, { value: person!, label: person! }]
          }
          onChange={(value) => set('person', value)}
        />
        <Field label="From" type="date" value={from ?? ''} onChange={(value) => set('from', value)} />
        <Field label="To" type="date" value={to ?? ''} onChange={(value) => set('to', value)} />
        <ButtonLink href={`/api/audit.csv?${new URLSearchParams(filter)}`} download>
          <Download aria-hidden size={20} />
          CSV
        </ButtonLink>
      </Row>
      {data && data.entries.length > 0 && (
        <DataTable label="What was done" items={data.entries} columns={COLUMNS} keyOf={({ id }) => id} />
      )}
      {data && data.entries.length === 0 && <p>No entries.</p>}
      {!data && <Quiet>{error ? 'Only the owner sees this, and only while the server answers.' : 'Loading …'}</Quiet>}
      {data && (
        <Pager after={after ?? undefined} goesOn={data.goesOn} onGo={(next) => setQuery({ after: next ?? null })} />
      )}
    </Log>
  );
}
