import type { DrawerHalf, Reservation } from '@fettle/core';
import { EntitySchema } from 'typeorm';

/** One kind of half in the workshop's drawer. */
export interface DrawerRow {
  id: string;
  version: number;
  half: DrawerHalf;
  updatedAt: Date;
  updatedBy: string;
}

export const drawerEntity = new EntitySchema<DrawerRow>({
  name: 'drawer_line',
  columns: {
    id: { type: 'uuid', primary: true },
    version: { type: 'int' },
    half: { type: 'jsonb' },
    updatedAt: { name: 'updated_at', type: 'timestamptz' },
    updatedBy: { name: 'updated_by', type: 'text' },
  },
});

/** Halves of one kind that an engine has reserved or used. */
export interface ReservationRow {
  jobId: string;
  lineId: string;
  count: number;
  state: Reservation['state'];
}

export const reservationEntity = new EntitySchema<ReservationRow>({
  name: 'reservation',
  columns: {
    jobId: { name: 'job_id', type: 'uuid', primary: true },
    lineId: { name: 'line_id', type: 'uuid', primary: true },
    count: { type: 'int' },
    state: { type: 'text' },
  },
});
