import { buildSheet, momentText, sinceSigned } from '@fettle/core';
import { useMemo } from 'react';
import { useQuery } from '../base/useQuery.js';
import { useOpenJob } from '../job/JobPage.js';
import { Notice } from '../ui/Notice.js';
import { Paper } from './Paper.js';
import { ReportPanel } from './ReportPanel.js';
import { SheetActs } from './SheetActs.js';
import { SignedSheets } from './SignedSheets.js';
import { SignedView } from './SignedView.js';
import { useLastSigned, useSheets } from './useSheets.js';

/** The build sheet, to be printed, signed and kept with the engine; signed ones stay as they were. */
export function SheetView() {
  const job = useOpenJob();
  const { document, readings, view } = job;
  const sheets = useSheets(job);
  const [revision, setRevision] = useQuery('revision');
  const sheet = useMemo(
    () =>
      buildSheet(document, readings, {
        madeAt: view?.updatedAt ?? new Date(0).toISOString(),
        madeBy: view?.updatedBy ?? '',
        version: view?.version ?? null,
      }),
    [document, readings, view],
  );
  const opened = revision === null ? null : Number(revision);
  const last = useLastSigned(job.id, sheets);
  const since = last === null ? '' : `; ${sinceSigned(last, sheet)}`;
  const version = view ? `${view.version}, ${momentText(view.updatedAt)}${since}` : 'not on the server yet';
  return (
    <>
      <SheetActs sheet={sheet} />
      <SignedSheets sheets={sheets} opened={opened} onOpen={(one) => setRevision(one === null ? null : String(one))} />
      <ReportPanel sheet={sheet} last={last} />
      {!document.choice && opened === null && (
        <div className="no-print">
          <Notice>No selection accepted yet: the build sheet prints the sizes, with the shells blank.</Notice>
        </div>
      )}
      {opened === null ? (
        <Paper
          label="Build sheet"
          sheet={sheet}
          more={[{ label: 'Version', text: version }]}
          names={
            <div className="names">
              <span>Fitted by, date</span>
              <span>Checked by, date</span>
              <span>Remarks</span>
            </div>
          }
        />
      ) : (
        <SignedView key={opened} job={job.id} revision={opened} sheets={sheets} now={sheet} />
      )}
    </>
  );
}
