import { useState } from 'react';
import { useTitle } from '../base/useTitle.js';
import { tell } from '../wire/tell.js';
import { Door } from './Door.js';
import { useNewPassword } from './NewPassword.js';
import { PasswordField } from './PasswordField.js';
import { useActing } from './useActing.js';

/** A password of one's own, in the place of the one that was given; before anything else. */
export function FirstPassword() {
  useTitle('Set your own password');
  const [current, setCurrent] = useState('');
  const { password, isFit, fields } = useNewPassword();
  const acting = useActing();
  return (
    <Door
      title="Set your own password"
      act="Set password"
      isReady={current !== '' && isFit}
      isBusy={acting.isBusy}
      fault={acting.fault}
      onAct={() => void acting.act(() => tell('changePassword', { body: { current, password } }))}
    >
      <PasswordField label="Password you were given" autoFocus value={current} onChange={setCurrent} />
      {fields}
    </Door>
  );
}
