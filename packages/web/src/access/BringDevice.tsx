import { Smartphone, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { useLocation } from 'react-router';
import styled from 'styled-components';
import { useAppSelector } from '../base/store.js';
import { Button } from '../ui/Button.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { useQr } from '../ui/useQr.js';
import { tell } from '../wire/tell.js';
import { useActing } from './useActing.js';

const Shown = styled(Panel)`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 0.5rem 1.25rem;
  align-items: start;
  img { width: min(15rem, 60vw); height: auto; background: #fff; padding: 0.75rem; border-radius: var(--radius); image-rendering: pixelated; }
  .address { overflow-wrap: anywhere; font-size: var(--size-small); }
  .left { font-family: var(--figures); font-size: var(--size-figure); }
  @media (max-width: 640px) { grid-template-columns: 1fr; }
`;

interface Invitation {
  readonly address: string;
  readonly until: string;
}

function secondsTo(until: string): number {
  return Math.max(0, Math.ceil((Date.parse(until) - Date.now()) / 1000));
}

/** How many seconds there are left, counted down. */
function useLeft(until: string | null): number {
  const [left, setLeft] = useState(0);
  useEffect(() => {
    if (until === null) return;
    setLeft(secondsTo(until));
    const timer = setInterval(() => setLeft(secondsTo(until)), 1000);
    return () => clearInterval(timer);
  }, [until]);
  return left;
}

/** A code that opens this very place on another device and lets that in: once, within two minutes. */
export function BringDevice({ onClose }: { readonly onClose: () => void }) {
  const { pathname } = useLocation();
  const [invitation, setInvitation] = useState<Invitation | null>(null);
  const acting = useActing();
  const { act } = acting;
  const left = useLeft(invitation?.until ?? null);
  const qr = useQr(invitation?.address ?? '');
  const [count, setCount] = useState(0);
  const session = useAppSelector((state) => state.access.session);
  const isOwner = session?.person?.role === 'owner';
  const isConfirmed = session?.confirmedUntil != null && Date.parse(session.confirmedUntil) > Date.now();
  // biome-ignore lint/correctness/useExhaustiveDependencies: one code a press, whatever is typed meanwhile
  useEffect(() => {
    void act(async () => setInvitation(await tell('inviteDevice', { body: { to: pathname } })));
  }, [count]);
  return (
    <Shown aria-label="Open on phone" className="no-print">
      <div>
        {invitation !== null && left > 0 && qr !== null && <img src={qr} alt={`QR code of ${invitation.address}`} />}
      </div>
      <div>
        <Row>
          <PanelTitle style={{ flex: 1 }}>On a phone or tablet</PanelTitle>
          <Button $kind="quiet" onPress={onClose} aria-label="Close the code">
            <X aria-hidden size={20} />
          </Button>
        </Row>
        {acting.fault !== null && <p role="alert">{acting.fault}</p>}
        {invitation !== null && left > 0 && (
          <>
            <p>Scan the code with the device’s camera: it opens this page there and registers the device.</p>
            <p>
              Good for one device, for <span className="left">{left}</span> s.
            </p>
            <p className="address">{invitation.address}</p>
            {isOwner && !isConfirmed && (
              <Quiet>
                Owners sign in there by password only. To allow a PIN there, enter your password under Users and devices
                first, then get another code.
              </Quiet>
            )}
            <Quiet>
              If the device warns about the certificate, it does not trust this workshop’s yet. The README explains how.
            </Quiet>
          </>
        )}
        {invitation !== null && left === 0 && <p>Code expired.</p>}
        <Button onPress={() => setCount((before) => before + 1)} isDisabled={acting.isBusy}>
          <Smartphone aria-hidden size={20} />
          New code
        </Button>
      </div>
    </Shown>
  );
}
