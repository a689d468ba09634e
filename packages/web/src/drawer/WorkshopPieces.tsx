import {
  type DrawerPiece,
  drawerPieceSchema,
  formatExactLength,
  freeOnShelf,
  INSTRUMENT_DECIMALS,
  type PieceLine,
  pieceTable,
  type Unit,
} from '@fettle/core';
import { ChevronRight, Download, Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { newId } from '../base/newId.js';
import { CountField } from '../halves/CountField.js';
import { CSV_TYPE, saveAs } from '../saving/saveAs.js';
import { csvOf, xlsxOf } from '../spreadsheet/spreadsheet.js';
import { Button } from '../ui/Button.js';
import { DataTable } from '../ui/DataTable.js';
import type { DataColumn } from '../ui/dataColumns.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { Sample } from '../ui/Sample.js';
import { useLeftPlaces } from '../ui/useLeftPlaces.js';
import { moveDrawer } from './moveDrawer.js';
import { PieceForm } from './PieceForm.js';
import { pieceName } from './pieceName.js';
import type { Drawer } from './useDrawer.js';

const Pieces = styled.div`
  td.name { font-weight: 600; overflow-wrap: anywhere; min-width: 9rem; }
  td.count { width: 6.5rem; }
  td.acts { white-space: nowrap; }
  td small { display: block; font-weight: 400; color: var(--ink-soft); }
`;

interface WorkshopPiecesProps {
  /** Null while they have not been read. */
  readonly lines: readonly PieceLine[] | null;
  readonly unit: Unit;
  readonly by: string;
  readonly act: Drawer['act'];
  readonly opened: string | null;
  readonly onOpen: (id: string) => void;
}

/** The box of one of its counts. */
const countPlace = (id: string, field: 'onHand' | 'least') => ({ of: 'drawer', part: id, field });

/** Puts a change of a line into the stock. */
type Put = (line: PieceLine, piece: DrawerPiece | null, kind: 'count' | 'change' | 'remove') => Promise<boolean>;

interface ColumnsProps extends Pick<WorkshopPiecesProps, 'unit' | 'onOpen'> {
  readonly lines: readonly PieceLine[];
  readonly put: Put;
}

function columnsOf({ lines, unit, put, onOpen }: ColumnsProps): DataColumn<PieceLine>[] {
  const counts = lines.map(({ piece }) => piece.onHand);
  return [
    {
      key: 'name',
      head: 'Washer or shim',
      className: 'name',
      sortBy: ({ piece }) => pieceName(piece),
      cell: ({ id, piece }) => (
        <>
          {pieceName(piece)} <Sample id={id} />
          {piece.coating !== undefined && <small> {piece.coating}</small>}
        </>
      ),
    },
    {
      key: 'thickness',
      head: `Thickness, ${unit}`,
      isFigure: true,
      sortBy: ({ piece }) => piece.thickness,
      cell: ({ piece }) => formatExactLength(piece.thickness, unit, INSTRUMENT_DECIMALS[unit]),
    },
    {
      key: 'onHand',
      head: 'On hand',
      className: 'count',
      sortBy: ({ piece }) => piece.onHand,
      cell: (line) => (
        <CountField
          kept={countPlace(line.id, 'onHand')}
          label={`On hand of ${pieceName(line.piece)}`}
          value={line.piece.onHand}
          most={99_999}
          beside={counts}
          onCommit={(onHand) => put(line, { ...line.piece, onHand: onHand ?? 0 }, 'count')}
        />
      ),
    },
    {
      key: 'free',
      head: 'Free',
      isFigure: true,
      sortBy: (line) => freeOnShelf(line.piece.onHand, line, null),
      cell: (line) => freeOnShelf(line.piece.onHand, line, null),
    },
    {
      key: 'least',
      head: 'Minimum',
      className: 'count',
      sortBy: ({ piece }) => piece.least,
      cell: (line) => (
        <CountField
          kept={countPlace(line.id, 'least')}
          label={`Minimum of ${pieceName(line.piece)}`}
          value={line.piece.least}
          most={9999}
          onCommit={(least) => put(line, { ...line.piece, least: least ?? 0 }, 'change')}
        />
      ),
    },
    { key: 'bin', head: 'Bin', sortBy: ({ piece }) => piece.bin, cell: ({ piece }) => piece.bin },
    {
      key: 'price',
      head: 'Price',
      isFigure: true,
      sortBy: ({ piece }) => piece.price,
      cell: ({ piece }) => (piece.price === null ? '' : piece.price.toFixed(2)),
    },
    {
      key: 'reserved',
      head: 'Reserved for',
      cell: ({ reservations }) => reservations.map(({ name, count }) => `${count} for ${name}`).join(', '),
    },
    { key: 'used', head: 'Used', isFigure: true, sortBy: ({ used }) => used, cell: ({ used }) => used },
    {
      key: 'acts',
      head: <span className="visually-hidden">Actions</span>,
      className: 'acts',
      cell: (line) => (
        <>
          <Button $kind="quiet" aria-label={`Open ${pieceName(line.piece)}`} onPress={() => onOpen(line.id)}>
            <ChevronRight aria-hidden size={20} />
          </Button>
          <Button
            $kind="quiet"
            aria-label={`Remove ${pieceName(line.piece)} from stock`}
            onPress={() => void put(line, null, 'remove')}
          >
            <Trash2 aria-hidden size={18} />
          </Button>
        </>
      ),
    },
  ];
}

/** The list as a file of a spreadsheet. */
function PieceFiles({ lines, unit }: { lines: readonly PieceLine[]; unit: Unit }) {
  return (
    <>
      <Button
        aria-label="Washers and shims as CSV"
        onPress={() => saveAs('washers and shims.csv', CSV_TYPE, csvOf(pieceTable(lines, unit)))}
      >
        <Download aria-hidden size={18} />
        CSV
      </Button>
      <Button
        aria-label="Washers and shims as XLSX"
        onPress={() =>
          void xlsxOf('Washers and shims', pieceTable(lines, unit)).then(({ type, content }) =>
            saveAs('washers and shims.xlsx', type, content),
          )
        }
      >
        <Download aria-hidden size={18} />
        XLSX
      </Button>
    </>
  );
}

/** The workshop's washers, flanged halves and shims: what is on hand, free, reserved and used. */
export function WorkshopPieces({ lines, unit, by, act, opened, onOpen }: WorkshopPiecesProps) {
  const [isAdding, setAdding] = useState(false);
  const isLeft = useLeftPlaces();
  const sorted = [...(lines ?? [])].sort(
    (one, other) => one.piece.kind.localeCompare(other.piece.kind, 'en') || one.piece.thickness - other.piece.thickness,
  );
  const put: Put = (line, piece, kind) =>
    act(() => moveDrawer({ by, kind, note: '', changes: [{ id: line.id, version: line.version, piece }] }));
  const columns = columnsOf({ lines: sorted, unit, put, onOpen });
  return (
    <Panel aria-label="Washers and shims">
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle>Washers and shims</PanelTitle>
        <Row>
          {sorted.length > 0 && <PieceFiles lines={sorted} unit={unit} />}
          <Button aria-expanded={isAdding} onPress={() => setAdding(!isAdding)}>
            <Plus aria-hidden size={20} />
            Add washers or shims
          </Button>
        </Row>
      </Row>
      {isAdding && (
        <PieceForm
          id="workshop"
          unit={unit}
          isCounted
          onAdd={(piece, count, shelf) => {
            const changes = [
              { id: newId(), version: 0, piece: drawerPieceSchema.parse({ ...piece, ...shelf, onHand: count ?? 0 }) },
            ];
            void act(() => moveDrawer({ by, kind: 'add', note: '', changes }));
          }}
        />
      )}
      {lines === null ? (
        <p aria-busy>Loading stock …</p>
      ) : sorted.length === 0 ? (
        <Quiet>None yet. Thrust washers, flanged shells, ring shims and joint shims go here.</Quiet>
      ) : (
        <Pieces>
          <DataTable
            label="Washers and shims in the workshop"
            items={sorted}
            columns={columns}
            what="washers and shims"
            keyOf={({ id }) => id}
            onOpen={({ id }) => onOpen(id)}
            isCurrent={({ id }) => id === opened}
            isTyped={({ id }) => isLeft(countPlace(id, 'onHand')) || isLeft(countPlace(id, 'least'))}
          />
        </Pieces>
      )}
    </Panel>
  );
}
