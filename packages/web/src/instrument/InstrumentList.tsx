import { type InstrumentSummary, instrumentKind, instrumentTable } from '@fettle/core';
import { Download, FileUp, Plus } from 'lucide-react';
import { useMemo, useState } from 'react';
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
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { ImportInstruments } from './ImportInstruments.js';
import { instrumentColumns } from './instrumentColumns.js';
import { standingOf } from './instrumentWords.js';
import { useMayRegister } from './useMayRegister.js';

const NONE: readonly InstrumentSummary[] = [];

function isFound({ instrument }: InstrumentSummary, words: readonly string[]): boolean {
  const { number, kind, holder, place } = instrument;
  const all = `${number} ${instrumentKind(kind).word} ${holder} ${place}`.toLowerCase();
  return words.every((word) => all.includes(word));
}

/** The workshop's instruments: where each is, how its calibration stands, when it was checked last. */
export function InstrumentList() {
  useTitle('Instruments');
  const navigate = useNavigate();
  const mayRegister = useMayRegister();
  const { data, error } = api.useListInstrumentsQuery({}, { refetchOnMountOrArgChange: true });
  const instruments = data?.instruments ?? NONE;
  const [words, setWords] = useState('');
  const [showsRetired, setShowsRetired] = useState(false);
  const [isImporting, setImporting] = useState(false);
  const [told, setTold] = useState<string | null>(null);
  const sought = words.toLowerCase().split(/\s+/u).filter(Boolean);
  const shown = useMemo(
    () => instruments.filter((one) => (one.instrument.state === 'retired') === showsRetired && isFound(one, sought)),
    [instruments, showsRetired, sought],
  );
  const retired = instruments.filter(({ instrument }) => instrument.state === 'retired').length;
  const amiss = instruments.filter(
    (one) => one.instrument.state !== 'retired' && ['wrong', 'overdue'].includes(standingOf(one)),
  );
  const table = () => instrumentTable(shown.map(({ instrument }) => instrument));
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
      {told && <Notice>{told}</Notice>}
      {amiss.length > 0 && (
        <Notice>
          <strong>
            {amiss.length === 1 ? 'One instrument is' : `${amiss.length} instruments are`} overdue or found wrong:
          </strong>{' '}
          {amiss.map(({ instrument }) => `${instrumentKind(instrument.kind).word} ${instrument.number}`).join(', ')}.{' '}
          {amiss.length === 1 ? 'Its' : 'Their'} readings are marked.
        </Notice>
      )}
      {isImporting && (
        <ImportInstruments
          instruments={instruments}
          onDone={(text) => {
            setTold(text);
            setImporting(false);
          }}
        />
      )}
      <Panel>
        <Row style={{ alignItems: 'end', marginBottom: '0.5rem' }}>
          <SearchField
            label="Search instruments"
            placeholder="number, kind, who, place"
            value={words}
            onChange={setWords}
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
              <Button
                onPress={() =>
                  void xlsxOf('Instruments', table()).then(({ type, content }) =>
                    saveAs('instruments.xlsx', type, content),
                  )
                }
              >
                <Download aria-hidden size={18} />
                XLSX
              </Button>
            </>
          )}
        </Row>
        {data === undefined && !error ? (
          <p aria-busy>Loading instruments …</p>
        ) : shown.length === 0 ? (
          <p>
            {sought.length > 0
              ? `No instrument matches “${words.trim()}”.`
              : 'No instruments yet. Register each micrometer and gauge once; every engine then reads with it, corrections included.'}
          </p>
        ) : (
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
