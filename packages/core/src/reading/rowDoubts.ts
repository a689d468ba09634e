import { decodeRow } from '../codes/decodeRow.js';
import { bandsOf, codedFeatures, decodedMarks, markedBands, rowLayout } from '../codes/markedBands.js';
import type { Nanometres } from '../measure/nanometres.js';
import { FEATURE_TABLE, type Feature, partCount } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import type { MeasuredJob } from './measuredJob.js';
import { measuredParts } from './measuredParts.js';

/** A stamped row that may not be what it was typed as. A question, never a verdict. */
export type RowDoubt =
  /** More of what was measured is in the bands of the marks if the row is read from its other end. */
  | {
      readonly kind: 'other-end';
      readonly feature: Feature;
      /** How many of the measured parts are as marked now, and would be. */
      readonly agree: number;
      readonly would: number;
      readonly of: number;
    }
  /** Two rows were typed alike, or the row reads whole as that of another feature only. */
  | { readonly kind: 'same-row' | 'other-row'; readonly feature: Feature; readonly other: Feature };

/** Minimum number of parts more that must agree with the row turned round before it is asked about. */
const AT_LEAST_MORE = 2;

function turned(job: MeasuredJob, feature: Feature): MeasuredJob {
  const { first } = rowLayout(job, feature);
  const row = { text: job.marks[feature]!.text, first: first === 'front' ? ('rear' as const) : ('front' as const) };
  return { ...job, marks: { ...job.marks, [feature]: row } };
}

function otherEnd(job: MeasuredJob, readings: readonly Reading[], feature: Feature): RowDoubt | null {
  const read = measuredParts(job, readings, feature).filter(({ size }) => size?.kind === 'read');
  const { uncertainty } = job.measuring;
  const agreeing = (bands: ReturnType<typeof markedBands>) =>
    read.filter(({ number, size }) => {
      const band = bands.get(number);
      const nominal: Nanometres = size!.nominal;
      return band !== undefined && nominal >= band.low - uncertainty && nominal <= band.high + uncertainty;
    }).length;
  const agree = agreeing(markedBands(job, feature));
  const would = agreeing(markedBands(turned(job, feature), feature));
  return would - agree >= AT_LEAST_MORE ? { kind: 'other-end', feature, agree, would, of: read.length } : null;
}

/** True if a text reads whole as the row of a feature. */
function readsAs(job: MeasuredJob, text: string, feature: Feature): boolean {
  const marks = bandsOf(job.sheet, feature).map(({ mark }) => mark);
  const layout = rowLayout(job, feature);
  const decoded = decodeRow(text, layout, job.sheet?.rows ?? [], marks, partCount(job.layout, feature));
  return decoded.ok && decoded.marks.every(({ mark }) => mark !== null);
}

/**
 * What is to be asked about the stamped rows of a job: one that agrees better with what was measured if it is read from its other end; one
 * that was typed for two features; one that reads whole only as that of another feature. Common practice.
 *
 * @param readings current readings, any order
 */
export function rowDoubts(job: MeasuredJob, readings: readonly Reading[]): RowDoubt[] {
  const rows = codedFeatures(job).filter(
    (feature) => FEATURE_TABLE[feature].marked !== 'each' && (job.marks[feature]?.text.trim() ?? '') !== '',
  );
  return rows.flatMap((feature, at): RowDoubt[] => {
    const text = job.marks[feature]!.text.trim();
    const others = rows.filter((other) => other !== feature);
    const decoded = decodedMarks(job, feature);
    if (!decoded?.ok || decoded.marks.some(({ mark }) => mark === null)) {
      const other = codedFeatures(job).find((one) => one !== feature && readsAs(job, text, one));
      return other === undefined ? [] : [{ kind: 'other-row', feature, other }];
    }
    const same = others.find(
      (other) => rows.indexOf(other) < at && job.marks[other]!.text.trim().toUpperCase() === text.toUpperCase(),
    );
    const doubt = otherEnd(job, readings, feature);
    return [
      ...(same === undefined ? [] : [{ kind: 'same-row' as const, feature, other: same }]),
      ...(doubt ? [doubt] : []),
    ];
  });
}
