import type { DrawerItem, DrawerLine, DrawerRow, PieceLine, PieceRow } from '@fettle/core';
import {
  cutText,
  DRAWER_COLUMNS,
  drawerItemLabel,
  isPiece,
  isPieceTable,
  lengthText,
  PIECE_COLUMNS,
  readDrawerTable,
  readPieceTable,
  type Unit,
} from '@fettle/core';
import { Check, FileUp } from 'lucide-react';
import { useMemo } from 'react';
import { newId } from '../base/newId.js';
import { type FileColumn, ImportedRows } from '../spreadsheet/ImportedRows.js';
import { useTableFile } from '../spreadsheet/useTableFile.js';
import { Button } from '../ui/Button.js';
import { FileButton } from '../ui/FileButton.js';
import { OpenedPanel } from '../ui/OpenedPanel.js';
import { PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { moveDrawer } from './moveDrawer.js';
import type { Drawer } from './useDrawer.js';

interface ImportPanelProps {
  readonly lines: readonly DrawerLine[];
  readonly pieces: readonly PieceLine[];
  readonly unit: Unit;
  readonly by: string;
  readonly act: Drawer['act'];
  readonly onDone: (text: string) => void;
}

/** What a row does to the drawer. */
function effectOf(row: (DrawerRow | PieceRow) & { ok: true }): string {
  if (!row.line) return 'New';
  if (!row.isChange) return 'Unchanged';
  const { onHand } = 'half' in row.line ? row.line.half : row.line.piece;
  return onHand === row.item.onHand ? 'Changes it' : `Changes it, ${onHand} to ${row.item.onHand} on hand`;
}

function columnsIn(unit: Unit): FileColumn<DrawerItem>[] {
  return [
    {
      head: 'Item',
      cell: (item) => `${drawerItemLabel(item)}${item.number === undefined ? '' : ` no. ${item.number}`}`,
    },
    {
      head: 'Thickness',
      isNumber: true,
      cell: (item) => lengthText(isPiece(item) ? item.thickness : item.wall, unit),
    },
    { head: 'On hand', isNumber: true, cell: ({ onHand }) => onHand },
  ];
}

/** A CSV or XLSX file shown row by row before anything of it is kept: what each row does, and why a bad one cannot. */
export function ImportPanel({ lines, pieces, unit, by, act, onDone }: ImportPanelProps) {
  const file = useTableFile();
  const { table, choose } = file;
  const read = useMemo(() => {
    if (!table) return null;
    return isPieceTable(table.cells)
      ? readPieceTable(table.cells, unit, pieces)
      : readDrawerTable(table.cells, unit, lines);
  }, [table, unit, lines, pieces]);
  const rows: readonly (DrawerRow | PieceRow)[] = read?.ok ? read.rows : [];
  const good = rows.filter((row) => row.ok);
  const changes = good.filter(({ isChange }) => isChange);
  const keep = async () => {
    const worked = await act(() =>
      moveDrawer({
        by,
        kind: 'import',
        note: cutText(table!.name, 300),
        changes: changes.map(({ line, item }) => ({
          id: line?.id ?? newId(),
          version: line?.version ?? 0,
          ...(isPiece(item) ? { piece: item } : { half: item }),
        })),
      }),
    );
    if (worked) onDone(`${changes.length} ${changes.length === 1 ? 'row' : 'rows'} of ${table!.name} added to stock.`);
  };
  return (
    <OpenedPanel aria-label="Import">
      <PanelTitle>Import</PanelTitle>
      <Quiet>
        CSV, or the first sheet of an XLSX file, with a head: {DRAWER_COLUMNS.join(', ')}. Family, series, grade, half,
        wall and on hand are required. Or washers and shims: {PIECE_COLUMNS.join(', ')}, of which kind, name, thickness
        and on hand are required. Lengths without a unit are in {unit === 'mm' ? 'millimetres' : 'inches'}.
      </Quiet>
      <Row style={{ margin: '0.5rem 0' }}>
        <FileButton label="Stock file" accept=".csv,.xlsx" onChoose={choose}>
          <FileUp aria-hidden size={18} />
          Choose a file
        </FileButton>
        {table && <span>{table.name}</span>}
      </Row>
      <ImportedRows<DrawerItem, DrawerLine | PieceLine>
        file={file}
        read={read}
        columns={columnsIn(unit)}
        effect={(row) => effectOf(row as (DrawerRow | PieceRow) & { ok: true })}
        changes={`${changes.length} change stock`}
      >
        <Button $kind="primary" isDisabled={changes.length === 0} onPress={() => void keep()}>
          <Check aria-hidden size={18} />
          Add {changes.length} {changes.length === 1 ? 'row' : 'rows'} to stock
        </Button>
      </ImportedRows>
    </OpenedPanel>
  );
}
