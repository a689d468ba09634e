import type { JobDocument } from '../job/jobDocument.js';
import type { ShownUnit } from '../measure/shownUnit.js';
import type { Reading } from '../part/reading.js';
import type { SignOff } from '../sheet/buildSheetSchema.js';

/** A sentence for the customer; a moment is told by whoever shows it. */
export interface ReportLine {
  readonly text: string;
  readonly at?: string;
}

/** A table for the customer. */
export interface ReportTable {
  readonly head: readonly string[];
  /** Which columns hold figures. */
  readonly figures: readonly boolean[];
  readonly rows: readonly (readonly string[])[];
}

/** A part of the report under its title. */
export interface ReportSection {
  readonly title: string;
  readonly lines: readonly ReportLine[];
  readonly table: ReportTable | null;
}

/** What a report is made of: an engine that is as its sheet was signed. */
export interface SignedEngine {
  readonly document: JobDocument;
  readonly readings: readonly Reading[];
  readonly signOff: SignOff;
  /** True if the people who did the work are named. */
  readonly isNamed: boolean;
  /** What small lengths are told in: the unit of the engine, or thousandths where that is inches. */
  readonly shown: ShownUnit;
}
