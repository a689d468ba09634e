import type { Role } from '@fettle/core';
import { EntitySchema } from 'typeorm';

/** An account. Rows stay when somebody leaves: what they did is theirs. */
export interface PersonRow {
  id: string;
  name: string;
  /** The name as it is compared: no two accounts differ in capitals only. */
  nameKey: string;
  role: Role;
  /** argon2 hashes. */
  password: string;
  pin: string | null;
  mustChange: boolean;
  createdAt: Date;
  createdBy: string;
  retiredAt: Date | null;
  /** Sessions that began earlier count no longer. */
  sessionsFrom: Date;
}

export const personEntity = new EntitySchema<PersonRow>({
  name: 'person',
  columns: {
    id: { type: 'uuid', primary: true },
    name: { type: 'text' },
    nameKey: { name: 'name_key', type: 'text' },
    role: { type: 'text' },
    password: { type: 'text' },
    mustChange: { name: 'must_change', type: 'bool' },
    pin: { type: 'text', nullable: true },
    createdAt: { name: 'created_at', type: 'timestamptz' },
    createdBy: { name: 'created_by', type: 'text' },
    retiredAt: { name: 'retired_at', type: 'timestamptz', nullable: true },
    sessionsFrom: { name: 'sessions_from', type: 'timestamptz' },
  },
});

/** A device that was let in. */
export interface DeviceRow {
  id: string;
  name: string;
  /** SHA-256 of the token that the device holds. */
  token: string;
  letInAt: Date;
  letInBy: string;
  /** The owner who let it in, where one did; their kind may sign in there by PIN. */
  letInById: string | null;
  seenAt: Date;
  revokedAt: Date | null;
}

export const deviceEntity = new EntitySchema<DeviceRow>({
  name: 'device',
  columns: {
    id: { type: 'uuid', primary: true },
    name: { type: 'text' },
    token: { type: 'text' },
    letInAt: { name: 'let_in_at', type: 'timestamptz' },
    letInBy: { name: 'let_in_by', type: 'text' },
    letInById: { name: 'let_in_by_id', type: 'uuid', nullable: true },
    seenAt: { name: 'seen_at', type: 'timestamptz' },
    revokedAt: { name: 'revoked_at', type: 'timestamptz', nullable: true },
  },
});
