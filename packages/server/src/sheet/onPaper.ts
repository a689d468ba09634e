import { type ReportTask, reportPdf as report } from './reportPdf.js';
import { type PdfTask, sheetPdf as sheet } from './sheetPdf.js';

/** A build sheet on paper, in a worker thread. A pool looks for the default one as soon as a thread begins. */
export default function sheetPdf(task: PdfTask): Promise<Uint8Array> {
  return sheet(task);
}

/** A customer’s report on paper, in a worker thread. */
export function reportPdf(task: ReportTask): Promise<Uint8Array> {
  return report(task);
}
