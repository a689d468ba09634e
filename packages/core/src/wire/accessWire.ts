import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { daySchema, momentSchema } from '../measure/moment.js';
import { roleSchema } from './access.js';
import { goesOnSchema, pageQuery } from './benchWire.js';
import { commonPin } from './commonPin.js';
import { endpoint } from './endpoint.js';

/** Shortest password: length is what makes one hard to guess (ASVS 5.0, 6.2.1 asks for at least 8, and to favour 15 and more). */
const SHORTEST_PASSWORD = 10;

/** A password as it is set. Any sign may stand in it; what is typed is not trimmed. */
export const passwordSchema = z
  .string()
  .min(SHORTEST_PASSWORD, `a password has at least ${SHORTEST_PASSWORD} characters; several words are easy to remember`)
  .max(200, 'a password has at most 200 characters');

/** A PIN: digits only, typed on a tablet that was let in. */
export const pinSchema = z
  .string()
  .regex(/^\d{4,8}$/u, 'a PIN has four to eight digits')
  .superRefine((pin, context) => {
    const why = commonPin(pin);
    if (why !== null)
      context.addIssue({ code: 'custom', message: `this PIN is too easy to guess: ${why}; choose another` });
  });

const idSchema = z.uuid('an id of a person or a device is a UUID').toLowerCase();
const byId = z.object({ id: idSchema });
const secret = z.string().min(1).max(200);

const whoSchema = z.strictObject({
  id: idSchema,
  name: z.string(),
  role: roleSchema,
  hasPin: z.boolean(),
  mustChange: z.boolean().describe('True if the person must set a password first.'),
});
export type Who = z.output<typeof whoSchema>;

/** Who is at this device, and how one signs in here. */
export const sessionSchema = z.strictObject({
  accounts: z
    .boolean()
    .describe('True if people sign in here; without accounts everyone at this machine may do everything.'),
  first: z.boolean().describe('True if there is no owner’s account yet.'),
  person: whoSchema.nullable().describe('Person signed in; null: nobody.'),
  device: z
    .strictObject({ id: idSchema, name: z.string() })
    .nullable()
    .describe('Registered device; null: not registered.'),
  people: z
    .array(z.strictObject({ id: idSchema, name: z.string() }))
    .describe('People who can sign in by PIN; shown to registered devices only.'),
  certificate: z.string().nullable().describe('Fault of the server’s certificate, shown to the owner; null: none.'),
  confirmedUntil: momentSchema
    .nullable()
    .describe('Until when what the owner alone may do needs no password; null where it needs one now.'),
  token: z.string().describe('Goes along with every change in the header `x-fettle-token`; empty without accounts.'),
});
export type Session = z.output<typeof sessionSchema>;

export const personViewSchema = z.strictObject({
  ...whoSchema.shape,
  createdAt: momentSchema,
  createdBy: z.string(),
  retiredAt: momentSchema.nullable().describe('When the account was disabled; past work keeps the name.'),
  lockedUntil: momentSchema.nullable().describe('Until when they cannot, after too many wrong tries.'),
});
export type PersonView = z.output<typeof personViewSchema>;

const deviceNameSchema = z.string().trim().min(1, 'enter a name for the device').max(60, 'at most 60 characters');

export const deviceViewSchema = z.strictObject({
  id: idSchema,
  name: z.string(),
  letInAt: momentSchema,
  letInBy: z.string(),
  seenAt: momentSchema,
  revokedAt: momentSchema.nullable(),
  isThis: z.boolean().describe('True for the device that asks.'),
});
export type DeviceView = z.output<typeof deviceViewSchema>;

/** Where the ways in the page begin; a test of the page holds its routes against them. */
export const PLACES = ['engines', 'drawer', 'types', 'together', 'sum', 'me', 'people'] as const;
const PLACE = new RegExp(`^/(?:(?:${PLACES.join('|')})(?:/[\\w.~-]+)*/?)?(?:\\?[\\w.~%&=+-]*)?$`, 'u');

/** A place in the page: a way of Fettle's own, so that it can lead nowhere else. */
const placeSchema = z.string().max(300).regex(PLACE, 'a place in Fettle is one of its own pages, as /engines');

export const AUDIT_KINDS = ['engine', 'reading', 'drawer', 'type', 'instrument', 'sheet', 'access'] as const;

/** One thing that was done, by whom and from where. */
export const auditEntrySchema = z.strictObject({
  id: z.string(),
  at: momentSchema,
  by: z.string(),
  device: z.string().nullable().describe('Name of the device; null: this machine, or an unregistered one.'),
  kind: z.enum(AUDIT_KINDS),
  what: z.string().describe('What was done: created, changed, read, receive, signed-in …'),
  subject: z.string().describe('What it was done to, by its name as of now.'),
  subjectId: z.string().nullable(),
  detail: z.string(),
});
export type AuditEntry = z.output<typeof auditEntrySchema>;

const auditQuery = {
  person: z.string().max(60).optional(),
  device: idSchema.optional(),
  kind: z.enum(AUDIT_KINDS).optional(),
  subject: z.string().max(100).optional().describe('Id of an engine, an engine type, a person or a device.'),
  from: daySchema.optional().describe('First day, UTC.'),
  to: daySchema.optional().describe('Last day, UTC.'),
};

const tooOften = ['too-many'] as const;

export const ACCESS_ENDPOINTS = {
  getSession: endpoint({
    method: 'get',
    at: '/api/session',
    needs: 'anyone',
    summary: 'Who is signed in on this device, and how to sign in',
    answer: sessionSchema,
    topics: ['session'],
  }),
  signIn: endpoint({
    method: 'post',
    at: '/api/session',
    needs: 'anyone',
    summary: 'Sign in by name and password, or by PIN on a registered device',
    body: z.union([
      z.strictObject({ name: secret, password: secret }),
      z.strictObject({ person: idSchema, pin: secret }),
    ]),
    answer: sessionSchema,
    problems: ['invalid-request', 'not-signed-in', 'too-many'],
    topics: ['session'],
    largestMb: 0.01,
  }),
  signOut: endpoint({
    method: 'delete',
    at: '/api/session',
    needs: 'anyone',
    summary: 'Sign out',
    answer: sessionSchema,
    topics: ['session'],
  }),
  makeOwner: endpoint({
    method: 'post',
    at: '/api/session/first',
    needs: 'anyone',
    summary: 'Create the owner’s account, once, with the code shown when the server started',
    body: z.strictObject({ code: secret, name: personSchema, password: passwordSchema }),
    answer: sessionSchema,
    statuses: { 201: 'Made, and signed in' },
    problems: ['invalid-request', 'not-signed-in', ...tooOften],
    topics: ['session', 'people'],
    largestMb: 0.01,
  }),
  changePassword: endpoint({
    method: 'put',
    at: '/api/session/password',
    needs: 'person',
    summary: 'Change one’s password; signs out everywhere else',
    body: z.strictObject({ current: secret, password: passwordSchema }),
    answer: sessionSchema,
    problems: ['invalid-request', 'not-signed-in', ...tooOften],
    topics: ['session'],
    largestMb: 0.01,
  }),
  setPin: endpoint({
    method: 'put',
    at: '/api/session/pin',
    needs: 'person',
    summary: 'Set one’s PIN, or remove it',
    body: z.strictObject({ current: secret.describe('The password.'), pin: pinSchema.nullable() }),
    answer: sessionSchema,
    problems: ['invalid-request', 'not-signed-in', ...tooOften],
    topics: ['session', 'people'],
    largestMb: 0.01,
  }),
  confirmPassword: endpoint({
    method: 'post',
    at: '/api/session/password',
    needs: 'person',
    summary: 'Type one’s password again: for a quarter of an hour the owner may do what the owner alone may',
    body: z.strictObject({ password: secret }),
    answer: sessionSchema,
    problems: ['invalid-request', 'not-signed-in', ...tooOften],
    topics: ['session'],
    largestMb: 0.01,
  }),
  listPeople: endpoint({
    method: 'get',
    at: '/api/people',
    needs: 'people',
    summary: 'Everybody who has an account',
    answer: z.array(personViewSchema),
    topics: ['people'],
  }),
  addPerson: endpoint({
    method: 'post',
    at: '/api/people',
    needs: 'people',
    summary: 'Create an account; the answer holds a first password, shown once',
    body: z.strictObject({ name: personSchema, role: roleSchema }),
    answer: z.strictObject({ person: personViewSchema, password: z.string() }),
    statuses: { 201: 'Made' },
    problems: ['invalid-request', 'id-in-use'],
    topics: ['people'],
  }),
  changePerson: endpoint({
    method: 'patch',
    at: '/api/people/{id}',
    needs: 'people',
    summary: 'Change a person’s role, disable or enable the account',
    path: byId,
    body: z
      .strictObject({ role: roleSchema.optional(), retired: z.boolean().optional() })
      .refine(({ role, retired }) => role !== undefined || retired !== undefined, 'give a role, or retired'),
    answer: personViewSchema,
    problems: ['invalid-request', 'not-found'],
    topics: ['people'],
  }),
  resetPerson: endpoint({
    method: 'post',
    at: '/api/people/{id}/reset',
    needs: 'people',
    summary: 'Set a new password for someone who lost theirs, shown once; signs them out everywhere',
    path: byId,
    body: z.strictObject({}),
    answer: z.strictObject({ person: personViewSchema, password: z.string() }),
    problems: ['invalid-request', 'not-found'],
    topics: ['people'],
  }),
  listDevices: endpoint({
    method: 'get',
    at: '/api/devices',
    needs: 'people',
    summary: 'Registered devices',
    answer: z.array(deviceViewSchema),
    topics: ['devices'],
  }),
  inviteDevice: endpoint({
    method: 'post',
    at: '/api/devices/invitations',
    needs: 'bench',
    summary: 'A code that registers one device, once, within two minutes, and opens a page there',
    body: z.strictObject({ to: placeSchema }),
    answer: z.strictObject({
      address: z.string().describe('Content of the QR code.'),
      until: momentSchema,
    }),
    statuses: { 201: 'Invited' },
    problems: ['invalid-request', 'not-allowed'],
  }),
  letIn: endpoint({
    method: 'post',
    at: '/api/devices',
    needs: 'anyone',
    summary: 'Register this device, by a code from another one',
    body: z.strictObject({ code: secret, name: deviceNameSchema }),
    answer: z.strictObject({ session: sessionSchema, to: placeSchema }),
    statuses: { 201: 'Registered' },
    problems: ['invalid-request', 'not-signed-in', ...tooOften],
    topics: ['session', 'devices'],
    largestMb: 0.01,
  }),
  revokeDevice: endpoint({
    method: 'delete',
    at: '/api/devices/{id}',
    needs: 'people',
    summary: 'Remove a device; it signs out everyone there',
    path: byId,
    answer: z.array(deviceViewSchema),
    problems: ['invalid-request', 'not-found'],
    topics: ['devices'],
  }),
  listAudit: endpoint({
    method: 'get',
    at: '/api/audit',
    needs: 'people',
    summary: 'Activity log, newest first',
    query: z.object({ ...auditQuery, ...pageQuery }),
    answer: z.strictObject({
      entries: z.array(auditEntrySchema),
      people: z.array(z.string()).describe('Everybody who has an account.'),
      goesOn: goesOnSchema,
    }),
    problems: ['invalid-request'],
    topics: ['audit'],
  }),
} as const;

/** The audit as a file. */
export const AUDIT_FILES = {
  auditCsv: endpoint({
    method: 'get',
    at: '/api/audit.csv',
    needs: 'people',
    summary: 'Activity log as CSV, newest first; at most 100 000 lines',
    query: z.object(auditQuery),
    answer: z.unknown(),
    files: ['text/csv'],
    problems: ['invalid-request'],
  }),
} as const;
