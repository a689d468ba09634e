import type { JobChange, JobDocument } from '@fettle/core';
import { FEATURE_TABLE, keysOfPointer, partName, placeWords, slotName } from '@fettle/core';
import { format } from 'date-fns';
import { useEffect, useRef, useState } from 'react';
import { store } from '../app/store.js';
import type { OpenJob } from '../job/useJob.js';
import { type DataColumn, DataTable } from '../look/DataTable.js';
import { Pager } from '../look/Pager.js';
import { Panel, PanelTitle, Quiet } from '../look/Panel.js';
import { api } from '../wire/api.js';

const KINDS: Readonly<Record<JobChange['kind'], string>> = {
  created: 'put it on the bench',
  changed: 'changed',
  deleted: 'took it off the bench',
  restored: 'brought it back',
  read: 'read',
};
const SHOWN = 40;

/** More places than this are counted, not named. */
const NAMED = 3;

function what({ kind, changes, reading }: JobChange, document: JobDocument): string {
  if (reading) {
    const { feature, station, slot, from, to, reason } = reading;
    const now = to === '' ? 'taken back' : to;
    const place = `${partName(feature, station)} ${FEATURE_TABLE[feature].word}, ${slotName(slot).toLowerCase()}`;
    return `${place}: ${from === null ? '' : `${from} → `}${now}${reason === '' ? '' : ` (${reason})`}`;
  }
  if (kind !== 'changed') return KINDS[kind];
  const places = [...new Set(changes.map(({ path }) => placeWords(keysOfPointer(path), document)))];
  const more = places.length > NAMED ? ` and ${places.length - NAMED} more` : '';
  return `changed ${places.slice(0, NAMED).join(', ')}${more}`;
}

function columnsOf(document: JobDocument): DataColumn<JobChange>[] {
  return [
    {
      key: 'at',
      head: 'When',
      className: 'figure',
      sortBy: ({ at }) => at,
      cell: ({ at }) => format(new Date(at), 'd MMM HH:mm'),
    },
    { key: 'by', head: 'Who', sortBy: ({ by }) => by, cell: ({ by }) => by },
    {
      key: 'what',
      head: 'What',
      sortBy: (change) => what(change, document),
      cell: (change) => what(change, document),
    },
  ];
}

/** Who changed what, and when, newest first. */
export function History({ job }: { readonly job: OpenJob }) {
  const [after, setAfter] = useState<string>();
  // A new revision is what makes it worth asking again.
  const { data, error } = api.useJobHistoryQuery(
    { id: job.id, most: SHOWN, after },
    { refetchOnMountOrArgChange: true, skip: job.view === null },
  );
  const revision = job.view?.revision ?? 0;
  const asked = useRef(revision);
  useEffect(() => {
    if (asked.current !== revision) store.dispatch(api.util.invalidateTags(['history']));
    asked.current = revision;
  }, [revision]);
  return (
    <Panel>
      <PanelTitle>Who did what</PanelTitle>
      {!data && <Quiet>{error ? 'The server has to answer for this.' : 'Looking it up …'}</Quiet>}
      {data && (
        <DataTable
          label="History, newest first"
          items={data.entries}
          columns={columnsOf(job.document)}
          keyOf={({ id: key }) => key}
        />
      )}
      {data && <Pager after={after} goesOn={data.goesOn} onGo={setAfter} />}
    </Panel>
  );
}
