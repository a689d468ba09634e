import { addressOf, SHEET_FILES } from '@fettle/core';

/** Countries that print on Letter, by the end of a browser's language. */
const LETTER = /-(?:US|CA|MX|CL|CO|CR|PA|PH|VE)\b/u;

/** The paper of the browser's country, and dates and times as this device writes them. */
function paperOf(isThou: boolean) {
  const { timeZone: zone } = Intl.DateTimeFormat().resolvedOptions();
  const paper = LETTER.test(navigator.language) ? 'Letter' : 'A4';
  return { paper, zone, locale: navigator.language, clearances: isThou ? 'thou' : 'unit' };
}

/**
 * Where a sheet lies as PDF.
 *
 * @param revision null for the sheet as it is now
 * @param isThou whether the clearances of an inch engine are in thousandths
 */
export function pdfAddress(job: string, revision: number | null, isThou: boolean): string {
  const endpoint = revision === null ? SHEET_FILES.sheetPdf : SHEET_FILES.signedPdf;
  return addressOf(endpoint, { id: job, revision }, paperOf(isThou));
}

/** Where the report for the customer lies as PDF. @param isNamed whether the people who did the work are named on it */
export function reportAddress(job: string, revision: number, isThou: boolean, isNamed: boolean): string {
  const names = isNamed ? 'yes' : 'no';
  return addressOf(SHEET_FILES.reportPdf, { id: job, revision }, { ...paperOf(isThou), names });
}
