import {
  FEATURE_TABLE,
  partName,
  READING_COLUMNS,
  type ReadingItem,
  type ReadingRow,
  readingTable,
  readReadingTable,
  slotName,
} from '@fettle/core';
import { Check, Download, FileUp } from 'lucide-react';
import { type RefObject, useState } from 'react';
import type { OpenJob } from '../job/useJob.js';
import { CSV_TYPE, saveAs } from '../saving/saveAs.js';
import { type FileColumn, ImportedRows } from '../spreadsheet/ImportedRows.js';
import { csvOf, xlsxOf } from '../spreadsheet/spreadsheet.js';

import { useTableFile } from '../spreadsheet/useTableFile.js';
import { Button } from '../ui/Button.js';
import { FileButton } from '../ui/FileButton.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { useSaveReading } from './useSaveReading.js';

/** What a row does to the readings. */
function effectOf({ line, isChange }: ReadingRow & { ok: true }): string {
  const before = line?.text ?? '';
  if (before === '') return 'New';
  return isChange ? `Takes the place of ${before}` : 'Unchanged';
}

const COLUMNS: readonly FileColumn<ReadingItem>[] = [
  {
    head: 'Where',
    cell: ({ feature, station, slot }) =>
      `${partName(feature, station)} ${FEATURE_TABLE[feature].word}, ${slotName(slot).toLowerCase()}`,
  },
  { head: 'Reading', isNumber: true, cell: ({ text }) => text },
];

/** All readings of an engine as a file, and readings from a file, each row shown with what it does before any is kept. */
export function ReadingsFile({ latest }: { readonly latest: RefObject<OpenJob> }) {
  const save = useSaveReading(latest, 'from a file');
  const { document, readings } = latest.current;
  const cells = () => readingTable(latest.current.document, latest.current.readings);
  const file = useTableFile();
  const { table, choose, drop } = file;
  const [told, setTold] = useState<string | null>(null);
  const read = table && readReadingTable(table.cells, document, readings);
  const rows = read?.ok ? read.rows : [];
  const changes = rows.flatMap((row) => (row.ok && row.isChange ? [row.item] : []));
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
      <ImportedRows
        file={file}
        read={read}
        columns={COLUMNS}
        effect={effectOf}
        changes={`${changes.length} ${changes.length === 1 ? 'changes' : 'change'} a reading`}
        known={READING_COLUMNS}
      >
        <Row>
          <Button $kind="primary" isDisabled={changes.length === 0} onPress={keep}>
            <Check aria-hidden size={18} />
            Save {changes.length} {changes.length === 1 ? 'reading' : 'readings'}
          </Button>
          <Button onPress={drop}>Cancel</Button>
        </Row>
      </ImportedRows>
      <Quiet>What was typed, to the letter, with size, instrument, temperature, person and time.</Quiet>
    </Panel>
  );
}
