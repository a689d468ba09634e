import { type BuildSheet, comparedSheets } from '@fettle/core';
import { FileText } from 'lucide-react';
import { useState } from 'react';
import { useOpenJob } from '../job/JobPage.js';
import { useChangeDocument } from '../job/useJob.js';
import { useThousandths } from '../person/useClearances.js';
import { WordsField } from '../typing/WordsField.js';
import { ButtonLink } from '../ui/Button.js';
import { FieldPairs } from '../ui/Fold.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { Tick } from '../ui/Tick.js';
import { reportAddress } from './pdfAddress.js';
import type { SignedWithSheet } from './useSheets.js';

interface ReportPanelProps {
  /** The sheet as it is now. */
  readonly sheet: BuildSheet;
  /** The sheet that was signed last; null while none is known. */
  readonly last: SignedWithSheet | null;
}

/** The report for the customer: what the workshop adds in words, and the PDF of an engine that is as it was signed. */
export function ReportPanel({ sheet, last }: ReportPanelProps) {
  const job = useOpenJob();
  const change = useChangeDocument(job);
  const isThou = useThousandths();
  const [isNamed, setNamed] = useState(false);
  const { report } = job.document;
  const set = (part: Partial<typeof report>) =>
    change((old) => ({ ...old, report: { ...old.report, ...part } }), 'customer’s report');
  const count = last === null ? 0 : comparedSheets(last.sheet, sheet, String).length;
  return (
    <Panel className="no-print" aria-label="Customer’s report">
      <PanelTitle>Customer’s report</PanelTitle>
      <Quiet>
        Two pages at most, in plain words: condition, work done, before and after, refusals, pictures. The figures are
        those of the signed sheet.
      </Quiet>
      <FieldPairs>
        <WordsField
          job={job.id}
          part="report"
          field="refused"
          label="Refused, and why"
          value={report.refused}
          most={1000}
          onCommit={(refused) => set({ refused })}
        />
        <WordsField
          job={job.id}
          part="report"
          field="words"
          label="Other notes for the customer"
          value={report.words}
          most={1000}
          onCommit={(words) => set({ words })}
        />
      </FieldPairs>
      <Row style={{ marginTop: '0.5rem', justifyContent: 'space-between' }}>
        <Tick isSelected={isNamed} onChange={setNamed}>
          Name the people who did the work
        </Tick>
        {last === null ? (
          <Quiet role="status">Sign the build sheet first.</Quiet>
        ) : count > 0 ? (
          <Quiet role="status">
            The engine differs from signed revision {last.revision} in {count} {count === 1 ? 'line' : 'lines'}: sign
            the engine again first.
          </Quiet>
        ) : (
          <ButtonLink href={reportAddress(job.id, last.revision, isThou, isNamed)} target="_blank" rel="noreferrer">
            <FileText aria-hidden size={18} />
            Report as PDF
          </ButtonLink>
        )}
      </Row>
    </Panel>
  );
}
