import type { EndpointName } from '@fettle/core';
import type { Access, AccessParts } from '../access/Access.js';
import type { PersonRow } from '../access/accessEntities.js';
import { tryCode } from '../access/wrongTries.js';
import { ProblemError } from '../problem/problem.js';
import { Reply } from '../wire/Reply.js';
import type { HandlersOf } from '../wire/serve.js';

type AccessNames = Extract<
  EndpointName,
  | 'getSession'
  | 'signIn'
  | 'signOut'
  | 'makeOwner'
  | 'changePassword'
  | 'setPin'
  | 'confirmPassword'
  | 'listPeople'
  | 'addPerson'
  | 'changePerson'
  | 'resetPerson'
  | 'listDevices'
  | 'inviteDevice'
  | 'letIn'
  | 'revokeDevice'
>;

/** Where a device lets itself in, in the page; the code stands behind the #, which browsers do not send. */
const LET_IN = '/let-in';

/** Nobody signs in where there are no accounts. */
function mustBeOn(access: Access): void {
  if (!access.isOn) {
    throw new ProblemError(
      'not-allowed',
      'Nobody signs in here: this server listens to its own machine alone. See “More than one device” in the README.',
    );
  }
}

function signedIn(access: Access): PersonRow {
  mustBeOn(access);
  if (!access.person) throw new ProblemError('not-signed-in', 'Sign in first.');
  return access.person;
}

/** Signing in and out, accounts, and devices that are let in. */
export function accessHandlers({ settings, database, people, devices }: AccessParts): HandlersOf<AccessNames> {
  return {
    getSession: (_, { access }) => access.told(),
    signIn: async ({ body }, { access }) => {
      mustBeOn(access);
      if ('pin' in body) {
        if (!access.device) throw new ProblemError('not-signed-in', 'PIN sign-in works only on a registered device.');
        await access.signIn(await people.byPin(body.person, body.pin, access.device), 'PIN');
      } else {
        await access.signIn(await people.byPassword(body.name, body.password, access.place), 'password');
      }
      return access.told();
    },
    signOut: async (_, { access }) => {
      if (access.isOn) await access.signOut();
      return access.told();
    },
    makeOwner: async ({ body }, { access }) => {
      mustBeOn(access);
      const { firstCode } = settings;
      const counted = await tryCode(database, access.place);
      if (firstCode === null || body.code.trim().toLowerCase() !== firstCode) {
        throw new ProblemError('not-signed-in', 'Wrong code. Use the one shown when the server started.');
      }
      const owner = await people.addOwner(body.name, body.password);
      await counted.right();
      await access.signIn(owner, 'password');
      return new Reply(201, await access.told());
    },
    changePassword: async ({ body }, { access }) => {
      const person = signedIn(access);
      await people.checkPassword(person, body.current, access.place);
      await access.begin(await people.setPassword(person, body.password), true);
      return access.told();
    },
    setPin: async ({ body }, { access }) => {
      const person = signedIn(access);
      await people.checkPassword(person, body.current, access.place);
      access.confirm();
      access.person = await people.setPin(person, body.pin);
      return access.told();
    },
    confirmPassword: async ({ body }, { access }) => {
      await people.checkPassword(signedIn(access), body.password, access.place);
      access.confirm();
      return access.told();
    },
    listPeople: async () => people.list(),
    addPerson: async ({ body }, { access }) =>
      new Reply(201, await people.add(body.name, body.role, signedIn(access).name)),
    changePerson: ({ path, body }, { access }) => {
      mustBeOn(access);
      return people.change(path.id, body);
    },
    resetPerson: ({ path }, { access }) => {
      mustBeOn(access);
      return people.reset(path.id);
    },
    listDevices: (_, { access }) => devices.list(access.device?.id ?? null),
    inviteDevice: async ({ body }, { access }) => {
      const { id, name, role } = signedIn(access);
      if (settings.origin === null) {
        throw new ProblemError(
          'not-allowed',
          'Other devices cannot reach this server: it listens to its own machine alone.',
        );
      }
      const { code, until } = await devices.invite(name, body.to, role === 'owner' && access.isConfirmed ? id : null);
      return new Reply(201, { address: `${settings.origin}${LET_IN}#${code}`, until: until.toISOString() });
    },
    letIn: async ({ body }, { access }) => {
      mustBeOn(access);
      const counted = await tryCode(database, access.place);
      const { device, token, to } = await devices.letIn(body.code, body.name);
      await counted.right();
      access.keepDevice(device, token);
      return new Reply(201, { session: await access.told(), to });
    },
    revokeDevice: ({ path }, { access }) => devices.revoke(path.id, access.device?.id ?? null),
  };
}
