import { randomUUID } from 'node:crypto';
import { commonPin, type PersonView, type Role } from '@fettle/core';
import type { EntityManager } from 'typeorm';
import { atMost } from '../database/atMost.js';
import type { Database } from '../database/Database.js';
import { oneAtATime } from '../database/oneAtATime.js';
import { invalidRequest, ProblemError } from '../problem/problem.js';
import { type DeviceRow, type PersonRow, personEntity } from './accessEntities.js';
import { tellEvent } from './events.js';
import { tellRights } from './rights.js';
import { hashed, isSecret, readableSecret } from './secrets.js';
import { forgetTries, lockedUntil, type Place, tryPassword, tryPin } from './wrongTries.js';

/** Groups of four signs in a password for the first time: 79 bits. */
const FIRST_GROUPS = 4;
/** Accounts at most, those of people who left among them. */
const MOST_PEOPLE = 500;

/** A name as it is compared. */
export function nameKey(name: string): string {
  return name.trim().normalize('NFKC').toLowerCase();
}

/** How a name is told in the audit that nobody has: what was typed there may have been a password. */
const STRANGE_NAME = 'a name that nobody has';

/** What a wrong name and a wrong password are both answered with. */
function wrong(): ProblemError {
  return new ProblemError('not-signed-in', 'Wrong name or password.');
}

function viewOf(row: PersonRow, locked: ReadonlyMap<string, Date>): PersonView {
  return {
    id: row.id,
    name: row.name,
    role: row.role,
    hasPin: row.pin !== null,
    mustChange: row.mustChange,
    createdAt: row.createdAt.toISOString(),
    createdBy: row.createdBy,
    retiredAt: row.retiredAt?.toISOString() ?? null,
    lockedUntil: locked.get(row.nameKey)?.toISOString() ?? null,
  };
}

/** An account to be made. */
interface NewPerson {
  readonly name: string;
  readonly role: Role;
  readonly by: string;
  /** Null for one that is made up. */
  readonly password: string | null;
  /** True if it has to be the first one of all. */
  readonly isFirst?: boolean;
}

/** Accounts: who they are, what they may do, and whether somebody is who they say. */
export class PeopleService {
  private readonly database: Database;

  constructor(database: Database) {
    this.database = database;
  }

  /** How many accounts there are, those of people who left included. */
  count(): Promise<number> {
    return this.database.manager.count(personEntity);
  }

  async list(): Promise<PersonView[]> {
    const rows = await this.database.manager.find(personEntity, { order: { nameKey: 'ASC' } });
    const locked = await lockedUntil(this.database);
    return rows.map((row) => viewOf(row, locked));
  }

  /** Who can sign in by PIN on a device: an owner only where an owner let it in. */
  async withPin(device: DeviceRow): Promise<{ id: string; name: string }[]> {
    const rows = await this.database.manager.find(personEntity, { order: { nameKey: 'ASC' } });
    const isOwners = await this.isOwnersDevice(device);
    return rows.flatMap(({ id, name, pin, role, retiredAt }) =>
      pin === null || retiredAt || (role === 'owner' && !isOwners) ? [] : [{ id, name }],
    );
  }

  /** True if a device was let in by somebody who is an owner now. */
  private async isOwnersDevice({ letInById }: DeviceRow): Promise<boolean> {
    if (letInById === null) return false;
    const by = await this.byId(letInById);
    return by !== null && by.role === 'owner' && !by.retiredAt;
  }

  /**
   * Makes an account.
   *
   * @param password null for one that is made up, told once and changed at the first sign-in
   * @throws ProblemError `id-in-use` where the name belongs to somebody, `invalid-request` where there are too many
   */
  async add(
    name: string,
    role: Role,
    by: string,
    password: string | null = null,
  ): Promise<{ person: PersonView; password: string }> {
    return this.made({ name, role, by, password });
  }

  private async made({
    name,
    role,
    by,
    password,
    isFirst = false,
  }: NewPerson): Promise<{ person: PersonView; password: string }> {
    const first = password ?? readableSecret(FIRST_GROUPS);
    const kept = await hashed(first);
    return this.database.transaction(async (manager) => {
      await oneAtATime(manager, ['people']);
      if (isFirst && (await manager.count(personEntity)) > 0) {
        throw new ProblemError('not-signed-in', 'The owner’s account was made already.');
      }
      if (await manager.findOneBy(personEntity, { nameKey: nameKey(name) })) {
        throw new ProblemError(
          'id-in-use',
          `“${name}” already has an account. Choose another name, or reset that one.`,
        );
      }
      const now = new Date();
      const row: PersonRow = {
        id: randomUUID(),
        name: name.trim(),
        nameKey: nameKey(name),
        role,
        password: kept,
        mustChange: password === null,
        pin: null,
        createdAt: now,
        createdBy: by,
        retiredAt: null,
        sessionsFrom: now,
      };
      await manager.insert(personEntity, row);
      const what = `account limit (${MOST_PEOPLE}) reached, disabled accounts included`;
      await atMost(manager, personEntity, { most: MOST_PEOPLE, path: '/name', what });
      await tellEvent({ manager }, { what: 'person-added', subject: row.name, subjectId: row.id, detail: role, by });
      return { person: viewOf(row, new Map()), password: first };
    });
  }

  /** Makes the first account. @throws ProblemError `not-signed-in` once there is one */
  async addOwner(name: string, password: string): Promise<PersonRow> {
    const { person } = await this.made({ name, role: 'owner', by: name, password, isFirst: true });
    return this.database.manager.findOneByOrFail(personEntity, { id: person.id });
  }

  async change(
    id: string,
    { role, retired }: { role?: Role | undefined; retired?: boolean | undefined },
  ): Promise<PersonView> {
    return this.database.transaction(async (manager) => {
      await oneAtATime(manager, ['people']);
      const row = await this.found(manager, id);
      const now = new Date();
      const after = {
        role: role ?? row.role,
        retiredAt: retired === undefined ? row.retiredAt : retired ? (row.retiredAt ?? now) : null,
      };
      await this.keepAnOwner(manager, id, after);
      const isOther = after.role !== row.role || after.retiredAt !== row.retiredAt;
      const sessionsFrom = isOther ? now : row.sessionsFrom;
      await manager.update(personEntity, { id }, { ...after, sessionsFrom });
      if (isOther) await tellRights(manager, { person: id });
      if (after.role !== row.role) {
        await tellEvent({ manager }, { what: 'role-changed', subject: row.name, subjectId: id, detail: after.role });
      }
      if (after.retiredAt !== row.retiredAt) {
        const what = after.retiredAt ? 'person-retired' : 'person-back';
        await tellEvent({ manager }, { what, subject: row.name, subjectId: id });
      }
      return viewOf({ ...row, ...after, sessionsFrom }, new Map());
    });
  }

  /** There is always an owner who can sign in. */
  private async keepAnOwner(
    manager: EntityManager,
    id: string,
    after: Pick<PersonRow, 'role' | 'retiredAt'>,
  ): Promise<void> {
    const owners = (await manager.findBy(personEntity, { role: 'owner' })).filter(({ retiredAt }) => !retiredAt);
    const isOnly = owners.length === 1 && owners[0]!.id === id;
    if (isOnly && (after.role !== 'owner' || after.retiredAt)) {
      throw invalidRequest([
        { path: after.retiredAt ? '/retired' : '/role', message: 'Last owner. Make someone else an owner first.' },
      ]);
    }
  }

  /** A new password for who lost theirs; all their sessions end, their PIN goes. */
  async reset(id: string, by?: string): Promise<{ person: PersonView; password: string }> {
    const password = readableSecret(FIRST_GROUPS);
    const kept = await hashed(password);
    return this.database.transaction(async (manager) => {
      const row = await this.found(manager, id);
      const after = { password: kept, pin: null, mustChange: true, sessionsFrom: new Date() };
      await manager.update(personEntity, { id }, after);
      await forgetTries({ manager }, row.nameKey);
      await tellRights(manager, { person: id });
      const told = { what: 'password-reset', subject: row.name, subjectId: id };
      await tellEvent({ manager }, by === undefined ? told : { ...told, by });
      return { person: viewOf({ ...row, ...after }, new Map()), password };
    });
  }

  async byName(name: string): Promise<PersonRow | null> {
    return this.database.manager.findOneBy(personEntity, { nameKey: nameKey(name) });
  }

  async byId(id: string): Promise<PersonRow | null> {
    return this.database.manager.findOneBy(personEntity, { id });
  }

  /** Who has this name and this password. @throws ProblemError `not-signed-in`, `too-many`: whether the name is known is not told */
  async byPassword(name: string, password: string, place: Place): Promise<PersonRow> {
    const counted = await tryPassword(this.database, nameKey(name), place);
    const row = await this.byName(name);
    const isRight = await isSecret(password, row?.retiredAt ? null : (row?.password ?? null));
    if (!isRight || !row) {
      const subject = row?.name ?? STRANGE_NAME;
      const { device } = place;
      await tellEvent(this.database, { what: 'sign-in-failed', subject, by: row?.name ?? '', device });
      throw wrong();
    }
    await counted.right();
    return row;
  }

  /** Who has this PIN, on a device that was let in. @throws ProblemError as by password */
  async byPin(id: string, pin: string, device: DeviceRow): Promise<PersonRow> {
    if (commonPin(pin) !== null) {
      const message = 'This PIN is too easy to guess. Sign in by name and password, then set another PIN.';
      throw new ProblemError('not-signed-in', message);
    }
    const row = await this.byId(id);
    const counted = await tryPin(this.database, id, row?.nameKey ?? null, device.id);
    const isRight = await isSecret(pin, row?.retiredAt ? null : (row?.pin ?? null));
    const mayHere = row !== null && (row.role !== 'owner' || (await this.isOwnersDevice(device)));
    if (!isRight || !row || !mayHere) {
      const name = row?.name ?? 'nobody';
      await tellEvent(this.database, { what: 'pin-failed', subject: name, by: name, device: device.id });
      throw new ProblemError('not-signed-in', 'Wrong PIN. Try again, or sign in by name and password.');
    }
    await counted.right();
    return row;
  }

  /** @throws ProblemError `not-signed-in` where the password is not theirs */
  async checkPassword(person: PersonRow, password: string, place: Place): Promise<void> {
    const counted = await tryPassword(this.database, person.nameKey, place);
    if (!(await isSecret(password, person.password))) {
      throw new ProblemError('not-signed-in', 'Wrong password. Try again.');
    }
    await counted.right();
  }

  /** Sets another password; every session that began before ends. */
  async setPassword(person: PersonRow, password: string): Promise<PersonRow> {
    if (nameKey(password) === person.nameKey || (await isSecret(password, person.password))) {
      throw invalidRequest([{ path: '/password', message: 'choose a new password, different from your name' }]);
    }
    const after = { password: await hashed(password), mustChange: false, sessionsFrom: new Date() };
    await this.database.transaction(async (manager) => {
      await manager.update(personEntity, { id: person.id }, after);
      await tellEvent({ manager }, { what: 'password-changed', subject: person.name, subjectId: person.id });
      await tellRights(manager, { person: person.id });
    });
    return { ...person, ...after };
  }

  async setPin(person: PersonRow, pin: string | null): Promise<PersonRow> {
    const after = { pin: pin === null ? null : await hashed(pin) };
    await this.database.manager.update(personEntity, { id: person.id }, after);
    const what = pin === null ? 'pin-removed' : 'pin-set';
    await tellEvent(this.database, { what, subject: person.name, subjectId: person.id });
    return { ...person, ...after };
  }

  private async found(manager: EntityManager, id: string): Promise<PersonRow> {
    const row = await manager.findOne(personEntity, { where: { id }, lock: { mode: 'pessimistic_write' } });
    if (!row) throw new ProblemError('not-found', `Account ${id} not found.`);
    return row;
  }
}
