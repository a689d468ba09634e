import type { MarkedBand } from '../measure/sizeBand.js';
import type { CrankLayout } from '../part/crankLayout.js';
import { familiesOf } from '../part/familiesOf.js';
import type { Family } from '../part/family.js';
import { FEATURE_TABLE, type Feature, featuresOfFamilies, partCount } from '../part/feature.js';
import type { StampedRow } from './codeSheet.js';
import { type DecodedRow, decodeRow } from './decodeRow.js';

/** What a data sheet says of marks. */
export type MarkedSheet = Readonly<Record<Family, MarkedFamily>> & { readonly rows: readonly StampedRow[] };

interface MarkedFamily {
  readonly housing: readonly MarkedBand[];
  readonly journal: readonly MarkedBand[];
}

/** The marks of an engine, as they were typed. Those of the rods are on the rods. */
export interface Marked {
  readonly sheet: MarkedSheet | null;
  readonly layout: CrankLayout;
  readonly marks: Readonly<Partial<Record<Feature, { readonly text: string; readonly first: StampedRow['first'] }>>>;
  readonly rods: Readonly<Record<string, { readonly mark: string }>>;
}

/** Marks and bands of a feature on the job's data sheet, in the order of the sheet; empty where it has none. */
export function bandsOf(sheet: Omit<MarkedSheet, 'rows'> | null, feature: Feature): readonly MarkedBand[] {
  const { family, role } = FEATURE_TABLE[feature];
  return sheet?.[family][role] ?? [];
}

/** How a feature's row is laid out: as the data sheet says, from the end that the fitter has set for this engine. */
export function rowLayout({ sheet, marks }: Pick<Marked, 'sheet' | 'marks'>, feature: Feature): StampedRow {
  const given = sheet?.rows.find((row) => row.feature === feature) ?? { feature, prefix: '', first: 'front' as const };
  return { ...given, first: marks[feature]?.first ?? given.first };
}

/** A stamped row of the job decoded; null while nothing is typed. */
export function decodedMarks(job: Pick<Marked, 'sheet' | 'layout' | 'marks'>, feature: Feature): DecodedRow | null {
  const typed = job.marks[feature];
  if (!typed || typed.text.trim() === '') return null;
  const marks = bandsOf(job.sheet, feature).map(({ mark }) => mark);
  return decodeRow(typed.text, rowLayout(job, feature), job.sheet?.rows ?? [], marks, partCount(job.layout, feature));
}

/**
 * The marks of a feature's parts, by number, with the bands they stand for. A rod carries its own mark; a row that is not whole, or
 * of another feature, gives none: marks at the wrong station are worse than none.
 */
export function markedBands(job: Marked, feature: Feature): Map<number, MarkedBand> {
  const bands = bandsOf(job.sheet, feature);
  const found = new Map<number, MarkedBand>();
  if (bands.length === 0) return found;
  const put = (number: number, mark: string | null) => {
    const band = bands.find((one) => one.mark === mark);
    if (band) found.set(number, band);
  };
  if (FEATURE_TABLE[feature].marked === 'each') {
    for (const [number, { mark }] of Object.entries(job.rods)) put(Number(number), mark);
    return found;
  }
  const decoded = decodedMarks(job, feature);
  if (decoded?.ok) for (const { station, mark } of decoded.marks) put(station, mark);
  return found;
}

/** The features of a job whose marks its data sheet knows. */
export function codedFeatures(job: Pick<Marked, 'sheet'> & { readonly withRods: boolean }): Feature[] {
  return featuresOfFamilies(familiesOf(job)).filter((feature) => bandsOf(job.sheet, feature).length > 0);
}
