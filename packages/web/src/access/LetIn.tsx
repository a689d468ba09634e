import { useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { useTitle } from '../base/useTitle.js';
import { Field } from '../ui/Field.js';
import { Panel, Quiet } from '../ui/Panel.js';
import { tell } from '../wire/tell.js';
import { Door } from './Door.js';
import { useActing } from './useActing.js';

/** What the device calls itself, to begin with. */
function guessedName(): string {
  const { userAgent } = navigator;
  return /iPad|Tablet/u.test(userAgent) ? 'Tablet' : /Mobile|Android|iPhone/u.test(userAgent) ? 'Phone' : 'Computer';
}

/** Lets this device in, by the code that it was led here with, and opens the place that the code was shown beside. */
export function LetIn() {
  useTitle('Register this device');
  const { hash } = useLocation();
  const navigate = useNavigate();
  const [code] = useState(() => hash.slice(1));
  const [name, setName] = useState(guessedName);
  const acting = useActing();
  if (code === '') {
    return (
      <Panel role="alert">No code here. Get one under “Open on phone” beside any engine, on a registered device.</Panel>
    );
  }
  return (
    <Door
      title="Register this device"
      act="Add device"
      isReady={name.trim() !== ''}
      isBusy={acting.isBusy}
      fault={acting.fault}
      onAct={() =>
        void acting.act(async () => {
          const { to } = await tell('letIn', { body: { code, name: name.trim() } });
          await navigate(to, { replace: true });
        })
      }
      beside={<Quiet>From then on people sign in here by PIN. The owner can remove the device at any time.</Quiet>}
    >
      <Field
        label="Device name"
        value={name}
        onChange={setName}
        maxLength={60}
        hint="Shown beside work done on it, such as “Tablet at the vise”."
      />
    </Door>
  );
}
