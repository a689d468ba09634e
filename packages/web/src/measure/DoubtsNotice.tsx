import {
  FEATURE_TABLE,
  type Feature,
  lengthText,
  offLineWords,
  partName,
  type ReadingDoubt,
  readingDoubts,
  slotName,
  type Unit,
} from '@fettle/core';
import type { OpenJob } from '../job/useJob.js';
import { Notice } from '../ui/Notice.js';

function wordsOf(doubt: ReadingDoubt, unit: Unit): string {
  const name = (number: number) => partName(doubt.feature, number);
  if (doubt.kind === 'other-part') {
    const place = slotName(doubt.slot).toLowerCase();
    return `${name(doubt.part)}, ${place}: not as the others there, but as ${name(doubt.other)} reads, which has no ${place} yet. Is it ${name(doubt.other)}’s?`;
  }
  if (doubt.kind === 'off-line') {
    return `${name(doubt.part)} is ${offLineWords(doubt, unit)}: more than ${lengthText(doubt.within, unit)}, the setting for bores along the line. Read it again; if it is so, have the line checked.`;
  }
  const [one, other] = doubt.parts.map(name);
  return doubt.kind === 'copied'
    ? `${one} and ${other} have the same figures in the same places. Were both read, or was one copied?`
    : `${one} measures like the mark of ${other}, and ${other} like that of ${one}. Entered the wrong way round?`;
}

/** What is to be asked about the readings of a feature taken together. */
export function DoubtsNotice({ job, feature }: { readonly job: OpenJob; readonly feature: Feature }) {
  const doubts = readingDoubts(job.document, job.readings, feature);
  if (doubts.length === 0) return null;
  return (
    <Notice>
      <ul aria-label={`Check: ${FEATURE_TABLE[feature].words}`}>
        {doubts.map((doubt) => (
          <li key={wordsOf(doubt, job.document.unit)}>{wordsOf(doubt, job.document.unit)}</li>
        ))}
      </ul>
    </Notice>
  );
}
