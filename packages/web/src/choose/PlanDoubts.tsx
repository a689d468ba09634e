import { Ask } from '../ui/Ask.js';
import { Button } from '../ui/Button.js';
import { Row } from '../ui/Panel.js';

interface DoubtsProps {
  readonly doubts: readonly string[];
  readonly onAccept: () => void;
  readonly onBack: () => void;
}

/** What is doubtful about a choice, once more before it is accepted. */
export function Doubts({ doubts, onAccept, onBack }: DoubtsProps) {
  return (
    <Ask aria-label="Check before accepting">
      <strong>Check before accepting:</strong>
      <ul style={{ paddingLeft: '1.2rem', listStyle: 'disc' }}>
        {doubts.map((doubt) => (
          <li key={doubt}>{doubt}</li>
        ))}
      </ul>
      <Row style={{ marginTop: '0.4rem' }}>
        <Button $kind="primary" autoFocus onPress={onAccept}>
          Accept anyway
        </Button>
        <Button onPress={onBack}>Cancel</Button>
      </Row>
    </Ask>
  );
}
