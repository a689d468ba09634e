import { buildSheet, buildSheetRows } from '@fettle/core';
import { format } from 'date-fns';
import { Download, Printer } from 'lucide-react';
import { useState } from 'react';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { csvOf } from '../drawer/spreadsheet.js';
import { useOpenJob } from '../job/JobPage.js';
import { useChangeDocument } from '../job/useJob.js';
import { Ask } from '../look/Ask.js';
import { Button } from '../look/Button.js';
import { Field } from '../look/Field.js';
import { Row } from '../look/Panel.js';
import { personNamed } from '../person/personSlice.js';
import { CSV_TYPE, saveAs } from '../saving/saveAs.js';

/** Printing the sheet, and taking it along as a file. It asks whose name stands on it. */
export function SheetActs() {
  const job = useOpenJob();
  const change = useChangeDocument(job);
  const dispatch = useAppDispatch();
  const { document, readings, view } = job;
  const name = useAppSelector((state) => state.person.name);
  const [isAsked, setAsked] = useState(false);
  const [typed, setTyped] = useState('');
  const print_ = (by: string) => {
    change((old) => ({ ...old, printed: { at: new Date().toISOString(), by } }), 'sheet printed');
    // The name has to stand on the paper before it is printed.
    setTimeout(() => print());
  };
  const made = () =>
    buildSheet(document, readings, {
      madeAt: new Date().toISOString(),
      madeBy: name,
      version: view?.version ?? null,
    });
  const { printed } = document;
  return (
    <div className="no-print">
      <Row style={{ justifyContent: 'space-between' }}>
        <p style={{ flex: '1 1 20rem' }}>
          One page for the engine's file. Sizes in {document.unit === 'mm' ? 'millimetres' : 'inches'}, as measured;
          clearances are predicted until a trial assembly is read.
          {printed && ` Printed ${format(new Date(printed.at), 'd MMM yyyy HH:mm')} by ${printed.by}.`}
        </p>
        <Button
          aria-label="Sheet as CSV"
          onPress={() => saveAs(`${document.name} sheet.csv`, CSV_TYPE, csvOf(buildSheetRows(made())))}
        >
          <Download aria-hidden size={18} />
          CSV
        </Button>
        <Button
          aria-label="Sheet as JSON"
          onPress={() =>
            saveAs(`${document.name} sheet.json`, 'application/json', `${JSON.stringify(made(), null, 2)}\n`)
          }
        >
          <Download aria-hidden size={18} />
          JSON
        </Button>
        <Button
          $kind="main"
          aria-expanded={isAsked}
          onPress={() => (name.trim() === '' ? setAsked(true) : print_(name))}
        >
          <Printer aria-hidden size={20} />
          Print the sheet
        </Button>
      </Row>
      {isAsked && name.trim() === '' && (
        <Ask aria-label="Who prints it">
          <p>A sheet is kept with the engine: whose name stands on it?</p>
          <Row style={{ alignItems: 'end' }}>
            <Field label="Your name" value={typed} maxLength={60} autoFocus onChange={setTyped} />
            <Button
              $kind="main"
              isDisabled={typed.trim() === ''}
              onPress={() => {
                dispatch(personNamed(typed));
                setAsked(false);
                print_(typed.trim());
              }}
            >
              Print with this name
            </Button>
          </Row>
        </Ask>
      )}
    </div>
  );
}
