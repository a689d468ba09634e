import { useState } from 'react';
import { useTitle } from '../base/useTitle.js';
import { Field } from '../ui/Field.js';
import { Quiet } from '../ui/Panel.js';
import { tell } from '../wire/tell.js';
import { Door } from './Door.js';
import { useNewPassword } from './NewPassword.js';
import { useActing } from './useActing.js';

/** The first account, the owner's: made once, with the code that stands where Fettle was started. */
export function FirstOwner() {
  useTitle('The owner’s account');
  const [code, setCode] = useState('');
  const [name, setName] = useState('');
  const { password, isFit, fields } = useNewPassword();
  const acting = useActing();
  return (
    <Door
      title="The owner’s account"
      act="Create and sign in"
      isReady={code.trim() !== '' && name.trim() !== '' && isFit}
      isBusy={acting.isBusy}
      fault={acting.fault}
      onAct={() => void acting.act(() => tell('makeOwner', { body: { code, name: name.trim(), password } }))}
      beside={<Quiet>The owner gives the others their accounts and roles.</Quiet>}
    >
      <Field
        label="Code"
        figure
        value={code}
        onChange={setCode}
        autoFocus
        maxLength={40}
        hint="Shown in the window where Fettle was started."
      />
      <Field
        label="Name"
        value={name}
        onChange={setName}
        autoComplete="username"
        maxLength={60}
        hint="Name to show beside your work."
      />
      {fields}
    </Door>
  );
}
