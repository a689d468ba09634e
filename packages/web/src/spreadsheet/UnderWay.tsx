import { Button } from '../ui/Button.js';
import { Row } from '../ui/Panel.js';
import type { FileUnderWay } from './useTableFile.js';

/** How far a file is that is being read, and a way to cancel. */
export function UnderWay({ file: { name, share, cancel } }: { readonly file: FileUnderWay }) {
  return (
    <Row role="status" style={{ marginTop: '0.5rem' }}>
      <progress aria-label={`Reading ${name}`} value={share} max={1} />
      <span>Reading {name}</span>
      <Button $kind="quiet" onPress={cancel}>
        Cancel
      </Button>
    </Row>
  );
}
