import { type BuildSheet, buildSheetRows, momentText } from '@fettle/core';
import { Download, Printer } from 'lucide-react';
import { useState } from 'react';
import { useAppDispatch, useAppSelector } from '../base/store.js';
import { useOpenJob } from '../job/JobPage.js';
import { useChangeDocument } from '../job/useJob.js';
import { personNamed } from '../person/personSlice.js';
import { useThousandths } from '../person/useClearances.js';
import { CSV_TYPE, saveAs } from '../saving/saveAs.js';
import { csvOf } from '../spreadsheet/spreadsheet.js';
import { Ask } from '../ui/Ask.js';
import { Button, ButtonLink } from '../ui/Button.js';
import { Field } from '../ui/Field.js';
import { Row } from '../ui/Panel.js';
import { useKeptText } from '../ui/useKeptText.js';
import { pdfAddress } from './pdfAddress.js';

/** Printing the sheet, and taking it along as a file. It asks whose name stands on it. */
export function SheetActs({ sheet }: { readonly sheet: BuildSheet }) {
  const job = useOpenJob();
  const isThou = useThousandths();
  const change = useChangeDocument(job);
  const dispatch = useAppDispatch();
  const { document, view } = job;
  const name = useAppSelector((state) => state.person.name);
  const [isAsked, setAsked] = useState(false);
  const {
    text: typed,
    setText: setTyped,
    settled,
  } = useKeptText({ of: job.id, part: 'sheet', field: 'printed by' }, '');
  const print_ = (by: string) => {
    change((old) => ({ ...old, printed: { at: new Date().toISOString(), by } }), 'sheet printed');
    // The name has to stand on the paper before it is printed.
    setTimeout(() => print());
  };
  const made = (): BuildSheet => ({ ...sheet, madeAt: new Date().toISOString(), madeBy: name });
  const { printed } = document;
  return (
    <div className="no-print">
      <Row style={{ justifyContent: 'space-between' }}>
        <p style={{ flex: '1 1 20rem' }}>
          One page for the engine's file, readings on the next. Sizes in{' '}
          {document.unit === 'mm' ? 'millimetres' : 'inches'}, as measured; clearances are predicted until a trial
          assembly is read.
          {printed && ` Printed ${momentText(printed.at)} by ${printed.by}.`}
        </p>
        <Button
          aria-label="Build sheet as CSV"
          onPress={() => saveAs(`${document.name} sheet.csv`, CSV_TYPE, csvOf(buildSheetRows(made())))}
        >
          <Download aria-hidden size={18} />
          CSV
        </Button>
        <Button
          aria-label="Build sheet as JSON"
          onPress={() =>
            saveAs(`${document.name} sheet.json`, 'application/json', `${JSON.stringify(made(), null, 2)}\n`)
          }
        >
          <Download aria-hidden size={18} />
          JSON
        </Button>
        <Button
          aria-label="Build sheet as XLSX"
          onPress={() =>
            void import('../spreadsheet/spreadsheet.js')
              .then(({ xlsxOf }) => xlsxOf('Build sheet', buildSheetRows(made())))
              .then(({ type, content }) => saveAs(`${document.name} sheet.xlsx`, type, content))
          }
        >
          <Download aria-hidden size={18} />
          XLSX
        </Button>
        {view && (
          <ButtonLink
            href={pdfAddress(job.id, null, isThou)}
            target="_blank"
            rel="noreferrer"
            aria-label="Build sheet as PDF"
          >
            <Download aria-hidden size={18} />
            PDF
          </ButtonLink>
        )}
        <Button
          $kind="primary"
          aria-expanded={isAsked}
          onPress={() => (name.trim() === '' ? setAsked(true) : print_(name))}
        >
          <Printer aria-hidden size={20} />
          Print build sheet
        </Button>
      </Row>
      {isAsked && name.trim() === '' && (
        <Ask aria-label="Printed by">
          <p>The build sheet is stored with the engine. Enter your name first.</p>
          <Row style={{ alignItems: 'end' }}>
            <Field label="Your name" value={typed} maxLength={60} autoFocus onChange={setTyped} />
            <Button
              $kind="primary"
              isDisabled={typed.trim() === ''}
              onPress={() => {
                dispatch(personNamed(typed));
                settled('');
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
