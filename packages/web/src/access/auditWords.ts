import type { AuditEntry } from '@fettle/core';

const WORDS: Readonly<Record<string, string>> = {
  created: 'started it',
  changed: 'changed it',
  deleted: 'closed the engine',
  restored: 'reopened the engine',
  read: 'read',
  'taken-back': 'removed a reading',
  signed: 'signed',
  receive: 'added',
  use: 'used',
  return: 'put back',
  count: 'counted',
  number: 'numbered',
  change: 'changed',
  add: 'added',
  remove: 'took away',
  import: 'imported from a file',
  fitted: 'marked as fitted',
  unfitted: 'undid marking as fitted',
  undo: 'undid a change',
  registered: 'registered the instrument',
  calibrated: 'entered a calibration',
  doubted: 'said that a calibration is not to be trusted',
  trusted: 'said that a calibration holds after all',
  archived: 'archived it',
  unarchived: 'restored it from the archive',
  'kit-kept': 'saved the kit',
  'kit-removed': 'removed the kit',
  'signed-in': 'signed in',
  'signed-out': 'signed out',
  'sign-in-failed': 'failed to sign in',
  'pin-failed': 'typed a wrong PIN',
  'person-added': 'created an account',
  'person-retired': 'disabled an account',
  'person-back': 'enabled an account',
  'role-changed': 'changed a role',
  'password-reset': 'set a new password for someone',
  'password-changed': 'changed the password',
  'pin-set': 'set a PIN',
  'pin-removed': 'removed the PIN',
  'device-invited': 'got a code for a device',
  'device-let-in': 'registered a device',
  'device-revoked': 'removed a device',
};

/** What was done, in words. */
export function auditWords({ what, detail }: Pick<AuditEntry, 'what' | 'detail'>): string {
  const word = WORDS[what] ?? what;
  return detail === '' ? word : `${word}: ${detail}`;
}
