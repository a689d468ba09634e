import type { JobChange, JobDocument, JobProgress, Unit } from '@fettle/core';
import { EntitySchema } from 'typeorm';

/** One engine: its document, its versions, who touched it last. */
export interface JobRow {
  id: string;
  version: number;
  revision: number;
  document: JobDocument;
  /** What lists show of the document. */
  name: string;
  unit: Unit;
  mains: number;
  rods: number;
  serial: string;
  /** Ids of the instruments of the workshop that it knows. */
  instruments: string[];
  /** How far it is, and the revision that this was worked out from; worked out anew where that is not the present one. */
  progress: JobProgress | null;
  progressOf: number | null;
  /** The rules by which it was worked out: see `coreMark`. */
  progressBuild: string | null;
  createdAt: Date;
  createdBy: string;
  updatedAt: Date;
  updatedBy: string;
  deletedAt: Date | null;
}

export const jobEntity = new EntitySchema<JobRow>({
  name: 'job',
  columns: {
    id: { type: 'uuid', primary: true },
    version: { type: 'int' },
    revision: { type: 'int' },
    document: { type: 'jsonb' },
    name: { type: 'text' },
    unit: { type: 'text' },
    mains: { type: 'int' },
    rods: { type: 'int' },
    serial: { type: 'text' },
    instruments: { type: 'text', array: true },
    progress: { type: 'jsonb', nullable: true },
    progressOf: { name: 'progress_of', type: 'int', nullable: true },
    progressBuild: { name: 'progress_build', type: 'text', nullable: true },
    createdAt: { name: 'created_at', type: 'timestamptz' },
    createdBy: { name: 'created_by', type: 'text' },
    updatedAt: { name: 'updated_at', type: 'timestamptz' },
    updatedBy: { name: 'updated_by', type: 'text' },
    deletedAt: { name: 'deleted_at', type: 'timestamptz', nullable: true },
  },
});

/** One entry of a job's history. */
export interface ChangeRow {
  id: number;
  jobId: string;
  version: number;
  at: Date;
  by: string;
  kind: Exclude<JobChange['kind'], 'read'>;
  changes: JobChange['changes'];
  /** The device that it was done from; null for this machine, or one that nobody let in. */
  device: string | null;
}

export const changeEntity = new EntitySchema<ChangeRow>({
  name: 'change',
  columns: {
    id: { type: 'int', primary: true, generated: 'increment' },
    jobId: { name: 'job_id', type: 'uuid' },
    version: { type: 'int' },
    at: { type: 'timestamptz' },
    by: { type: 'text' },
    kind: { type: 'text' },
    changes: { type: 'jsonb' },
    device: { type: 'uuid', nullable: true },
  },
});
