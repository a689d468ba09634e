import { type InstrumentSummary, instrumentKind, instrumentTable } from '@fettle/core';
import { Download, FileUp, Plus } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { newId } from '../base/newId.js';
import { useTitle } from '../base/useTitle.js';
import { CSV_TYPE, saveAs } from '../saving/saveAs.js';
import { csvOf, xlsxOf } from '../spreadsheet/spreadsheet.js';
import { Button } from '../ui/Button.js';
import { DataTable } from '../ui/DataTable.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Row } from '../ui/Panel.js';
import { SearchField } from '../ui/SearchField.js';
import { refusalInWords } from '../wire/ask.js';
import { ImportInstruments } from './ImportInstruments.js';
import { instrumentColumns } from './instrumentColumns.js';
import { type InstrumentsListed, useInstrumentList } from './useInstrumentList.js';
import { useMayRegister } from './useMayRegister.js';

const nameOf = ({ instrument }: InstrumentSummary) => `${instrumentKind(instrument.kind).word} ${instrument.number}`;

function AmissNotice({ amiss }: { readonly amiss: readonly InstrumentSummary[] }) {
  if (amiss.length === 0) return null;
  const isOne = amiss.length === 1;
  return (
    <Notice>
      <strong>{isOne ? 'One instrument is' : `${amiss.length} instruments are`} overdue or found wrong:</strong>{' '}
      {amiss.map(nameOf).join(', ')}. {isOne ? 'Its' : 'Their'} readings are marked.
    </Notice>
  );
}

function SearchRow({ listed }: { readonly listed: InstrumentsListed }) {
  const { search, setSearch, showsRetired, setShowsRetired, retired, shown } = listed;
  const table = () => instrumentTable(shown.map(({ instrument }) => instrument));
  const saveXlsx = async () => {
    const { type, content } = await xlsxOf('Instruments', table());
    saveAs('instruments.xlsx', type, content);
  };
  return (
    <Row style={{ alignItems: 'end', marginBottom: '0.5rem' }}>
      <SearchField
        label="Search instruments"
        placeholder="number, kind, who, place"
        value={search}
        onChange={setSearch}
      />
      {(retired > 0 || showsRetired) && (
        <Button aria-pressed={showsRetired} onPress={() => setShowsRetired(!showsRetired)}>
          {showsRetired ? 'Show in use' : `Show ${retired} retired`}
        </Button>
      )}
      {shown.length > 0 && (
        <>
          <Button onPress={() => saveAs('instruments.csv', CSV_TYPE, csvOf(table()))}>
            <Download aria-hidden size={18} />
            CSV
          </Button>
          <Button onPress={() => void saveXlsx()}>
            <Download aria-hidden size={18} />
            XLSX
          </Button>
        </>
      )}
    </Row>
  );
}

/** Why no instrument is listed. */
function nothingListed({ search, isSearching, instruments, showsRetired }: InstrumentsListed): string {
  if (isSearching) return `No instrument matches “${search.trim()}”.`;
  if (showsRetired) return 'No retired instruments.';
  if (instruments.length > 0) return 'No instruments in use: all are retired.';
  return 'No instruments yet. Register each micrometer and gauge once; every engine then reads with it, corrections included.';
}

/** The workshop's instruments: where each is, how its calibration stands, when it was checked last. */
export function InstrumentList() {
  useTitle('Instruments');
  const navigate = useNavigate();
  const mayRegister = useMayRegister();
  const listed = useInstrumentList();
  const { instruments, error, shown } = listed;
  const [isImporting, setImporting] = useState(false);
  const [imported, setImported] = useState<string | null>(null);
  return (
    <>
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle as="h1">Instruments</PanelTitle>
        {mayRegister && (
          <Row style={{ minWidth: 0 }}>
            <Button aria-expanded={isImporting} onPress={() => setImporting(!isImporting)}>
              <FileUp aria-hidden size={18} />
              Import
            </Button>
            <Button
              $kind="primary"
              onPress={() => void navigate(`/instruments/${newId()}`, { state: { isNew: true } })}
            >
              <Plus aria-hidden size={20} />
              Register an instrument
            </Button>
          </Row>
        )}
      </Row>
      {error && <Notice urgent>{refusalInWords(error)}</Notice>}
      {imported && <Notice>{imported}</Notice>}
      <AmissNotice amiss={listed.amiss} />
      {isImporting && (
        <ImportInstruments
          instruments={instruments}
          onDone={(text) => {
            setImported(text);
            setImporting(false);
          }}
        />
      )}
      <Panel>
        <SearchRow listed={listed} />
        {listed.isLoading && <p aria-busy>Loading instruments …</p>}
        {!listed.isLoading && shown.length === 0 && !error && <p>{nothingListed(listed)}</p>}
        {shown.length > 0 && (
          <DataTable
            label="Instruments"
            what="instruments"
            items={shown}
            columns={instrumentColumns}
            keyOf={({ id }) => id}
            onOpen={({ id }) => void navigate(`/instruments/${id}`)}
          />
        )}
      </Panel>
    </>
  );
}
