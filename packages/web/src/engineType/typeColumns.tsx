import { FAMILY_TABLE, type TypeSummary } from '@fettle/core';
import { intlFormatDistance } from 'date-fns';
import { Archive, ArchiveRestore, Copy } from 'lucide-react';
import { Link } from 'react-router';
import { Button } from '../ui/Button.js';
import type { DataColumn } from '../ui/dataColumns.js';
import { Quiet } from '../ui/Panel.js';
import { Sample } from '../ui/Sample.js';

interface TypeActs {
  readonly isArchive: boolean;
  readonly onDuplicate: (id: string) => void;
  /** Archives a type, or brings it back where the archive is shown. */
  readonly onArchive: (id: string) => void;
}

/** The columns of the library: what a type is, how far its sheet goes, and what can be done with it. */
export function typeColumns({ isArchive, onDuplicate, onArchive }: TypeActs): DataColumn<TypeSummary>[] {
  return [
    {
      key: 'name',
      head: 'Engine type',
      className: 'name',
      sortBy: ({ name }) => name,
      cell: ({ id, name, note, found }) => (
        <>
          <Link to={`/types/${id}/sheet`}>{name}</Link> <Sample id={id} />
          {note !== '' && <Quiet>{note}</Quiet>}
          {found.map((line) => (
            <Quiet key={line}>{line}</Quiet>
          ))}
        </>
      ),
    },
    {
      key: 'layout',
      head: 'Layout',
      className: 'short',
      sortBy: ({ mains }) => mains,
      cell: ({ mains, rods, unit }) => (
        <>
          {mains} mains, {rods} rods
          <Quiet>{unit === 'mm' ? 'millimetres' : 'inches'}</Quiet>
        </>
      ),
    },
    {
      key: 'coded',
      head: 'Grade tables',
      className: 'short',
      sortBy: ({ coded }) => coded.length,
      cell: ({ coded }) => (coded.length === 0 ? 'none' : coded.map((family) => FAMILY_TABLE[family].words).join(', ')),
    },
    {
      key: 'revision',
      head: 'Revision',
      className: 'short',
      sortBy: ({ updatedAt }) => updatedAt,
      cell: ({ revision, updatedAt, updatedBy }) => (
        <>
          {revision}
          <Quiet>
            {intlFormatDistance(new Date(updatedAt), new Date(), { locale: 'en' })}, {updatedBy}
          </Quiet>
        </>
      ),
    },
    {
      key: 'acts',
      head: <span className="visually-hidden">What can be done</span>,
      className: 'acts',
      cell: ({ id, name }) => (
        <>
          <Button $kind="quiet" aria-label={`Duplicate ${name}`} onPress={() => onDuplicate(id)}>
            <Copy aria-hidden size={18} />
            Duplicate
          </Button>
          <Button
            $kind="quiet"
            aria-label={`${isArchive ? 'Restore' : 'Archive'} ${name}`}
            onPress={() => onArchive(id)}
          >
            {isArchive ? <ArchiveRestore aria-hidden size={18} /> : <Archive aria-hidden size={18} />}
            {isArchive ? 'Restore' : 'Archive'}
          </Button>
        </>
      ),
    },
  ];
}
