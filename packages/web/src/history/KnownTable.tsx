import { Download } from 'lucide-react';
import type { ReactNode } from 'react';
import { CSV_TYPE, saveAs } from '../saving/saveAs.js';
import { csvOf, xlsxOf } from '../spreadsheet/spreadsheet.js';
import { Button } from '../ui/Button.js';
import { DataTable } from '../ui/DataTable.js';
import { Row } from '../ui/Panel.js';

/** A column of what is known: what it says in a file, and, where that is another thing, on the page. */
export interface KnownColumn<Item> {
  readonly head: string;
  readonly text: (item: Item) => string;
  readonly cell?: (item: Item) => ReactNode;
  readonly sortBy?: (item: Item) => string | number | null;
  readonly isFigure?: boolean;
}

/** Something that is known, as a table and as a file. */
export function KnownTable<Item>({
  label,
  file,
  items,
  columns,
  keyOf,
}: {
  readonly label: string;
  /** Name of the file, without its ending. */
  readonly file: string;
  readonly items: readonly Item[];
  readonly columns: readonly KnownColumn<Item>[];
  readonly keyOf: (item: Item) => string;
}) {
  const table = () => [columns.map(({ head }) => head), ...items.map((item) => columns.map(({ text }) => text(item)))];
  return (
    <>
      <DataTable
        label={label}
        what="rows"
        items={items}
        columns={columns.map(({ head, text, cell, sortBy, isFigure }) => ({
          key: head,
          head,
          cell: cell ?? text,
          sortBy: sortBy ?? text,
          isFigure: isFigure === true,
        }))}
        keyOf={keyOf}
      />
      <Row style={{ marginTop: '0.5rem' }}>
        <Button aria-label={`${label}: CSV`} onPress={() => saveAs(`${file}.csv`, CSV_TYPE, csvOf(table()))}>
          <Download aria-hidden size={18} />
          CSV
        </Button>
        <Button
          aria-label={`${label}: XLSX`}
          onPress={() => void xlsxOf(label, table()).then(({ type, content }) => saveAs(`${file}.xlsx`, type, content))}
        >
          <Download aria-hidden size={18} />
          XLSX
        </Button>
      </Row>
    </>
  );
}
