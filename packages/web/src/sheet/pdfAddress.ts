import { addressOf, SHEET_FILES } from '@fettle/core';

/** Countries that print on Letter, by the end of a browser's language. */
const LETTER = /-(?:US|CA|MX|CL|CO|CR|PA|PH|VE)\b/u;

/**
 * Where a sheet lies as PDF: on the paper of the browser's country, its dates and times as this device writes them.
 *
 * @param revision null for the sheet as it is now
 * @param isThou whether the clearances of an inch engine are in thousandths
 */
export function pdfAddress(job: string, revision: number | null, isThou: boolean): string {
  const paper = LETTER.test(navigator.language) ? 'Letter' : 'A4';
  const { timeZone: zone } = Intl.DateTimeFormat().resolvedOptions();
  const endpoint = revision === null ? SHEET_FILES.sheetPdf : SHEET_FILES.signedPdf;
  return addressOf(
    endpoint,
    { id: job, revision },
    { paper, zone, locale: navigator.language, clearances: isThou ? 'thou' : 'unit' },
  );
}
