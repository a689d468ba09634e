import type { Feature, Slot, Taken, Unit } from '@fettle/core';
import { EntitySchema } from 'typeorm';

const wholeNumber = {
  from: (value: string | null) => (value === null ? null : Number(value)),
  to: (value: number | null) => value,
};

/** A reading as typed. Rows are never changed but for `replacedBy`, which a correction sets. */
export interface ReadingRow {
  id: string;
  jobId: string;
  feature: Feature;
  station: number;
  slot: Slot;
  text: string;
  unit: Unit;
  setting: number | null;
  nm: number | null;
  replaces: string | null;
  replacedBy: string | null;
  by: string;
  at: Date;
  receivedAt: Date;
  /** How it was taken; null where nobody said. */
  taken: Taken | null;
  /** The device that it was done from; null for this machine, or one that nobody let in. */
  device: string | null;
}

export const readingEntity = new EntitySchema<ReadingRow>({
  name: 'reading',
  columns: {
    id: { type: 'uuid', primary: true },
    jobId: { name: 'job_id', type: 'uuid' },
    feature: { type: 'text' },
    station: { type: 'int' },
    slot: { type: 'text' },
    text: { type: 'text' },
    unit: { type: 'text' },
    setting: { type: 'int8', nullable: true, transformer: wholeNumber },
    nm: { type: 'int8', nullable: true, transformer: wholeNumber },
    replaces: { type: 'uuid', nullable: true },
    replacedBy: { name: 'replaced_by', type: 'uuid', nullable: true },
    by: { type: 'text' },
    at: { type: 'timestamptz' },
    receivedAt: { name: 'received_at', type: 'timestamptz' },
    taken: { type: 'jsonb', nullable: true },
    device: { type: 'uuid', nullable: true },
  },
});
