import { type DeviceView, type PersonView, ROLES, type Role, roleName, roleWords } from '@fettle/core';
import { formatDistanceToNow } from 'date-fns';
import { KeyRound, Plus, ScrollText } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useTitle } from '../base/useTitle.js';
import { useDraft } from '../typing/useDraft.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { DataTable } from '../ui/DataTable.js';
import type { DataColumn } from '../ui/dataColumns.js';
import { Field } from '../ui/Field.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { api } from '../wire/api.js';
import { tell } from '../wire/tell.js';
import { Confirmed } from './Confirmed.js';
import { type Acting, useActing } from './useActing.js';

const ROLE_OPTIONS = ROLES.map((value) => ({ value, label: roleName(value) }));

const Told = styled.strong`
  font-family: var(--figures);
  font-size: var(--size-figure);
  overflow-wrap: anywhere;
`;

const Add = styled.form`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 0.75rem;
  margin-top: 1rem;
  padding-top: 0.75rem;
  border-top: var(--rule) solid var(--line);
  > :first-child { flex: 1 1 14rem; }
`;

const ago = (at: string) => formatDistanceToNow(new Date(at), { addSuffix: true });

/** A password that is told once. */
interface TellOnce {
  readonly name: string;
  readonly password: string;
}

function personColumns(acting: Acting, onTold: (told: TellOnce) => void): DataColumn<PersonView>[] {
  const change = (id: string, body: { role?: Role; retired?: boolean }) =>
    void acting.act(() => tell('changePerson', { id, body }));
  return [
    { key: 'name', head: 'Name', cell: ({ name }) => <strong>{name}</strong>, sortBy: ({ name }) => name },
    {
      key: 'role',
      head: 'Role',
      cell: ({ id, name, role, retiredAt }) =>
        retiredAt ? (
          'none: disabled'
        ) : (
          <Choice
            label={`What ${name} may do`}
            isLabelHidden
            value={role}
            options={ROLE_OPTIONS}
            onChange={(next) => change(id, { role: next })}
          />
        ),
      sortBy: ({ role }) => role,
    },
    {
      key: 'state',
      head: 'Signs in',
      cell: ({ hasPin, mustChange, retiredAt, lockedUntil }) =>
        retiredAt
          ? `not since ${ago(retiredAt)}`
          : lockedUntil
            ? 'must wait after wrong tries'
            : mustChange
              ? 'first password not changed yet'
              : hasPin
                ? 'by password or PIN'
                : 'by password',
    },
    {
      key: 'acts',
      head: 'Change',
      cell: ({ id, name, retiredAt }) => (
        <Row style={{ justifyContent: 'flex-end', gap: '0.25rem' }}>
          {!retiredAt && (
            <Button
              $kind="quiet"
              aria-label={`New password for ${name}`}
              onPress={() =>
                void acting.act(async () => {
                  const { password } = await tell('resetPerson', { id, body: {} });
                  onTold({ name, password });
                })
              }
            >
              <KeyRound aria-hidden size={18} />
              New password
            </Button>
          )}
          <Button
            $kind="quiet"
            aria-label={retiredAt ? `Enable ${name}` : `Disable ${name}`}
            onPress={() => change(id, { retired: !retiredAt })}
          >
            {retiredAt ? 'Enable' : 'Disable'}
          </Button>
        </Row>
      ),
    },
  ];
}

function Accounts() {
  const { data } = api.useListPeopleQuery({}, { refetchOnMountOrArgChange: true });
  const [draft, setDraft, clearDraft] = useDraft<{ readonly name: string; readonly role: Role }>('person');
  const { name, role } = draft ?? { name: '', role: 'fitter' };
  const [told, setTold] = useState<TellOnce | null>(null);
  const acting = useActing();
  const add = () =>
    acting.act(async () => {
      const { person, password } = await tell('addPerson', { body: { name: name.trim(), role } });
      setTold({ name: person.name, password });
      clearDraft({ name, role });
    });
  return (
    <Panel aria-label="Users and devices">
      <Row>
        <PanelTitle as="h1" style={{ flex: 1 }}>
          Users and devices
        </PanelTitle>
        <Link className="log" to="audit">
          <ScrollText aria-hidden size={18} /> Activity log
        </Link>
      </Row>
      {told && (
        <Notice
          urgent
          actions={
            <Button $kind="quiet" onPress={() => setTold(null)}>
              Done
            </Button>
          }
        >
          {told.name} signs in with <Told>{told.password}</Told>, then sets a password. Shown once only.
        </Notice>
      )}
      {acting.fault !== null && <Notice urgent>{acting.fault}</Notice>}
      {data ? (
        <DataTable label="Accounts" items={data} columns={personColumns(acting, setTold)} keyOf={({ id }) => id} />
      ) : (
        <Quiet>Loading accounts …</Quiet>
      )}
      <Add
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim() !== '' && !acting.isBusy) void add();
        }}
      >
        <Field
          label="New person"
          value={name}
          onChange={(typed) => setDraft({ name: typed, role })}
          maxLength={60}
          placeholder="name"
        />
        <Choice
          label="Account role"
          value={role}
          options={ROLE_OPTIONS}
          onChange={(chosen) => setDraft({ name, role: chosen })}
        />
        <Button type="submit" isDisabled={name.trim() === '' || acting.isBusy}>
          <Plus aria-hidden size={20} />
          Create account
        </Button>
      </Add>
      <Quiet>
        {roleName(role)}: {roleWords(role)}.
      </Quiet>
    </Panel>
  );
}

function Devices() {
  const { data } = api.useListDevicesQuery({}, { refetchOnMountOrArgChange: true });
  const acting = useActing();
  const columns: DataColumn<DeviceView>[] = [
    {
      key: 'name',
      head: 'Device',
      cell: ({ name, isThis }) => (
        <span>
          <strong>{name}</strong>
          {isThis && ' (this one)'}
        </span>
      ),
      sortBy: ({ name }) => name,
    },
    {
      key: 'by',
      head: 'Added',
      cell: ({ letInAt, letInBy }) => `${ago(letInAt)}, by ${letInBy}`,
      sortBy: ({ letInAt }) => letInAt,
    },
    {
      key: 'seen',
      head: 'Last seen',
      cell: ({ seenAt, revokedAt }) => (revokedAt ? `removed ${ago(revokedAt)}` : ago(seenAt)),
      sortBy: ({ seenAt }) => seenAt,
    },
    {
      key: 'acts',
      head: 'Change',
      cell: ({ id, name, revokedAt }) =>
        revokedAt ? null : (
          <Button
            $kind="quiet"
            aria-label={`Remove ${name}`}
            onPress={() => void acting.act(() => tell('revokeDevice', { id }))}
          >
            Remove
          </Button>
        ),
    },
  ];
  return (
    <Panel aria-label="Devices">
      <PanelTitle>Devices</PanelTitle>
      <Quiet>
        Register a device by the code beside any engine (“Open on phone”). People sign in there by PIN. Owners can use a
        PIN only where an owner registered the device. Removing a device signs everyone out there at once.
      </Quiet>
      {acting.fault !== null && <Notice urgent>{acting.fault}</Notice>}
      {data && data.length > 0 ? (
        <DataTable label="Registered devices" items={data} columns={columns} keyOf={({ id }) => id} />
      ) : (
        <Quiet>{data ? 'No registered devices.' : 'Loading devices …'}</Quiet>
      )}
    </Panel>
  );
}

/** Who has an account and what they may do; which devices were let in. */
export function People() {
  useTitle('Users and devices');
  return (
    <Confirmed>
      <Accounts />
      <Devices />
    </Confirmed>
  );
}
