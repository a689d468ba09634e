import type { DrawerLine, DrawerRow, PieceLine, PieceRow } from '@fettle/core';
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
import { Check, FileUp, TriangleAlert } from 'lucide-react';
import { useMemo } from 'react';
import { newId } from '../base/newId.js';
import { UnderWay } from '../spreadsheet/UnderWay.js';
import { useTableFile } from '../spreadsheet/useTableFile.js';
import { Button } from '../ui/Button.js';
import { FileButton } from '../ui/FileButton.js';
import { FileRows } from '../ui/FileRows.js';
import { Notice } from '../ui/Notice.js';
import { OpenedPanel } from '../ui/OpenedPanel.js';
import { PanelTitle, Quiet, Row, Table } from '../ui/Panel.js';
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

/** What a row does to the drawer, or what keeps it from that. */
function RowState({ row }: { row: DrawerRow | PieceRow }) {
  if (!row.ok) {
    return (
      <>
        <TriangleAlert aria-hidden size={16} /> <strong>Not read.</strong>{' '}
        {row.faults.map(({ column, message }) => `${column}: ${message}`).join('; ')}
      </>
    );
  }
  if (!row.line) return 'New';
  if (!row.isChange) return 'Unchanged';
  const { onHand } = 'half' in row.line ? row.line.half : row.line.piece;
  return onHand === row.item.onHand ? 'Changes it' : `Changes it, ${onHand} to ${row.item.onHand} on hand`;
}

/** A CSV or XLSX file shown row by row before anything of it is kept: what each row does, and why a bad one cannot. */
export function ImportPanel({ lines, pieces, unit, by, act, onDone }: ImportPanelProps) {
  const { table, underWay, fault, choose } = useTableFile();
  const read = useMemo(() => {
    if (!table) return null;
    return isPieceTable(table.cells)
      ? readPieceTable(table.cells, unit, pieces)
      : readDrawerTable(table.cells, unit, lines);
  }, [table, unit, lines, pieces]);
  const rows: readonly (DrawerRow | PieceRow)[] = read?.ok ? read.rows : [];
  const good = rows.filter((row) => row.ok);
  const bad = rows.length - good.length;
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
      {underWay && <UnderWay file={underWay} />}
      {fault && <Notice urgent>{fault}</Notice>}
      {read && !read.ok && (
        <Notice urgent>
          Its first row lacks {read.missing.join(', ')}. The first row names the columns, in any order.
        </Notice>
      )}
      {read?.ok && (
        <>
          <p role="status" style={{ marginTop: '0.5rem' }}>
            <strong>
              {good.length} of {rows.length} rows can be read
            </strong>
            ; {changes.length} change stock
            {bad > 0 && `; ${bad} ${bad === 1 ? 'is' : 'are'} left out, each with its reason`}.
          </p>
          <FileRows>
            <Table aria-label="Rows of the file">
              <thead>
                <tr>
                  <th>Row</th>
                  <th>Item</th>
                  <th className="number">Thickness</th>
                  <th className="number">On hand</th>
                  <th>Effect</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((row) => (
                  <tr key={row.row} className={row.ok ? '' : 'bad'}>
                    <td>{row.row}</td>
                    {row.ok ? (
                      <>
                        <td>
                          {drawerItemLabel(row.item)}
                          {row.item.number !== undefined && ` no. ${row.item.number}`}
                        </td>
                        <td className="number">
                          {lengthText(isPiece(row.item) ? row.item.thickness : row.item.wall, unit)}
                        </td>
                        <td className="number">{row.item.onHand}</td>
                      </>
                    ) : (
                      <td colSpan={3}>{row.cells.filter((cell) => cell.trim() !== '').join(' · ')}</td>
                    )}
                    <td>
                      <RowState row={row} />
                    </td>
                  </tr>
                ))}
              </tbody>
            </Table>
          </FileRows>
          <Button $kind="primary" isDisabled={changes.length === 0} onPress={() => void keep()}>
            <Check aria-hidden size={18} />
            Add {changes.length} {changes.length === 1 ? 'row' : 'rows'} to stock
          </Button>
        </>
      )}
    </OpenedPanel>
  );
}
