import type { BuildSheet } from '@fettle/core';
import { EntitySchema } from 'typeorm';

/** A sheet that was signed. Rows are never changed. */
export interface SignedSheetRow {
  jobId: string;
  revision: number;
  signedAt: Date;
  signedBy: string;
  reason: string;
  open: string[];
  sheet: BuildSheet;
  hash: string;
  /** The device that it was done from; null for this machine, or one that nobody let in. */
  device: string | null;
}

export const sheetEntity = new EntitySchema<SignedSheetRow>({
  name: 'signed_sheet',
  columns: {
    jobId: { name: 'job_id', type: 'uuid', primary: true },
    revision: { type: 'int', primary: true },
    signedAt: { name: 'signed_at', type: 'timestamptz' },
    signedBy: { name: 'signed_by', type: 'text' },
    reason: { type: 'text' },
    open: { type: 'jsonb' },
    sheet: { type: 'jsonb' },
    hash: { type: 'text' },
    device: { type: 'uuid', nullable: true },
  },
});
