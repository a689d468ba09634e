import type { z } from 'zod';
import type { DocumentPart, PartStart } from '../document/documentPart.js';
import type { StoredDocument } from '../document/versioned.js';
import type { EngineStart } from '../engineType/enginePart.js';
import { PARTS } from './stages.js';

type Part = (typeof PARTS)[number];
type Intersection<Union> = (Union extends unknown ? (one: Union) => void : never) extends (one: infer All) => void
  ? All
  : never;
type MembersOf<One> = One extends { readonly members: infer Members } ? Members : never;

/** A schema for each member of each part. */
export const PART_MEMBERS = Object.assign({}, ...PARTS.map(({ members }) => members)) as Intersection<MembersOf<Part>>;

/** What the parts are in a job where nothing was entered yet. */
export function blankParts(start: EngineStart): z.output<z.ZodObject<typeof PART_MEMBERS>> {
  return Object.assign({}, ...PARTS.map(({ blank }) => blank(start)));
}

/**
 * What a stored job of the version before has to have in the next: the parts that came with it, as they are where nothing was entered, under
 * what is stored; over that, members that were then written in another way.
 *
 * @param version of the job document, from 1
 */
export function partsInVersion(document: StoredDocument, version: number): StoredDocument {
  const start: PartStart = { unit: document.unit === 'in' ? 'in' : 'mm', isByMarks: document.depth === 'codes' };
  // A part that came with a later version asks no more of a job than its unit and how it is selected.
  const later = PARTS.filter(({ since }) => since === version) as readonly DocumentPart[];
  const members: readonly StoredDocument[] = [
    ...later.map(({ blank }) => blank(start)),
    document,
    ...PARTS.map(({ upgrades }) => upgrades?.[version]?.(document) ?? {}),
  ];
  // Entry by entry, not assigned: a stored member may have the name of a prototype.
  return Object.fromEntries(members.flatMap((one) => Object.entries(one)));
}
