import {
  type DrawerLine,
  formatExactLength,
  freeHalves,
  INSTRUMENT_DECIMALS,
  reservedHalves,
  type Unit,
} from '@fettle/core';
import { ChevronRight, Trash2, TriangleAlert } from 'lucide-react';
import { useMemo } from 'react';
import styled from 'styled-components';
import { CountField } from '../halves/CountField.js';
import { shortLabels } from '../halves/shortLabels.js';
import { Button } from '../ui/Button.js';
import { DataTable } from '../ui/DataTable.js';
import type { DataColumn } from '../ui/dataColumns.js';
import { Sample } from '../ui/Sample.js';
import { useLeftPlaces } from '../ui/useLeftPlaces.js';
import { moveDrawer } from './moveDrawer.js';
import type { Drawer } from './useDrawer.js';

const Lines = styled.div`
  td { padding: 0.2rem 0.4rem; }
  td.name { font-weight: 600; overflow-wrap: anywhere; min-width: 5rem; }
  td.half { white-space: nowrap; }
  td.who { font-size: var(--size-small); color: var(--ink-soft); }
  td.none { color: var(--close); font-weight: 700; }
  td.acts { white-space: nowrap; }
  td.count { width: 5.5rem; }
  small { display: block; font-weight: 400; color: var(--ink-soft); }
`;

/** The box of a count. */
const countPlace = (id: string) => ({ of: id, part: 'half', field: 'onHand' });

/** True if fewer are free than there should be. */
export function isShort(line: DrawerLine): boolean {
  return freeHalves(line, null) < line.half.least;
}

interface LinesTableProps {
  readonly lines: readonly DrawerLine[];
  readonly unit: Unit;
  readonly by: string;
  readonly act: Drawer['act'];
  readonly opened: string | null;
  readonly isNarrow: boolean;
  readonly onOpen: (id: string) => void;
  /** Says what a count has left. */
  readonly onTold: (text: string | null) => void;
}

/** Who is left short by a count, in a sentence; null where nobody is. */
function leftShort({ reservations }: DrawerLine, label: string, onHand: number): string | null {
  const reserved = reservations.reduce((sum, { count }) => sum + count, 0);
  if (reserved <= onHand) return null;
  const names = reservations.map(({ name, count }) => `${name} (${count})`).join(', ');
  return `${label}: ${onHand} counted, ${reserved} reserved for ${names}: ${reserved - onHand} short. Select again for one of them.`;
}

function Free({ line }: { line: DrawerLine }) {
  const free = freeHalves(line, null);
  const over = reservedHalves(line) - line.half.onHand;
  return (
    <>
      {free === 0 ? 'none' : free}
      {over > 0 && (
        <small style={{ color: 'var(--tight)', fontWeight: 700 }}>
          <TriangleAlert aria-hidden size={13} /> {over} short
        </small>
      )}
      {isShort(line) && (
        <small style={{ color: 'var(--close)', fontWeight: 700 }}>
          <TriangleAlert aria-hidden size={13} /> order {line.half.least - free}
        </small>
      )}
    </>
  );
}

type Columns = readonly DataColumn<DrawerLine>[];
/** How each line is named on its buttons and boxes. */
type Labels = ReturnType<typeof shortLabels>;

/** What a line is of. */
function kindColumns(unit: Unit): Columns {
  return [
    {
      key: 'grade',
      head: 'Grade',
      className: 'name',
      sortBy: ({ half }) => half.grade,
      cell: ({ id, half }) => (
        <>
          {half.grade} <Sample id={id} />
          {half.number !== undefined && <small> no. {half.number}, own wall</small>}
          {half.undersize !== undefined && <small> {half.undersize} under</small>}
          {half.positions !== undefined && <small> only for {half.positions.join(', ')}</small>}
        </>
      ),
    },
    {
      key: 'half',
      head: 'Shell',
      className: 'name half',
      sortBy: ({ half }) => `${half.family} ${half.half}`,
      cell: ({ half }) => (
        <>
          {half.family} {half.half}
        </>
      ),
    },
    {
      key: 'series',
      head: 'Series',
      className: 'name',
      sortBy: ({ half }) => half.series,
      cell: ({ half }) => half.series,
    },
    {
      key: 'wall',
      head: `Wall, ${unit}`,
      isFigure: true,
      sortBy: ({ half }) => half.wall,
      cell: ({ half }) => (
        <>
          {formatExactLength(half.wall, unit, INSTRUMENT_DECIMALS[unit])}
          {half.band && <small> by grade</small>}
        </>
      ),
    },
  ];
}

/** How many there are, and how many of them an engine may still take. */
function countColumns({ lines, by, act, onTold }: LinesTableProps, labels: Labels): Columns {
  const counts = lines.map(({ half }) => half.onHand);
  return [
    {
      key: 'onHand',
      head: 'On hand',
      className: 'count',
      sortBy: ({ half }) => half.onHand,
      cell: ({ id, version, half, ...line }) => (
        <CountField
          kept={countPlace(id)}
          label={`On hand of ${labels.get(id)}`}
          value={half.onHand}
          most={99_999}
          beside={counts}
          onCommit={(onHand) => {
            const changes = [{ id, version, half: { ...half, onHand: onHand ?? 0 } }];
            return act(() => moveDrawer({ by, kind: 'count', note: '', changes })).then((worked) => {
              if (worked) onTold(leftShort({ ...line, id, version, half }, labels.get(id)!, onHand ?? 0));
              return worked;
            });
          }}
        />
      ),
    },
    {
      key: 'free',
      head: 'Free',
      isFigure: true,
      className: (line) => (freeHalves(line, null) === 0 ? 'none' : undefined),
      sortBy: (line) => freeHalves(line, null),
      cell: (line) => <Free line={line} />,
    },
    {
      key: 'reserved',
      head: 'Reserved',
      isFigure: true,
      sortBy: (line) => reservedHalves(line),
      cell: (line) => reservedHalves(line) || '·',
    },
    { key: 'used', head: 'Used', isFigure: true, sortBy: ({ used }) => used, cell: ({ used }) => used || '·' },
    { key: 'bin', head: 'Bin', sortBy: ({ half }) => half.bin || null, cell: ({ half }) => half.bin },
  ];
}

/** What is shown where there is room for it. */
const WIDE_COLUMNS: Columns = [
  {
    key: 'price',
    head: 'Price',
    isFigure: true,
    sortBy: ({ half }) => half.price,
    cell: ({ half }) => (half.price === null ? '' : half.price.toFixed(2)),
  },
  {
    key: 'held',
    head: 'Reserved by',
    className: 'who',
    sortBy: ({ reservations }) => reservations[0]?.name ?? null,
    cell: ({ reservations, half }) => (
      <>
        {reservations.map(({ name, count }) => `${name} ${count}`).join(', ')}
        {half.findings !== '' && <small> {half.findings}</small>}
      </>
    ),
  },
];

function actsColumn({ by, act, isNarrow, onOpen }: LinesTableProps, labels: Labels): DataColumn<DrawerLine> {
  return {
    key: 'acts',
    head: <span className="visually-hidden">Actions</span>,
    className: 'acts',
    cell: ({ id, version }) => (
      <>
        <Button $kind="quiet" aria-label={`Open ${labels.get(id)}`} onPress={() => onOpen(id)}>
          <ChevronRight aria-hidden size={20} />
        </Button>
        {!isNarrow && (
          <Button
            $kind="quiet"
            aria-label={`Remove ${labels.get(id)} from workshop stock`}
            onPress={() =>
              void act(() => moveDrawer({ by, kind: 'remove', note: '', changes: [{ id, version, half: null }] }))
            }
          >
            <Trash2 aria-hidden size={18} />
          </Button>
        )}
      </>
    ),
  };
}

function columnsOf(props: LinesTableProps): Columns {
  const labels = shortLabels(props.lines);
  return [
    ...kindColumns(props.unit),
    ...countColumns(props, labels),
    ...(props.isNarrow ? [] : WIDE_COLUMNS),
    actsColumn(props, labels),
  ];
}

/** The kinds of half in the workshop's drawer; Enter on a row opens it. */
export function LinesTable(props: LinesTableProps) {
  const { lines, unit, by, act, opened, isNarrow, onOpen } = props;
  const isLeft = useLeftPlaces();
  // biome-ignore lint/correctness/useExhaustiveDependencies: these are what the columns are made of
  const columns = useMemo(() => columnsOf(props), [lines, unit, by, act, isNarrow]);
  return (
    <Lines>
      <DataTable
        label="Shells in workshop stock"
        items={lines}
        columns={columns}
        what="shells"
        keyOf={({ id }) => id}
        onOpen={({ id }) => onOpen(id)}
        isCurrent={({ id }) => id === opened}
        isTyped={({ id }) => isLeft(countPlace(id))}
      />
    </Lines>
  );
}
