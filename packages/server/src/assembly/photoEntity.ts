import { EntitySchema } from 'typeorm';

/** A picture of a finding. Rows are never changed. */
export interface PhotoRow {
  id: string;
  jobId: string;
  type: string;
  data: Buffer;
  by: string;
  at: Date;
}

export const photoEntity = new EntitySchema<PhotoRow>({
  name: 'photo',
  columns: {
    id: { type: 'uuid', primary: true },
    jobId: { name: 'job_id', type: 'uuid' },
    type: { type: 'text' },
    data: { type: 'bytea' },
    by: { type: 'text' },
    at: { type: 'timestamptz' },
  },
});
