import type { Reading } from '../part/reading.js';
import { SHEET_PARTS, type SheetBlock } from '../stage/sheetBlock.js';
import type { JobDocument } from './jobDocument.js';
import { jobFacts } from './jobFacts.js';
import { SLICES } from './slices.js';

type Of<Kind extends SheetBlock['kind']> = SheetBlock & { kind: Kind };

/** The build sheet as data. */
export interface SheetContent {
  readonly facts: readonly Of<'fact'>[];
  /** What was found and done, then what it was judged by, then every reading. */
  readonly tables: readonly Of<'table'>[];
  readonly notes: readonly string[];
}

/** What the build sheet of an engine says, folded from the slices in the order of the work. */
export function sheetContent(job: JobDocument, readings: readonly Reading[]): SheetContent {
  const facts = jobFacts(job, readings);
  const blocks = SLICES.filter((slice) => slice.belongs?.(facts) ?? true).flatMap(
    (slice): readonly SheetBlock[] => slice.sheet?.(facts) ?? [],
  );
  const of = <Kind extends SheetBlock['kind']>(kind: Kind) =>
    blocks.filter((block): block is Of<Kind> => block.kind === kind);
  const tables = of('table');
  return {
    facts: of('fact'),
    tables: SHEET_PARTS.flatMap((part) => tables.filter((one) => one.part === part)),
    notes: of('note').map(({ text }) => text),
  };
}
