import {
  formatExactLength,
  freeOnShelf,
  INSTRUMENT_DECIMALS,
  type JobDocument,
  type JobPiece,
  PIECE_TABLE,
  type PieceLine,
  pieceLabel,
  pieceOfLine,
  takenPieces,
} from '@fettle/core';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { newId } from '../base/newId.js';
import { PieceForm } from '../drawer/PieceForm.js';
import { usePieceLines } from '../drawer/usePieceLines.js';
import { CountField } from '../halves/CountField.js';
import { type ChangeDocument, type OpenJob, useChangeDocument } from '../job/useJob.js';
import { LengthField } from '../typing/LengthField.js';
import { Button } from '../ui/Button.js';
import { DataTable } from '../ui/DataTable.js';
import type { DataColumn } from '../ui/dataColumns.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { useLeftPlaces } from '../ui/useLeftPlaces.js';
import { stockPlace, thicknessPlace } from './stockPlace.js';

const Pieces = styled.div`
  td { padding: 0.2rem 0.4rem; }
  td.name { font-weight: 600; overflow-wrap: anywhere; min-width: 7rem; }
  td.thick { width: 9rem; }
  td.stock { width: 6.5rem; }
  td small { display: block; font-weight: 400; color: var(--ink-soft); }
`;

interface Own {
  readonly id: string;
  readonly piece: JobPiece;
  readonly chosen: number;
  readonly line: PieceLine | null;
}

/** The pieces that an engine lists, by kind and thickness, with what is selected and where they lie. */
function ownPieces(document: JobDocument, lines: readonly PieceLine[] | null): Own[] {
  const { pieces } = document;
  const taken = takenPieces(document);
  return Object.entries(pieces)
    .map(([id, piece]) => ({
      id,
      piece,
      chosen: taken.filter((one) => one.piece === id).reduce((sum, { count }) => sum + count, 0),
      line: lines?.find((line) => line.id === piece.line) ?? null,
    }))
    .sort(
      (one, other) =>
        one.piece.kind.localeCompare(other.piece.kind, 'en') || one.piece.thickness - other.piece.thickness,
    );
}

interface PiecesProps {
  readonly job: OpenJob;
  readonly change: ChangeDocument;
}

function columnsOf({ job, change }: PiecesProps): DataColumn<Own>[] {
  const { document } = job;
  const { unit } = document;
  const set = (id: string, part: Partial<JobPiece>) =>
    change((old) => ({ ...old, pieces: { ...old.pieces, [id]: { ...old.pieces[id]!, ...part } } }));
  const counts = Object.values(document.pieces).flatMap(({ stock }) => stock ?? []);
  return [
    {
      key: 'name',
      head: 'Washer or shim',
      className: 'name',
      sortBy: ({ piece }) => pieceLabel(piece),
      cell: ({ piece }) => (
        <>
          {pieceLabel(piece)}
          {(piece.coating ?? piece.leaf) !== undefined && (
            <small>
              {piece.coating}
              {piece.leaf !== undefined &&
                `leaves of ${formatExactLength(piece.leaf, unit, INSTRUMENT_DECIMALS[unit])} ${unit}`}
            </small>
          )}
        </>
      ),
    },
    {
      key: 'thickness',
      head: `Thickness, ${unit}`,
      className: 'thick',
      sortBy: ({ piece }) => piece.thickness,
      cell: ({ id, piece }) =>
        piece.line === null ? (
          <LengthField
            kept={thicknessPlace(job.id, id)}
            compact
            label={`Thickness of ${pieceLabel(piece)}, ${unit}`}
            unit={unit}
            value={piece.thickness}
            optional={false}
            check={(nm) => (nm > 0 ? null : 'Enter a thickness above 0.')}
            onCommit={(thickness) => thickness !== null && set(id, { thickness })}
          />
        ) : (
          <span className="figure">{formatExactLength(piece.thickness, unit, INSTRUMENT_DECIMALS[unit])}</span>
        ),
    },
    {
      key: 'stock',
      head: 'Stock',
      className: 'stock',
      cell: ({ id, piece, line }) =>
        piece.line === null ? (
          <CountField
            kept={stockPlace(job.id, id)}
            label={`Stock of ${pieceLabel(piece)}`}
            value={piece.stock}
            most={9999}
            beside={counts}
            empty="any"
            onCommit={(stock) => set(id, { stock })}
          />
        ) : (
          <span title="in workshop stock, for this engine">
            {line === null ? '…' : `${freeOnShelf(line.piece.onHand, line, job.id)} free`}
          </span>
        ),
    },
    { key: 'chosen', head: 'Selected', isFigure: true, sortBy: ({ chosen }) => chosen, cell: ({ chosen }) => chosen },
    {
      key: 'remove',
      head: <span className="visually-hidden">Remove</span>,
      cell: ({ id, piece, chosen }) => (
        <Button
          $kind="quiet"
          // What an accepted choice takes stays until it is chosen again.
          isDisabled={chosen > 0}
          aria-label={`Remove ${pieceLabel(piece)} from the list`}
          onPress={() =>
            change((old) => {
              const { [id]: _, ...others } = old.pieces;
              return { ...old, pieces: others };
            })
          }
        >
          <Trash2 aria-hidden size={18} />
        </Button>
      ),
    },
  ];
}

/** The kinds of piece that the workshop has and this engine does not draw on yet. */
function UseWorkshop({ job, change, lines }: PiecesProps & { readonly lines: readonly PieceLine[] }) {
  const { pieces } = job.document;
  const drawn = new Set(Object.values(pieces).map(({ line }) => line));
  const open = lines.filter(({ id }) => !drawn.has(id));
  const kinds = [...new Set(open.map(({ piece }) => piece.kind))];
  const draw = (chosen: readonly PieceLine[]) =>
    change((old) => {
      const added = chosen.map(({ id, piece }): [string, JobPiece] => [newId(), pieceOfLine(id, piece)]);
      return { ...old, pieces: { ...old.pieces, ...Object.fromEntries(added) } };
    });
  if (kinds.length === 0) return null;
  return (
    <Row style={{ marginTop: '0.5rem' }}>
      {kinds.map((kind) => {
        const chosen = open.filter(({ piece }) => piece.kind === kind);
        return (
          <Button key={kind} onPress={() => draw(chosen)}>
            Use workshop {PIECE_TABLE[kind].word}s, {chosen.length}
          </Button>
        );
      })}
      <Link to="/drawer">Open workshop stock</Link>
    </Row>
  );
}

/** Washers, flanged halves and shims of this engine: its own, and the workshop's that it draws on. */
export function PiecesPanel({ job }: { readonly job: OpenJob }) {
  const change = useChangeDocument(job);
  const lines = usePieceLines(job.id);
  const { unit } = job.document;
  const [isAdding, setAdding] = useState(false);
  const isLeft = useLeftPlaces();
  const own = ownPieces(job.document, lines);
  const columns = columnsOf({ job, change });
  return (
    <Panel aria-label="Washers and shims">
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle>Washers and shims</PanelTitle>
        <Button aria-expanded={isAdding} onPress={() => setAdding(!isAdding)}>
          <Plus aria-hidden size={20} />
          Add washers or shims
        </Button>
      </Row>
      {isAdding && (
        <PieceForm
          id={job.id}
          unit={unit}
          isCounted={false}
          onAdd={(piece, stock) =>
            change((old) => ({ ...old, pieces: { ...old.pieces, [newId()]: { ...piece, stock, line: null } } }))
          }
        />
      )}
      {own.length === 0 ? (
        <Quiet>None yet. They are selected under End play and, with joint shims, Crush.</Quiet>
      ) : (
        <Pieces>
          <DataTable
            label="Washers and shims of this engine"
            items={own}
            columns={columns}
            what="washers and shims"
            keyOf={({ id }) => id}
            isTyped={({ id }) => isLeft(stockPlace(job.id, id)) || isLeft(thicknessPlace(job.id, id))}
          />
        </Pieces>
      )}
      <UseWorkshop job={job} lines={lines ?? []} change={change} />
    </Panel>
  );
}
