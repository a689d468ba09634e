import type { ReactNode } from 'react';
import { useEffect, useState } from 'react';
import { useAppSelector } from '../base/store.js';
import { tell } from '../wire/tell.js';
import { Door } from './Door.js';
import { PasswordField } from './PasswordField.js';
import { useActing } from './useActing.js';

/** True if a moment is still to come; looked at again when it has come. */
function useIsAhead(until: string | null): boolean {
  const left = until === null ? 0 : Date.parse(until) - Date.now();
  const [, setOver] = useState(0);
  useEffect(() => {
    if (until === null) return;
    const timer = setTimeout(() => setOver((count) => count + 1), Math.max(0, Date.parse(until) - Date.now()) + 50);
    return () => clearTimeout(timer);
  }, [until]);
  return left > 0;
}

/** What the owner alone may see and do: shown once they have typed their password within the last quarter of an hour. */
export function Confirmed({ children }: { readonly children: ReactNode }) {
  const { isOn, session } = useAppSelector((state) => state.access);
  const isConfirmed = useIsAhead(session?.confirmedUntil ?? null);
  const [password, setPassword] = useState('');
  const acting = useActing();
  if (!isOn || isConfirmed || session?.person?.role !== 'owner') return children;
  return (
    <Door
      title="Enter your password again"
      act="Go on"
      isReady={password !== ''}
      isBusy={acting.isBusy}
      fault={acting.fault}
      onAct={async () => {
        await acting.act(() => tell('confirmPassword', { body: { password } }));
        setPassword('');
      }}
      beside="Only the owner sees and changes users and devices. Fettle asks for the password every 15 minutes."
    >
      <PasswordField label="Password" autoFocus value={password} onChange={setPassword} />
    </Door>
  );
}
