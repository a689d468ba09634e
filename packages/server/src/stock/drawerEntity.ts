import type { DrawerItem, DrawerMovement, Kit } from '@fettle/core';
import { EntitySchema } from 'typeorm';

/** One kind of half, or of washer or shim, in the workshop's drawer. */
export interface DrawerRow {
  id: string;
  version: number;
  item: DrawerItem;
  updatedAt: Date;
  updatedBy: string;
}

export const drawerEntity = new EntitySchema<DrawerRow>({
  name: 'drawer_line',
  columns: {
    id: { type: 'uuid', primary: true },
    version: { type: 'int' },
    item: { type: 'jsonb' },
    updatedAt: { name: 'updated_at', type: 'timestamptz' },
    updatedBy: { name: 'updated_by', type: 'text' },
  },
});

/** Halves or pieces of one kind that an engine has reserved or used. */
export interface ReservationRow {
  jobId: string;
  lineId: string;
  count: number;
  state: 'reserved' | 'used';
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

/** One thing that was done to the drawer. */
export interface MovementRow {
  id: string;
  at: Date;
  by: string;
  kind: DrawerMovement['kind'];
  note: string;
  changes: DrawerMovement['changes'];
  /** The movement that it takes back. */
  undoes: string | null;
  /** The device that it was done from; null for this machine, or one that nobody let in. */
  device: string | null;
}

export const movementEntity = new EntitySchema<MovementRow>({
  name: 'drawer_movement',
  columns: {
    id: { type: 'uuid', primary: true },
    at: { type: 'timestamptz' },
    by: { type: 'text' },
    kind: { type: 'text' },
    note: { type: 'text' },
    changes: { type: 'jsonb' },
    undoes: { type: 'uuid', nullable: true },
    device: { type: 'uuid', nullable: true },
  },
});

export interface KitRow {
  id: string;
  version: number;
  kit: Kit;
  updatedAt: Date;
  updatedBy: string;
}

export const kitEntity = new EntitySchema<KitRow>({
  name: 'kit',
  columns: {
    id: { type: 'uuid', primary: true },
    version: { type: 'int' },
    kit: { type: 'jsonb' },
    updatedAt: { name: 'updated_at', type: 'timestamptz' },
    updatedBy: { name: 'updated_by', type: 'text' },
  },
});
