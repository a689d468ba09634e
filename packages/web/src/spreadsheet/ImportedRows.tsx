import type { TableRow } from '@fettle/core';
import { TriangleAlert } from 'lucide-react';
import type { ReactNode } from 'react';
import { FileRows } from '../ui/FileRows.js';
import { Notice } from '../ui/Notice.js';
import { Table } from '../ui/Panel.js';
import { UnderWay } from './UnderWay.js';
import type { ChosenTable } from './useTableFile.js';

/** A column of the rows of a file, beside their number and what they do. */
export interface FileColumn<Item> {
  readonly head: string;
  readonly isNumber?: boolean;
  readonly cell: (item: Item) => ReactNode;
}

/** Rows of a file as they were read; or the columns that its head lacks. */
type Read<Item, Line> =
  | { readonly ok: true; readonly rows: readonly TableRow<Item, Line>[] }
  | { readonly ok: false; readonly missing: readonly string[] };

interface ImportedRowsProps<Item, Line> {
  readonly file: ChosenTable;
  /** Null while no file is read. */
  readonly read: Read<Item, Line> | null;
  readonly columns: readonly FileColumn<Item>[];
  /** What a row that can be read does. */
  readonly effect: (row: TableRow<Item, Line> & { ok: true }) => string;
  /** What all of them do, after the count of those that can be read: `3 change stock`. */
  readonly changes: string;
  /** The columns that a file may have; left out: they are listed beside it. */
  readonly known?: readonly string[];
  /** What can be done with the rows. */
  readonly children: ReactNode;
}

/** A chosen file row by row before anything of it is saved: what each row does, and why a bad one cannot. */
export function ImportedRows<Item, Line>({
  file: { table, underWay, fault },
  read,
  columns,
  effect,
  changes,
  known,
  children,
}: ImportedRowsProps<Item, Line>) {
  const rows = read?.ok ? read.rows : [];
  const bad = rows.filter(({ ok }) => !ok).length;
  return (
    <>
      {underWay && <UnderWay file={underWay} />}
      {fault && <Notice urgent>{fault}</Notice>}
      {read && !read.ok && (
        <Notice urgent>
          Its first row lacks {read.missing.join(', ')}. The first row names the columns, in any order
          {known && `: ${known.join(', ')}`}.
        </Notice>
      )}
      {read?.ok && (
        <>
          <p role="status" style={{ marginTop: '0.5rem' }}>
            <strong>
              {rows.length - bad} of {rows.length} rows of {table?.name} can be read
            </strong>
            ; {changes}
            {bad > 0 && `; ${bad} ${bad === 1 ? 'is' : 'are'} left out, each with its reason`}.
          </p>
          <FileRows>
            <Table aria-label="Rows of the file">
              <thead>
                <tr>
                  <th>Row</th>
                  {columns.map(({ head, isNumber }) => (
                    <th key={head} className={isNumber ? 'number' : undefined}>
                      {head}
                    </th>
                  ))}
                  <th>Effect</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((row) => (
                  <tr key={row.row} className={row.ok ? '' : 'bad'}>
                    <td>{row.row}</td>
                    {row.ok ? (
                      columns.map(({ head, isNumber, cell }) => (
                        <td key={head} className={isNumber ? 'number' : undefined}>
                          {cell(row.item)}
                        </td>
                      ))
                    ) : (
                      <td colSpan={columns.length}>{row.cells.filter((cell) => cell.trim() !== '').join(' · ')}</td>
                    )}
                    <td>
                      {row.ok ? (
                        effect(row)
                      ) : (
                        <>
                          <TriangleAlert aria-hidden size={16} /> <strong>Not read.</strong>{' '}
                          {row.faults.map(({ column, message }) => `${column}: ${message}`).join('; ')}
                        </>
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </Table>
          </FileRows>
          {children}
        </>
      )}
    </>
  );
}
