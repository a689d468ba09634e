import type { AuditEntry } from '@fettle/core';

const WORDS: Readonly<Record<string, string>> = {
  created: 'started it',
  changed: 'changed it',
  deleted: 'took it off the benches',
  restored: 'brought it back',
  read: 'read',
  'taken-back': 'took a reading back',
  signed: 'signed',
  receive: 'put in',
  use: 'used',
  return: 'put back',
  count: 'counted',
  number: 'numbered',
  change: 'changed',
  add: 'added',
  remove: 'took away',
  import: 'read in from a file',
  fitted: 'marked as fitted',
  unfitted: 'took back that it was fitted',
  undo: 'took something back',
  archived: 'archived it',
  unarchived: 'took it out of the archive',
  'kit-kept': 'kept the kit',
  'kit-removed': 'took the kit away',
  'signed-in': 'signed in',
  'signed-out': 'signed out',
  'sign-in-failed': 'tried to sign in, wrongly',
  'pin-failed': 'tried a PIN, wrongly',
  'person-added': 'made an account',
  'person-retired': 'let somebody sign in no longer',
  'person-back': 'let somebody sign in again',
  'role-changed': 'gave another role',
  'password-reset': 'gave a new password',
  'password-changed': 'set another password',
  'pin-set': 'set a PIN',
  'pin-removed': 'removed the PIN',
  'device-invited': 'showed a code for a device',
  'device-let-in': 'let a device in',
  'device-revoked': 'let a device out',
};

/** What was done, in words. */
export function auditWords({ what, detail }: Pick<AuditEntry, 'what' | 'detail'>): string {
  const word = WORDS[what] ?? what;
  return detail === '' ? word : `${word}: ${detail}`;
}
