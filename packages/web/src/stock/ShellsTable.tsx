import {
  type DrawerLine,
  formatExactLength,
  formatLength,
  freeHalves,
  INSTRUMENT_DECIMALS,
  type JobDocument,
  type JobShell,
  nanometres,
  otherUnit,
  shellsInOrder,
  wallSpan,
  workedOutText,
} from '@fettle/core';
import { Pencil, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { CountField } from '../halves/CountField.js';
import { paintOf } from '../halves/paintOf.js';
import { shortLabels } from '../halves/shortLabels.js';
import type { ChangeDocument } from '../job/useJob.js';
import { LengthField } from '../typing/LengthField.js';
import { Button } from '../ui/Button.js';
import { DataTable } from '../ui/DataTable.js';
import type { DataColumn } from '../ui/dataColumns.js';
import { GradeName } from '../ui/GradeSwatch.js';
import { useLeftPlaces } from '../ui/useLeftPlaces.js';
import { CorrectHalf } from './CorrectHalf.js';
import { stockPlace, wallPlace } from './stockPlace.js';

const Halves = styled.div`
  td { padding: 0.2rem 0.4rem; }
  td.echo { font-size: var(--size-small); color: var(--ink-soft); }
  td.name { font-weight: 600; overflow-wrap: anywhere; min-width: 5.25rem; }
  td.wall { width: 8rem; }
  td.acts { white-space: nowrap; padding: 0; }
  td.stock { width: 6.5rem; }
  td small { display: block; font-weight: 400; color: var(--ink-soft); }
`;

interface ShellsTableProps {
  readonly job: string;
  readonly document: JobDocument;
  readonly change: ChangeDocument;
  /** The lines of the workshop drawer; null while they are not known. */
  readonly lines: readonly DrawerLine[] | null;
}

/** One kind of half, with what is known of it elsewhere. */
interface Kind {
  readonly id: string;
  readonly shell: JobShell;
  /** How many of it the accepted choice takes. */
  readonly chosen: number;
  /** What this engine may take of it, where it is the workshop's; null while that is not known, or its stock if that is unlimited. */
  readonly stock: number | null;
}

function kindsOf({ job, document, lines }: ShellsTableProps): Kind[] {
  const chosen = new Map<string, number>();
  for (const { upper, lower } of Object.values(document.choice?.stations ?? {}))
    for (const { shell } of [upper, lower]) chosen.set(shell, (chosen.get(shell) ?? 0) + 1);
  const lineOf = new Map(lines?.map((line) => [line.id, line]));
  return shellsInOrder(document).map(({ id, shell }) => {
    const line = shell.line === null ? undefined : lineOf.get(shell.line);
    const stock = shell.line === null ? shell.stock : line ? freeHalves(line, job) : null;
    return { id, shell, chosen: chosen.get(id) ?? 0, stock };
  });
}

/** Half the width of a band: how far a wall may be off its middle. */
function halfOf({ low, high }: NonNullable<JobShell['band']>) {
  return nanometres(Math.round((high - low) / 2));
}

type Columns = readonly DataColumn<Kind>[];
/** How each kind is named on its buttons and boxes. */
type Labels = ReturnType<typeof shortLabels>;

/** Changes one kind of the engine's own. */
type Set = (id: string, part: Partial<JobShell>) => void;

const setIn =
  (change: ChangeDocument): Set =>
  (id, part) =>
    change((old) => ({ ...old, shells: { ...old.shells, [id]: { ...old.shells[id]!, ...part } } }));

/** What a kind is. */
function kindColumns(document: JobDocument): Columns {
  const { unit, withRods } = document;
  const halfWords = ({ family, half }: JobShell) => (withRods ? `${family} ${half}` : half);
  return [
    {
      key: 'grade',
      head: 'Grade',
      className: 'name',
      sortBy: ({ shell }) => shell.grade,
      cell: ({ shell }) => (
        <>
          <GradeName name={shell.grade} paint={paintOf(document, shell.family, shell.grade)} />
          {shell.undersize !== undefined && <small> {shell.undersize} under</small>}
          {shell.positions !== undefined && <small> only for {shell.positions.join(', ')}</small>}
          {shell.width !== undefined && (
            <small>
              flanged, {formatExactLength(shell.width, unit, INSTRUMENT_DECIMALS[unit])} {unit}
            </small>
          )}
        </>
      ),
    },
    {
      key: 'half',
      head: 'Shell',
      className: 'name',
      sortBy: ({ shell }) => halfWords(shell),
      cell: ({ shell }) => halfWords(shell),
    },
    {
      key: 'series',
      head: 'Series',
      className: 'name',
      sortBy: ({ shell }) => shell.series,
      cell: ({ shell }) => shell.series,
    },
  ];
}

/** How thick a kind is, in both units. */
function wallColumns(job: string, document: JobDocument, labels: Labels, set: Set): Columns {
  const { unit } = document;
  return [
    {
      key: 'wall',
      head: `Wall, ${unit}`,
      className: 'wall',
      sortBy: ({ shell }) => shell.wall,
      cell: ({ id, shell }) =>
        shell.line === null ? (
          <LengthField
            kept={wallPlace(job, id)}
            compact
            label={`Wall of ${labels.get(id)}, ${unit}`}
            unit={unit}
            value={shell.wall}
            optional={false}
            check={(wall) => (wall > 0 ? null : 'Enter a wall above 0.')}
            span={wallSpan(document, shell.family)}
            // A wall that was measured is no band any more.
            onCommit={(wall) => wall !== null && set(id, { wall, band: undefined, seen: undefined })}
          />
        ) : (
          <span className="figure">{formatExactLength(shell.wall, unit, INSTRUMENT_DECIMALS[unit])}</span>
        ),
    },
    {
      key: 'echo',
      head: unit === 'mm' ? 'inches' : 'mm',
      className: 'figure echo',
      cell: ({ shell }) => (
        <>
          {formatLength(shell.wall, otherUnit(unit), unit === 'mm' ? 5 : 4)}
          {shell.band && (
            <small>
              ±{workedOutText(halfOf(shell.band), unit)} {unit}
            </small>
          )}
          {shell.seen && <small> measured here</small>}
        </>
      ),
    },
  ];
}

/** How many there are, and how many of them the accepted selection takes. */
function countColumns(job: string, document: JobDocument, labels: Labels, set: Set): Columns {
  const counts = Object.values(document.shells).flatMap(({ stock }) => stock ?? []);
  return [
    {
      key: 'stock',
      head: 'Stock',
      className: 'stock',
      sortBy: ({ stock }) => stock,
      cell: ({ id, shell, stock }) =>
        shell.line === null ? (
          <CountField
            kept={stockPlace(job, id)}
            label={`Stock of ${labels.get(id)}`}
            value={shell.stock}
            most={9999}
            beside={counts}
            empty="any"
            onCommit={(count) => set(id, { stock: count })}
          />
        ) : (
          <span title="in workshop stock, for this engine">{stock === null ? '…' : `${stock} free`}</span>
        ),
    },
    { key: 'chosen', head: 'Selected', isFigure: true, sortBy: ({ chosen }) => chosen, cell: ({ chosen }) => chosen },
  ];
}

interface Correcting {
  readonly corrected: string | null;
  readonly onCorrect: (id: string | null) => void;
}

function actsColumn(change: ChangeDocument, { corrected, onCorrect }: Correcting, labels: Labels): DataColumn<Kind> {
  return {
    key: 'remove',
    className: 'acts',
    head: <span className="visually-hidden">Remove</span>,
    cell: ({ id, shell }) => (
      <>
        {shell.line === null && (
          <Button
            $kind="quiet"
            aria-label={`Correct ${labels.get(id)}`}
            aria-expanded={corrected === id}
            onPress={() => onCorrect(corrected === id ? null : id)}
          >
            <Pencil aria-hidden size={18} />
          </Button>
        )}
        <Button
          $kind="quiet"
          aria-label={`Remove ${labels.get(id)} from stock`}
          onPress={() =>
            change((old) => {
              const { [id]: _, ...others } = old.shells;
              return { ...old, shells: others };
            })
          }
        >
          <Trash2 aria-hidden size={18} />
        </Button>
      </>
    ),
  };
}

function columnsOf({ job, document, change, ...correcting }: ShellsTableProps & Correcting): Columns {
  const labels = shortLabels(Object.entries(document.shells).map(([id, half]) => ({ id, half })));
  const set = setIn(change);
  return [
    ...kindColumns(document),
    ...wallColumns(job, document, labels, set),
    ...countColumns(job, document, labels, set),
    actsColumn(change, correcting, labels),
  ];
}

/** The kinds of half this engine may be fitted with: its own, and the workshop's that it draws on. */
export function ShellsTable({ job, document, change, lines }: ShellsTableProps) {
  const [corrected, onCorrect] = useState<string | null>(null);
  const columns = useMemo(
    () => columnsOf({ job, document, change, lines, corrected, onCorrect }),
    [job, document, change, lines, corrected],
  );
  const isLeft = useLeftPlaces();
  const wrong = corrected === null ? undefined : document.shells[corrected];
  const kinds = useMemo(() => kindsOf({ job, document, change, lines }), [job, document, change, lines]);
  return (
    <Halves>
      {corrected !== null && wrong && (
        <CorrectHalf
          key={corrected}
          job={job}
          id={corrected}
          shell={wrong}
          onClose={() => onCorrect(null)}
          onChange={(part) => setIn(change)(corrected, part)}
        />
      )}
      <DataTable
        label="Shells in stock"
        items={kinds}
        columns={columns}
        what="shells"
        keyOf={({ id }) => id}
        isTyped={({ id }) => isLeft(stockPlace(job, id)) || isLeft(wallPlace(job, id))}
      />
    </Halves>
  );
}
