import { type Who as Account, commonPin, roleName, roleWords } from '@fettle/core';
import { LogOut } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { useAppSelector } from '../base/store.js';
import { useTitle } from '../base/useTitle.js';
import { Button } from '../ui/Button.js';
import { Field } from '../ui/Field.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { TwoColumns } from '../ui/TwoColumns.js';
import { tell } from '../wire/tell.js';
import { useNewPassword } from './NewPassword.js';
import { PasswordField } from './PasswordField.js';
import { signOut } from './signOut.js';
import { useActing } from './useActing.js';

const Form = styled.form`
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
  max-width: 26rem;
  margin-top: 0.6rem;
  [role='alert'] { color: var(--tight); font-weight: 600; }
`;

function OwnPassword() {
  const [current, setCurrent] = useState('');
  const { password, isFit, fields, clear } = useNewPassword();
  const [isDone, setDone] = useState(false);
  const acting = useActing();
  const isReady = current !== '' && isFit;
  const send = async () => {
    if (!isReady || acting.isBusy) return;
    setDone(await acting.act(() => tell('changePassword', { body: { current, password } })));
    setCurrent('');
    clear();
  };
  return (
    <Panel aria-label="Password">
      <PanelTitle>Password</PanelTitle>
      <Form
        onSubmit={(event) => {
          event.preventDefault();
          void send();
        }}
      >
        <PasswordField label="Current password" value={current} onChange={setCurrent} />
        {fields}
        {acting.fault !== null && <p role="alert">{acting.fault}</p>}
        {isDone && <p role="status">Changed. Everywhere else you were signed out.</p>}
        <Row>
          <Button type="submit" isDisabled={!isReady || acting.isBusy}>
            Change password
          </Button>
        </Row>
      </Form>
    </Panel>
  );
}

function OwnPin({ hasPin, role }: Pick<Account, 'hasPin' | 'role'>) {
  const [current, setCurrent] = useState('');
  const [pin, setPin] = useState('');
  const acting = useActing();
  const isLong = /^\d{4,8}$/u.test(pin);
  const common = isLong ? commonPin(pin) : null;
  const isPin = isLong && common === null;
  const set = async (next: string | null) => {
    await acting.act(() => tell('setPin', { body: { current, pin: next } }));
    setCurrent('');
    setPin('');
  };
  return (
    <Panel aria-label="PIN">
      <PanelTitle>PIN</PanelTitle>
      <Quiet>
        {hasPin
          ? 'You have one: it works on registered devices'
          : 'A PIN signs you in by a few digits, on registered devices'}
        {role === 'owner' ? ' by an owner who had just typed their password.' : '.'}
      </Quiet>
      <Form
        onSubmit={(event) => {
          event.preventDefault();
          if (isPin && current !== '') void set(pin);
        }}
      >
        <PasswordField label="Your password, to set or remove it" value={current} onChange={setCurrent} />
        <Field
          label={hasPin ? 'New PIN' : 'PIN'}
          type="password"
          figure
          inputMode="numeric"
          maxLength={8}
          value={pin}
          onChange={setPin}
          fault={pin !== '' && !isLong ? 'Four to eight digits.' : common === null ? null : `Not this one: ${common}.`}
          hint="Four to eight digits, not easy to guess."
        />
        {acting.fault !== null && <p role="alert">{acting.fault}</p>}
        <Row>
          <Button type="submit" isDisabled={!isPin || current === '' || acting.isBusy}>
            {hasPin ? 'Change PIN' : 'Set PIN'}
          </Button>
          {hasPin && (
            <Button isDisabled={current === '' || acting.isBusy} onPress={() => void set(null)}>
              Remove it
            </Button>
          )}
        </Row>
      </Form>
    </Panel>
  );
}

function Who({ person, device }: { readonly person: Account; readonly device: string | null }) {
  const acting = useActing();
  return (
    <Panel>
      <Row>
        <div style={{ flex: 1 }}>
          <PanelTitle as="h1">{person.name}</PanelTitle>
          <p>
            {roleName(person.role)}: {roleWords(person.role)}.{' '}
            {device === null ? 'This device is not registered.' : `This device: ${device}.`}
          </p>
        </div>
        <Button $kind="primary" isDisabled={acting.isBusy} onPress={() => void acting.act(signOut)}>
          <LogOut aria-hidden size={20} />
          Sign out
        </Button>
      </Row>
      {acting.fault !== null && <p role="alert">{acting.fault}</p>}
    </Panel>
  );
}

/** Who is signed in: their password, their PIN, and the way out. */
export function Me() {
  useTitle('Your account');
  const session = useAppSelector((state) => state.access.session);
  if (!session?.person) {
    return (
      <Panel>
        No accounts: this server is for its own machine only. To open it to the workshop, see “More than one device” in
        the README.
      </Panel>
    );
  }
  return (
    <>
      <Who person={session.person} device={session.device?.name ?? null} />
      <TwoColumns>
        <OwnPassword />
        <OwnPin hasPin={session.person.hasPin} role={session.person.role} />
      </TwoColumns>
    </>
  );
}
