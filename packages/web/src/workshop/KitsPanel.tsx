import { cutText, type DrawerLine, drawerHalfSchema, isSameKind, type KitView, shellLabel } from '@fettle/core';
import { PackageOpen, Trash2 } from 'lucide-react';
import { useCallback, useEffect, useState } from 'react';
import { newId } from '../app/newId.js';
import { Button } from '../look/Button.js';
import { Notice } from '../look/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../look/Panel.js';
import { deleteKit, fetchKits, moveDrawer, putKit } from '../saving/api.js';
import { refusalInWords } from '../saving/refusalInWords.js';
import type { Drawer } from './useDrawer.js';

interface KitsPanelProps {
  readonly lines: readonly DrawerLine[];
  readonly by: string;
  readonly act: Drawer['act'];
}

/** Named lists of halves that are bought together: one touch puts all of them into the drawer. */
export function KitsPanel({ lines, by, act }: KitsPanelProps) {
  const [kits, setKits] = useState<readonly KitView[] | null>(null);
  const [gone, setGone] = useState<KitView | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const look = useCallback(() => {
    fetchKits()
      .then(setKits)
      .catch((error: unknown) => setFault(refusalInWords(error)));
  }, []);
  useEffect(look, [look]);
  const receive = ({ kit }: KitView) =>
    act(() =>
      moveDrawer({
        by,
        kind: 'receive',
        note: cutText(`Kit ${kit.name}`, 300),
        changes: kit.halves.map(({ count, ...kind }) => {
          const line = lines.find(({ half }) => isSameKind(half, kind));
          return line
            ? { id: line.id, version: line.version, half: { ...line.half, onHand: line.half.onHand + count } }
            : { id: newId(), version: 0, half: drawerHalfSchema.parse({ ...kind, onHand: count }) };
        }),
      }),
    );
  return (
    <Panel aria-label="Kits">
      <PanelTitle>Kits</PanelTitle>
      <Quiet>
        Kits come from “What to order” of an engine type or an engine. Received, all their halves are put in.
      </Quiet>
      {fault && <p role="alert">{fault}</p>}
      {gone && (
        <Notice
          actions={
            <Button
              onPress={() =>
                void act(() => putKit(gone.id, 0, by, gone.kit)).then((worked) => {
                  if (worked) setGone(null);
                  look();
                })
              }
            >
              Bring it back
            </Button>
          }
        >
          “{gone.kit.name}” was taken away.
        </Notice>
      )}
      {kits?.length === 0 && <p>No kits are kept yet.</p>}
      {(kits ?? []).map((view) => (
        <div key={view.id} style={{ borderTop: 'var(--rule) solid var(--line)', padding: '0.5rem 0' }}>
          <strong style={{ overflowWrap: 'anywhere' }}>{view.kit.name}</strong>
          <Quiet>
            {view.kit.note} {view.kit.note !== '' && '· '}
            {view.kit.halves.map((half) => `${half.count} × ${shellLabel(half)}`).join(', ')}
          </Quiet>
          <Row>
            <Button onPress={() => void receive(view)}>
              <PackageOpen aria-hidden size={18} />
              Receive it
            </Button>
            <Button
              $kind="quiet"
              aria-label={`Take the kit ${view.kit.name} away`}
              onPress={() =>
                void act(() => deleteKit(view.id, view.version, by)).then((worked) => {
                  if (worked) setGone(view);
                  look();
                })
              }
            >
              <Trash2 aria-hidden size={18} />
            </Button>
          </Row>
        </div>
      ))}
    </Panel>
  );
}
