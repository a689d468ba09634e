import { z } from 'zod';

/** What somebody is in the workshop; each may do what the table below says. */
export const ROLES = ['owner', 'fitter', 'stores', 'reader'] as const;
export type Role = (typeof ROLES)[number];
export const roleSchema = z.enum(ROLES);

/**
 * What an endpoint needs: nothing at all (`anyone`), somebody who is signed in (`person`), or one of the things that a role may do: look
 * (`read`), work on engines (`bench`), on the workshop's drawer (`drawer`), on engine types (`types`), on its instruments (`instruments`), on
 * people and devices (`people`).
 */
export const NEEDS = ['anyone', 'person', 'read', 'bench', 'drawer', 'types', 'instruments', 'people'] as const;
export type Need = (typeof NEEDS)[number];

const MAY: Readonly<Record<Role, readonly Need[]>> = {
  owner: NEEDS,
  fitter: ['anyone', 'person', 'read', 'bench', 'drawer', 'types', 'instruments'],
  stores: ['anyone', 'person', 'read', 'drawer'],
  reader: ['anyone', 'person', 'read'],
};

/**
 * True if a role may do something.
 *
 * @param role null for nobody: who is not signed in
 * @example mayDo('stores', 'bench') // false
 */
export function mayDo(role: Role | null, need: Need): boolean {
  return role === null ? need === 'anyone' : MAY[role].includes(need);
}

/**
 * What a role is called.
 *
 * @example roleName('reader') // 'viewer'
 */
export function roleName(role: Role): string {
  return role === 'reader' ? 'viewer' : role;
}

const ROLE_WORDS: Readonly<Record<Role, string>> = {
  owner: 'does everything, and gives others their roles',
  fitter: 'measures, selects and assembles; looks after stock, engine types and instruments',
  stores: 'looks after stock and orders; sees the rest',
  reader: 'sees everything, changes nothing',
};

/**
 * What a role may do, in words.
 *
 * @example roleWords('reader') // 'sees everything, changes nothing'
 */
export function roleWords(role: Role): string {
  return ROLE_WORDS[role];
}

const DONE_BY: Readonly<Record<Need, string>> = {
  anyone: 'Anyone may do this.',
  person: 'Sign in first.',
  read: 'Sign in first.',
  bench: 'Engines are changed by a fitter or the owner.',
  drawer: 'Stock is changed by stores, a fitter or the owner.',
  types: 'Engine types are changed by a fitter or the owner.',
  instruments: 'Instruments are registered and checked by a fitter or the owner.',
  people: 'Users and devices are managed by the owner.',
};

/**
 * Who may do something, in words: why somebody else may not.
 *
 * @example whoMay('people') // 'Users and devices are managed by the owner.'
 */
export function whoMay(need: Need): string {
  return DONE_BY[need];
}
