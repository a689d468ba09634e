import { passwordSchema } from '@fettle/core';
import { type ReactElement, useState } from 'react';
import { PasswordField } from './PasswordField.js';

/** What is wrong with a new password; null for nothing. */
function passwordFault(password: string): string | null {
  return passwordSchema.safeParse(password).error?.issues[0]?.message ?? null;
}

interface NewPasswordProps {
  readonly value: string;
  readonly again: string;
  readonly onChange: (value: string) => void;
  readonly onAgain: (value: string) => void;
}

/** A new password, twice, so that a slip is seen. */
function NewPassword({ value, again, onChange, onAgain }: NewPasswordProps) {
  return (
    <>
      <PasswordField
        label="New password"
        isNew
        value={value}
        onChange={onChange}
        fault={value === '' ? null : passwordFault(value)}
        hint="At least ten characters; several words are easy to remember."
      />
      <PasswordField
        label="Repeat password"
        isNew
        value={again}
        onChange={onAgain}
        fault={again !== '' && again !== value ? 'Passwords do not match.' : null}
      />
    </>
  );
}

/** A new password as it is typed: its two boxes, and whether it can be sent. */
interface PasswordInHand {
  readonly password: string;
  readonly isFit: boolean;
  readonly fields: ReactElement;
  readonly clear: () => void;
}

export function useNewPassword(): PasswordInHand {
  const [password, setPassword] = useState('');
  const [again, setAgain] = useState('');
  return {
    password,
    isFit: passwordFault(password) === null && password === again,
    fields: <NewPassword value={password} again={again} onChange={setPassword} onAgain={setAgain} />,
    clear: () => {
      setPassword('');
      setAgain('');
    },
  };
}
