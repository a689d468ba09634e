import { momentText, openWork } from '@fettle/core';
import { PenLine } from 'lucide-react';
import { useState } from 'react';
import { useAppDispatch, useAppSelector } from '../base/store.js';
import { useOpenJob } from '../job/JobPage.js';
import { personNamed } from '../person/personSlice.js';
import { Ask } from '../ui/Ask.js';
import { Button } from '../ui/Button.js';
import { Field } from '../ui/Field.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { useKeptText } from '../ui/useKeptText.js';
import type { Sheets } from './useSheets.js';

interface SignedSheetsProps {
  readonly sheets: Sheets;
  readonly opened: number | null;
  readonly onOpen: (revision: number | null) => void;
}

/** Signing the sheet: who, what is open, and why there is another one. */
function Signing({ sheets, onDone }: { sheets: Sheets; onDone: () => void }) {
  const { id, document, readings } = useOpenJob();
  const dispatch = useAppDispatch();
  const { name: known, isAccount } = useAppSelector((state) => state.person);
  const name = useKeptText({ of: id, part: 'sheet', field: 'signed by' }, known);
  const reason = useKeptText({ of: id, part: 'sheet', field: 'reason' }, '');
  const [isBusy, setBusy] = useState(false);
  const { signed, isAllSent, fault, sign } = sheets;
  const open = openWork(document, readings);
  const isFirst = signed?.length === 0;
  const by = isAccount ? known : name.text.trim();
  const isReady = by !== '' && (isFirst || reason.text.trim() !== '') && isAllSent && !isBusy;
  const put = async () => {
    setBusy(true);
    if (by !== known) dispatch(personNamed(by));
    const worked = await sign(by, isFirst ? '' : reason.text.trim());
    setBusy(false);
    if (!worked) return;
    name.settled(by, name.text);
    reason.settled('', reason.text);
    onDone();
  };
  return (
    <Ask aria-label="Sign build sheet">
      {open.length === 0 ? (
        <p>Nothing open.</p>
      ) : (
        <>
          <strong>Still open, and printed on the signed sheet:</strong>
          <ul style={{ paddingLeft: '1.2rem', listStyle: 'disc' }}>
            {open.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
        </>
      )}
      <Row style={{ alignItems: 'end' }}>
        {isAccount ? (
          <p style={{ minHeight: 'var(--target)', alignContent: 'center' }}>
            Signed by <strong>{known}</strong>
          </p>
        ) : (
          <Field label="Signed by" value={name.text} maxLength={60} autoFocus onChange={name.setText} />
        )}
        {!isFirst && (
          <Field
            label="Why another revision"
            value={reason.text}
            maxLength={500}
            onChange={reason.setText}
            style={{ flex: '1 1 16rem' }}
          />
        )}
        <Button $kind="primary" isDisabled={!isReady} onPress={() => void put()}>
          <PenLine aria-hidden size={20} />
          Sign {isFirst ? 'build sheet' : `revision ${(signed?.[0]?.revision ?? 0) + 1}`}
        </Button>
        <Button onPress={onDone}>Cancel</Button>
      </Row>
      {!isAllSent && <Quiet role="status">Not everything is on the server yet: it is signed once it is.</Quiet>}
      {fault !== null && <p role="alert">{fault}</p>}
    </Ask>
  );
}

/** The signed sheets of an engine, the last first, and signing another. */
export function SignedSheets({ sheets, opened, onOpen }: SignedSheetsProps) {
  const [isSigning, setSigning] = useState(false);
  const { signed } = sheets;
  return (
    <Panel className="no-print" aria-label="Signed sheets">
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle>Signed</PanelTitle>
        <Button aria-expanded={isSigning} isDisabled={signed === null} onPress={() => setSigning(!isSigning)}>
          <PenLine aria-hidden size={20} />
          {signed !== null && signed.length > 0 ? 'Sign another revision' : 'Sign'}
        </Button>
      </Row>
      {signed === null && <Quiet role="status">Signing needs the server.</Quiet>}
      {signed?.length === 0 && (
        <Quiet>Not signed yet. A signed sheet stays as it was, whatever is changed later.</Quiet>
      )}
      {signed !== null && signed.length > 0 && (
        <Row role="group" aria-label="Revisions" style={{ gap: '0.4rem' }}>
          <Button
            aria-pressed={opened === null}
            $kind={opened === null ? 'primary' : 'plain'}
            onPress={() => onOpen(null)}
          >
            Current sheet
          </Button>
          {signed.map(({ revision, signedBy, signedAt }) => (
            <Button
              key={revision}
              aria-pressed={opened === revision}
              $kind={opened === revision ? 'primary' : 'plain'}
              onPress={() => onOpen(revision)}
            >
              Revision {revision}, {signedBy}, {momentText(signedAt)}
            </Button>
          ))}
        </Row>
      )}
      {isSigning && <Signing sheets={sheets} onDone={() => setSigning(false)} />}
    </Panel>
  );
}
