import { z } from 'zod';

/** A document of a version, as parsed JSON. */
export type StoredDocument = Readonly<Record<string, unknown>>;

/** Brings a document of one version to the next: step n from version n to n + 1. Version 0 is what carries no version. */
export type UpgradeStep = (document: StoredDocument) => StoredDocument;

function isRecord(value: unknown): value is StoredDocument {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** The version that a document says it is of: 0 where it says none; null where its `format` is of another kind. */
function versionOf(document: StoredDocument, kind: string): number | null {
  const { format } = document;
  if (format === undefined) return 0;
  const found = typeof format === 'string' ? /^(.+)\/([1-9]\d{0,3})$/u.exec(format) : null;
  return found?.[1] === kind ? Number(found[2]) : null;
}

/**
 * A document that carries its version as `format: "kind/n"`. Whatever reads it reads older ones too: they are upgraded step by step
 * before they are checked. One of a later version is refused and says so, for what is not known would be lost.
 *
 * @param kind as `fettle.job`
 * @param steps from version 0 on; the document is then of version `steps.length`
 * @param schema of that version, `format` included
 */
export function versioned<Schema extends z.ZodType>(kind: string, steps: readonly UpgradeStep[], schema: Schema) {
  return z.preprocess((value, context) => {
    if (!isRecord(value)) return value;
    const version = versionOf(value, kind);
    if (version === null) return value;
    if (version > steps.length) {
      context.addIssue({
        code: 'custom',
        path: ['format'],
        message: `${kind}/${version} was written by a later Fettle; this version reads up to ${kind}/${steps.length}. Update Fettle`,
      });
      return z.NEVER;
    }
    return steps.slice(version).reduce((document, step) => step(document), value);
  }, schema);
}
