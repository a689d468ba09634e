import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { Button } from './Button.js';
import { OpenedPanel } from './OpenedPanel.js';
import { PanelTitle, Row } from './Panel.js';

interface DetailPanelProps {
  /** What a screen reader calls it. */
  readonly label: string;
  /** Its heading; left out: the label. */
  readonly title?: ReactNode;
  /** Between the heading and the button that closes it. */
  readonly mark?: ReactNode;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** One line of a list, or one station, opened up beside it. */
export function DetailPanel({ label, title = label, mark, onClose, children }: DetailPanelProps) {
  return (
    <OpenedPanel aria-label={label}>
      <Row style={{ justifyContent: 'space-between', flexWrap: 'nowrap' }}>
        <PanelTitle style={{ overflowWrap: 'anywhere' }}>{title}</PanelTitle>
        {mark}
        <Button $kind="quiet" aria-label="Close the detail" onPress={onClose}>
          <X aria-hidden size={20} />
        </Button>
      </Row>
      {children}
    </OpenedPanel>
  );
}
