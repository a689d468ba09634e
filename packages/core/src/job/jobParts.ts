import type { z } from 'zod';
import { assemblyPart } from '../assembly/assemblyPart.js';
import { marksPart } from '../codes/marksPart.js';
import { crushPart } from '../crush/crushPart.js';
import type { DocumentPart, PartStart } from '../document/documentPart.js';
import type { StoredDocument } from '../document/versioned.js';
import { endPlayPart } from '../endPlay/endPlayPart.js';
import { piecesPart } from '../endPlay/piecesPart.js';
import { type EngineStart, enginePart } from '../engineType/enginePart.js';
import { rodsPart } from '../part/rodsPart.js';
import { instrumentsPart } from '../reading/instrumentsPart.js';
import { measuringPart } from '../reading/measuringPart.js';
import { runoutPart } from '../runout/runoutPart.js';
import { selectionPart } from '../selection/selectionPart.js';
import { shellsPart } from '../selection/shellsPart.js';
import { sheetPart } from '../sheet/sheetPart.js';
import { stripPart } from '../strip/stripPart.js';
import { fastenersPart } from '../torque/fastenersPart.js';
import { torquePart } from '../torque/torquePart.js';
import { trialPart } from '../trial/trialPart.js';

/** The parts that every job has had from the first version on. */
const FIRST_PARTS = [enginePart, rodsPart, marksPart, measuringPart, shellsPart, selectionPart] as const;

/** The parts that came later. A new one is a line here; schema, new job and upgrades are folded from them. */
const LATER_PARTS = [
  piecesPart,
  crushPart,
  endPlayPart,
  trialPart,
  instrumentsPart,
  fastenersPart,
  stripPart,
  runoutPart,
  sheetPart,
  torquePart,
  assemblyPart,
] as const;

const PARTS = [...FIRST_PARTS, ...LATER_PARTS] as const;

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
  const later: readonly DocumentPart[] = LATER_PARTS;
  const members: readonly StoredDocument[] = [
    ...later.filter(({ since }) => since === version).map(({ blank }) => blank(start)),
    document,
    ...PARTS.map(({ upgrades }) => upgrades?.[version]?.(document) ?? {}),
  ];
  // Entry by entry, not assigned: a stored member may have the name of a prototype.
  return Object.fromEntries(members.flatMap((one) => Object.entries(one)));
}
