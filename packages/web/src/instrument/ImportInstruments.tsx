import {
  INSTRUMENT_COLUMNS,
  type InstrumentSummary,
  instrumentKind,
  type RegisteredInstrument,
  readInstrumentTable,
} from '@fettle/core';
import { Check, FileUp } from 'lucide-react';
import { useMemo, useState } from 'react';
import { newId } from '../base/newId.js';
import { useBy } from '../person/useBy.js';
import { type FileColumn, ImportedRows } from '../spreadsheet/ImportedRows.js';
import { useTableFile } from '../spreadsheet/useTableFile.js';
import { Button } from '../ui/Button.js';
import { FileButton } from '../ui/FileButton.js';
import { Notice } from '../ui/Notice.js';
import { OpenedPanel } from '../ui/OpenedPanel.js';
import { PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import { rangeWords } from './instrumentWords.js';

const COLUMNS: readonly FileColumn<RegisteredInstrument>[] = [
  { head: 'Number', cell: ({ number }) => number },
  { head: 'Kind', cell: ({ kind }) => instrumentKind(kind).word },
  { head: 'Reads, or size', isNumber: true, cell: rangeWords },
];

interface ImportInstrumentsProps {
  readonly instruments: readonly InstrumentSummary[];
  readonly onDone: (text: string) => void;
}

/** A CSV or XLSX file of instruments, row by row before anything of it is kept. */
export function ImportInstruments({ instruments, onDone }: ImportInstrumentsProps) {
  const by = useBy();
  const file = useTableFile();
  const [fault, setFault] = useState<string | null>(null);
  const { table, choose } = file;
  const read = useMemo(() => table && readInstrumentTable(table.cells, instruments), [table, instruments]);
  const changes = read?.ok ? read.rows.flatMap((row) => (row.ok && row.isChange ? [row] : [])) : [];
  const keep = async () => {
    setFault(null);
    let kept = 0;
    for (const { item, line } of changes) {
      try {
        const body = { revision: line?.revision ?? 0, by, instrument: item };
        await tell('putInstrument', { id: line?.id ?? newId(), body });
        kept += 1;
      } catch (error) {
        // Those before it are in the register, and show as unchanged now.
        setFault(`${kept} of ${changes.length} registered; ${item.number} was refused: ${refusalInWords(error)}`);
        return;
      }
    }
    onDone(`${kept} ${kept === 1 ? 'instrument' : 'instruments'} of ${table!.name} registered.`);
  };
  return (
    <OpenedPanel aria-label="Import">
      <PanelTitle>Import</PanelTitle>
      <Quiet>
        CSV, or the first sheet of an XLSX file, with a head: {INSTRUMENT_COLUMNS.join(', ')}. Number, kind and unit are
        required. A number that is registered already is changed.
      </Quiet>
      <Row style={{ margin: '0.5rem 0' }}>
        <FileButton label="Instrument file" accept=".csv,.xlsx" onChoose={choose}>
          <FileUp aria-hidden size={18} />
          Choose a file
        </FileButton>
        {table && <span>{table.name}</span>}
      </Row>
      {fault && <Notice urgent>{fault}</Notice>}
      <ImportedRows<RegisteredInstrument, InstrumentSummary>
        file={file}
        read={read}
        columns={COLUMNS}
        effect={({ line, isChange }) => (line === null ? 'New' : isChange ? 'Changes it' : 'Unchanged')}
        changes={`${changes.length} change the register`}
      >
        <Button $kind="primary" isDisabled={changes.length === 0} onPress={() => void keep()}>
          <Check aria-hidden size={18} />
          Register {changes.length} {changes.length === 1 ? 'row' : 'rows'}
        </Button>
      </ImportedRows>
    </OpenedPanel>
  );
}
