import {
  FEATURE_TABLE,
  partName,
  READING_COLUMNS,
  type ReadingRow,
  readingTable,
  readReadingTable,
  slotName,
} from '@fettle/core';
import { Check, Download, FileUp, TriangleAlert } from 'lucide-react';
import { type RefObject, useState } from 'react';
import type { OpenJob } from '../job/useJob.js';
import { CSV_TYPE, saveAs } from '../saving/saveAs.js';
import { csvOf, xlsxOf } from '../spreadsheet/spreadsheet.js';
import { UnderWay } from '../spreadsheet/UnderWay.js';
import { useTableFile } from '../spreadsheet/useTableFile.js';
import { Button } from '../ui/Button.js';
import { FileButton } from '../ui/FileButton.js';
import { FileRows } from '../ui/FileRows.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../ui/Panel.js';
import { useSaveReading } from './useSaveReading.js';

/** What a row does to the readings, or what keeps it from that. */
function Does({ row }: { readonly row: ReadingRow }) {
  if (!row.ok) {
    return (
      <>
        <TriangleAlert aria-hidden size={16} /> <strong>Not read.</strong>{' '}
        {row.faults.map(({ column, message }) => `${column}: ${message}`).join('; ')}
      </>
    );
  }
  const before = row.line?.text ?? '';
  if (before === '') return 'New';
  return row.isChange ? `Takes the place of ${before}` : 'Unchanged';
}

/** All readings of an engine as a file, and readings from a file, each row shown with what it does before any is kept. */
export function ReadingsFile({ latest }: { readonly latest: RefObject<OpenJob> }) {
  const save = useSaveReading(latest, 'from a file');
  const { document, readings } = latest.current;
  const cells = () => readingTable(latest.current.document, latest.current.readings);
  const { table, underWay, fault, choose, drop } = useTableFile();
  const [told, setTold] = useState<string | null>(null);
  const read = table && readReadingTable(table.cells, document, readings);
  const rows = read?.ok ? read.rows : [];
  const changes = rows.flatMap((row) => (row.ok && row.isChange ? [row.item] : []));
  const bad = rows.filter((row) => !row.ok).length;
  const keep = () => {
    for (const { text, setting, ...place } of changes) save(place, text, setting);
    setTold(`${changes.length} ${changes.length === 1 ? 'reading' : 'readings'} of ${table!.name} saved.`);
    drop();
  };
  const name = `${document.name} readings`;
  return (
    <Panel aria-label="Readings as a file">
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle>Readings as a file</PanelTitle>
        <Row>
          <Button aria-label="Readings as CSV" onPress={() => saveAs(`${name}.csv`, CSV_TYPE, csvOf(cells()))}>
            <Download aria-hidden size={18} />
            CSV
          </Button>
          <Button
            aria-label="Readings as XLSX"
            onPress={() =>
              void xlsxOf('Readings', cells()).then(({ type, content }) => saveAs(`${name}.xlsx`, type, content))
            }
          >
            <Download aria-hidden size={18} />
            XLSX
          </Button>
          <FileButton
            label="Readings file"
            accept=".csv,.xlsx"
            onChoose={(chosen) => {
              setTold(null);
              choose(chosen);
            }}
          >
            <FileUp aria-hidden size={18} />
            Import
          </FileButton>
        </Row>
      </Row>
      {told && <p role="status">{told}</p>}
      {underWay && <UnderWay file={underWay} />}
      {fault && <Notice urgent>{fault}</Notice>}
      {read && !read.ok && (
        <Notice urgent>
          Its first row lacks {read.missing.join(', ')}. The first row names the columns, in any order:{' '}
          {READING_COLUMNS.join(', ')}.
        </Notice>
      )}
      {read?.ok && (
        <>
          <p role="status">
            <strong>
              {rows.length - bad} of {rows.length} rows of {table!.name} can be read
            </strong>
            ; {changes.length} {changes.length === 1 ? 'changes' : 'change'} a reading
            {bad > 0 && `; ${bad} ${bad === 1 ? 'is' : 'are'} left out, each with its reason`}.
          </p>
          <FileRows>
            <Table aria-label="Rows of the file">
              <thead>
                <tr>
                  <th>Row</th>
                  <th>Where</th>
                  <th className="number">Reading</th>
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
                          {partName(row.item.feature, row.item.station)} {FEATURE_TABLE[row.item.feature].word},{' '}
                          {slotName(row.item.slot).toLowerCase()}
                        </td>
                        <td className="number">{row.item.text}</td>
                      </>
                    ) : (
                      <td colSpan={2}>{row.cells.filter((cell) => cell.trim() !== '').join(' · ')}</td>
                    )}
                    <td>
                      <Does row={row} />
                    </td>
                  </tr>
                ))}
              </tbody>
            </Table>
          </FileRows>
          <Row>
            <Button $kind="primary" isDisabled={changes.length === 0} onPress={keep}>
              <Check aria-hidden size={18} />
              Save {changes.length} {changes.length === 1 ? 'reading' : 'readings'}
            </Button>
            <Button onPress={drop}>Cancel</Button>
          </Row>
        </>
      )}
      <Quiet>What was typed, to the letter, with size, instrument, temperature, person and time.</Quiet>
    </Panel>
  );
}
