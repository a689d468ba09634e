import { createHash } from 'node:crypto';
import { type BuildSheet, buildSheet, type JobView, openWork, signedContent } from '@fettle/core';
import type { SignedSheetRow } from './sheetEntity.js';

/** Who signs, when, as which revision and why. */
export interface Signing {
  readonly by: string;
  readonly at: Date;
  readonly revision: number;
  /** Why there is another revision; empty for the first. */
  readonly reason: string;
  readonly device: string | null;
}

/** The sheet of an engine as it is now, signed: with its hash, and what is still open. */
export function signedSheet(
  { id, document, readings, version }: Pick<JobView, 'id' | 'document' | 'readings' | 'version'>,
  { by, at, revision, reason, device }: Signing,
): SignedSheetRow {
  const made = { madeAt: at.toISOString(), madeBy: by, version };
  const sheet: BuildSheet = buildSheet(document, readings, made);
  const signOff = { revision, signedAt: made.madeAt, signedBy: by, reason, open: openWork(document, readings) };
  const hash = createHash('sha256').update(signedContent(sheet, signOff), 'utf8').digest('hex');
  return { jobId: id, ...signOff, signedAt: at, sheet, hash, device };
}
