import type { DrawerLine, KitView } from '@fettle/core';
import { cutText, drawerHalfSchema, isSameLine, shellLabel } from '@fettle/core';
import { PackageOpen, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { newId } from '../base/newId.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { OpenedPanel } from '../ui/OpenedPanel.js';
import { PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import { moveDrawer } from './moveDrawer.js';
import type { Drawer } from './useDrawer.js';

interface KitsPanelProps {
  readonly lines: readonly DrawerLine[];
  readonly by: string;
  readonly act: Drawer['act'];
}

/** Named lists of halves that are bought together: one touch puts all of them into the drawer. */
export function KitsPanel({ lines, by, act }: KitsPanelProps) {
  const { data: kits, error } = api.useListKitsQuery({}, { refetchOnMountOrArgChange: true });
  const [gone, setGone] = useState<KitView | null>(null);
  const receive = ({ kit }: KitView) =>
    act(() =>
      moveDrawer({
        by,
        kind: 'receive',
        note: cutText(`Kit ${kit.name}`, 300),
        changes: kit.halves.map(({ count, ...kind }) => {
          const line = lines.find(({ half }) => isSameLine(half, kind));
          return line
            ? { id: line.id, version: line.version, half: { ...line.half, onHand: line.half.onHand + count } }
            : { id: newId(), version: 0, half: drawerHalfSchema.parse({ ...kind, onHand: count }) };
        }),
      }),
    );
  return (
    <OpenedPanel aria-label="Kits">
      <PanelTitle>Kits</PanelTitle>
      <Quiet>Kits come from “What to order” of an engine type or an engine. Receiving one adds all its shells.</Quiet>
      {error && <p role="alert">{refusalInWords(error)}</p>}
      {gone && (
        <Notice
          actions={
            <Button
              onPress={() =>
                void act(() => tell('putKit', { id: gone.id, body: { version: 0, by, kit: gone.kit } })).then(
                  (worked) => worked && setGone(null),
                )
              }
            >
              Restore
            </Button>
          }
        >
          “{gone.kit.name}” removed.
        </Notice>
      )}
      {kits?.length === 0 && <p>No kits saved yet.</p>}
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
              aria-label={`Remove kit ${view.kit.name}`}
              onPress={() =>
                void act(() => tell('deleteKit', { id: view.id, version: view.version, by })).then(
                  (worked) => worked && setGone(view),
                )
              }
            >
              <Trash2 aria-hidden size={18} />
            </Button>
          </Row>
        </div>
      ))}
    </OpenedPanel>
  );
}
