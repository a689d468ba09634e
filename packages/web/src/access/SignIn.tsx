import { useState } from 'react';
import styled from 'styled-components';
import { useAppSelector } from '../base/store.js';
import { useTitle } from '../base/useTitle.js';
import { Button } from '../ui/Button.js';
import { Field } from '../ui/Field.js';
import { Quiet } from '../ui/Panel.js';
import { tell } from '../wire/tell.js';
import { Door } from './Door.js';
import { PasswordField } from './PasswordField.js';
import { useActing } from './useActing.js';

const Names = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
  gap: 0.5rem;
  button { min-height: 3.5rem; overflow-wrap: anywhere; }
`;

/** By name and password, as on any device. */
function ByPassword({ onPin }: { readonly onPin: (() => void) | null }) {
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const acting = useActing();
  return (
    <Door
      title="Sign in"
      act="Sign in"
      isReady={name.trim() !== '' && password !== ''}
      isBusy={acting.isBusy}
      fault={acting.fault}
      onAct={async () => {
        const worked = await acting.act(() => tell('signIn', { body: { name: name.trim(), password } }));
        if (!worked) setPassword('');
      }}
      beside={
        onPin ? (
          <Button $kind="quiet" onPress={onPin}>
            Sign in by PIN
          </Button>
        ) : (
          <Quiet>No account, or password lost? Ask the owner: Users and devices.</Quiet>
        )
      }
    >
      <Field label="Name" value={name} onChange={setName} autoFocus autoComplete="username" maxLength={60} />
      <PasswordField label="Password" value={password} onChange={setPassword} />
    </Door>
  );
}

interface ByPinProps {
  readonly people: readonly { readonly id: string; readonly name: string }[];
  readonly device: string;
  readonly onPassword: () => void;
}

/** By PIN, on a device that was let in: one touch on the name, then the digits. */
function ByPin({ people, device, onPassword }: ByPinProps) {
  const [who, setWho] = useState<string | null>(people.length === 1 ? people[0]!.id : null);
  const [pin, setPin] = useState('');
  const [tries, setTries] = useState(0);
  const acting = useActing();
  const person = people.find(({ id }) => id === who);
  return (
    <Door
      title={person ? person.name : 'Who is it?'}
      act={person ? 'Sign in' : null}
      isReady={person !== undefined && /^\d{4,8}$/u.test(pin)}
      isBusy={acting.isBusy}
      fault={acting.fault}
      onAct={async () => {
        const worked = await acting.act(() => tell('signIn', { body: { person: who!, pin } }));
        if (worked) return;
        setPin('');
        // The box is made anew, and with it takes the next try at once.
        setTries(tries + 1);
      }}
      beside={
        <>
          {person && people.length > 1 && (
            <Button $kind="quiet" onPress={() => setWho(null)}>
              Someone else
            </Button>
          )}
          <Button $kind="quiet" onPress={onPassword}>
            Sign in by name and password
          </Button>
          <Quiet>This device: {device}</Quiet>
        </>
      }
    >
      {person ? (
        <Field
          key={`${person.id} ${tries}`}
          label="PIN"
          type="password"
          figure
          inputMode="numeric"
          autoFocus
          value={pin}
          onChange={setPin}
          autoComplete="off"
          maxLength={8}
        />
      ) : (
        <Names>
          {people.map(({ id, name }) => (
            <Button key={id} onPress={() => setWho(id)}>
              {name}
            </Button>
          ))}
        </Names>
      )}
    </Door>
  );
}

/** Who is it? By PIN on a device that was let in, else by name and password. */
export function SignIn() {
  useTitle('Sign in');
  const session = useAppSelector((state) => state.access.session);
  const [byPassword, setByPassword] = useState(false);
  const people = session?.people ?? [];
  if (session?.device && people.length > 0 && !byPassword) {
    return <ByPin people={people} device={session.device.name} onPassword={() => setByPassword(true)} />;
  }
  return <ByPassword onPin={people.length > 0 ? () => setByPassword(false) : null} />;
}
