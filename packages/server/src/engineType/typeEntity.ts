import type { EngineType, TypeHead } from '@fettle/core';
import { EntitySchema } from 'typeorm';

/** One engine type of the library; what it says is in its revisions. */
export interface TypeRow {
  id: string;
  revision: number;
  archivedAt: Date | null;
}

export const typeEntity = new EntitySchema<TypeRow>({
  name: 'engine_type',
  columns: {
    id: { type: 'uuid', primary: true },
    revision: { type: 'int' },
    archivedAt: { name: 'archived_at', type: 'timestamptz', nullable: true },
  },
});

/** One revision of an engine type. Revisions are never changed: jobs remember which one they copied. */
export interface TypeRevisionRow {
  typeId: string;
  revision: number;
  type: EngineType;
  /** What lists show of it, and all that it says, a line each, to be searched. */
  head: TypeHead;
  lines: string;
  at: Date;
  by: string;
  /** The device that it was done from; null for this machine, or one that nobody let in. */
  device: string | null;
}

export const typeRevisionEntity = new EntitySchema<TypeRevisionRow>({
  name: 'type_revision',
  columns: {
    typeId: { name: 'type_id', type: 'uuid', primary: true },
    revision: { type: 'int', primary: true },
    type: { type: 'jsonb' },
    head: { type: 'jsonb' },
    lines: { type: 'text' },
    at: { type: 'timestamptz' },
    by: { type: 'text' },
    device: { type: 'uuid', nullable: true },
  },
});
