import { useState } from 'react';
import { Dialog, Heading, Modal, ModalOverlay } from 'react-aria-components';
import styled from 'styled-components';
import { areShortcutsOn, type Shortcut, turnShortcuts } from '../base/shortcuts.js';
import { Button } from '../ui/Button.js';
import { Row } from '../ui/Panel.js';
import { Tick } from '../ui/Tick.js';

const Over = styled(ModalOverlay)`
  position: fixed; inset: 0; z-index: 30; display: grid; place-items: center; padding: 1rem; background: rgb(0 0 0 / 0.4);
`;

const Sheet = styled(Modal)`
  width: min(30rem, 100%); max-height: 90vh; overflow: auto; padding: 1rem 1.25rem; background: var(--surface);
  border: 2px solid var(--line-strong); border-radius: var(--radius);
  h2 { font-size: var(--size-lead); margin-bottom: 0.5rem; }
  dl { display: grid; grid-template-columns: auto 1fr; gap: 0.35rem 0.9rem; margin: 0.5rem 0; align-items: baseline; }
  dt { justify-self: start; }
  kbd { display: inline-block; min-width: 1.9rem; padding: 0.1rem 0.45rem; text-align: center; border: 1px solid var(--line-strong); border-radius: 4px; background: var(--bg); font-family: var(--figures); font-weight: 700; }
`;

/** Keys that boxes take everywhere. */
const IN_BOXES = [
  ['Enter', 'Save, next empty box'],
  ['Arrows', 'Next box, up or down'],
  ['Tab', 'Save, next control'],
] as const;

interface ShortcutsDialogProps {
  readonly shortcuts: readonly Shortcut[];
  readonly onClose: () => void;
}

/** The keys of the page in view, and the switch that turns single keys off. */
export function ShortcutsDialog({ shortcuts, onClose }: ShortcutsDialogProps) {
  const [isOn, setOn] = useState(areShortcutsOn);
  return (
    <Over isOpen isDismissable onOpenChange={onClose}>
      <Sheet>
        <Dialog>
          <Heading slot="title" level={2}>
            Keyboard shortcuts
          </Heading>
          <dl>
            {[...shortcuts.map(({ key, words }) => [key, words] as const), ...IN_BOXES].map(([key, words]) => (
              <div key={key} style={{ display: 'contents' }}>
                <dt>
                  <kbd>{key}</kbd>
                </dt>
                <dd>{words}</dd>
              </div>
            ))}
          </dl>
          <Tick
            isSelected={isOn}
            onChange={(on) => {
              turnShortcuts(on);
              setOn(on);
            }}
          >
            Single-key shortcuts on this device
          </Tick>
          <Row style={{ marginTop: '0.75rem' }}>
            <Button $kind="primary" autoFocus onPress={onClose}>
              Close
            </Button>
          </Row>
        </Dialog>
      </Sheet>
    </Over>
  );
}
