import {
  applyPatch,
  changesBetween,
  choiceFaults,
  type DocumentFault,
  faultsOf,
  type JobChange,
  type JobDocument,
  type Json,
  jobDocumentSchema,
  newStampsOfOthers,
  PatchMisfit,
  type PatchStep,
  type PersonStamp,
  patchStepOf,
  pieceFaults,
  stampedBy,
  stampKey,
  takenPieces,
} from '@fettle/core';

/** A change of an engine's document. */
export interface PatchTask {
  /** The document as it is kept. */
  readonly document: unknown;
  readonly steps: readonly PatchStep[];
  /** Name of the account that sends it: new stamps are its own. Null where nobody signs in: they are what the page says. */
  readonly who: string | null;
  /** Stamps of others that stood in the engine before and may come back; left out before anybody has looked for them. */
  readonly stood?: readonly PersonStamp[];
}

/** What a change makes of a document, or why it cannot be made. */
export type JudgedPatch =
  | {
      readonly kind: 'patched';
      readonly document: JobDocument;
      /** As the history keeps them. */
      readonly changes: JobChange['changes'];
      /** True if what the engine takes from the drawer has to be reserved anew. */
      readonly reserves: boolean;
    }
  /** Stamps of others came in: whether they are an earlier state that comes back, the history has to be asked. */
  | { readonly kind: 'others'; readonly stamps: readonly PersonStamp[] }
  | { readonly kind: 'faults'; readonly faults: readonly DocumentFault[] };

/** What an engine takes or holds is among these members. */
const RESERVING: ReadonlySet<string> = new Set(['choice', 'shells', 'pieces', 'endPlay', 'crush']);

/** Pointer, before and after of each difference of two documents, as the history keeps them. @param before left out for a new one */
export function recordedBetween(before: JobDocument | undefined, after: JobDocument): JobChange['changes'] {
  return changesBetween(before as unknown as Json, after as unknown as Json).map((change) => ({
    path: patchStepOf(change).path,
    ...(change.from === undefined ? {} : { from: change.from }),
    ...(change.to === undefined ? {} : { to: change.to }),
  }));
}

/** True if a change takes other washers or shims. */
function takesOthers(before: JobDocument, after: JobDocument): boolean {
  const taken = (document: JobDocument) => takenPieces(document) as unknown as Json;
  return changesBetween(taken(before), taken(after)).length > 0;
}

/** What is wrong with the choices of an engine that is started with them. */
export function takenFaults(document: JobDocument): DocumentFault[] {
  return [
    ...(document.choice ? choiceFaults(document) : []),
    ...(takenPieces(document).length > 0 ? pieceFaults(document) : []),
  ];
}

/**
 * A document in which the stamps of others are those of who sends it.
 *
 * @param who null where nobody signs in: all stay as they are
 * @param but those that stay as well
 */
function signedBy(
  document: JobDocument,
  others: readonly PersonStamp[],
  who: string | null,
  but: readonly PersonStamp[] = [],
): JobDocument {
  if (who === null || others.length === 0) return document;
  const kept = new Set(but.map(stampKey));
  const forged = others.filter((stamp) => !kept.has(stampKey(stamp)));
  return stampedBy(document as unknown as Json, forged, who) as unknown as JobDocument;
}

/**
 * What is kept of a document that is put in the place of another (or of none) as a whole: its new stamps are the sender's.
 *
 * @param who name of the account; null where nobody signs in
 */
export function underOwnName(before: JobDocument | null, after: JobDocument, who: string | null): JobDocument {
  if (who === null) return after;
  return signedBy(after, newStampsOfOthers(before as unknown as Json, after as unknown as Json, who), who);
}

/** Applies a change to a document and judges what comes of it. Takes its time for large documents: see `BodyPool`. */
export function judgePatch({ document, steps, who, stood }: PatchTask): JudgedPatch {
  // A document that is not a valid one is a programming fault: every write was checked.
  const before = jobDocumentSchema.parse(document);
  let made: Json;
  try {
    made = applyPatch(before as unknown as Json, steps);
  } catch (error) {
    if (!(error instanceof PatchMisfit)) throw error;
    return { kind: 'faults', faults: [{ path: error.path, message: error.message }] };
  }
  const parsed = jobDocumentSchema.safeParse(made);
  if (!parsed.success) return { kind: 'faults', faults: faultsOf(parsed.error) };
  const others = who === null ? [] : newStampsOfOthers(before as unknown as Json, parsed.data as unknown as Json, who);
  if (others.length > 0 && stood === undefined) return { kind: 'others', stamps: others };
  const after = signedBy(parsed.data, others, who, stood);
  const changes = recordedBetween(before, after);
  const touched = new Set(changes.map(({ path }) => path.split('/')[1] ?? ''));
  const faults = [
    ...(touched.has('choice') ? choiceFaults(after) : []),
    ...(takesOthers(before, after) ? pieceFaults(after) : []),
  ];
  if (faults.length > 0) return { kind: 'faults', faults };
  return { kind: 'patched', document: after, changes, reserves: [...touched].some((member) => RESERVING.has(member)) };
}
