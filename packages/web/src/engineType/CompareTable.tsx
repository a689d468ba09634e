import { Wand2 } from 'lucide-react';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Row } from '../ui/Panel.js';
import type { TypedTable } from './useTable.js';

/** The typed table beside the one that bands and walls call for. */
export function CompareTable({ rows, columns, compared, setCompared, made, differences, take }: TypedTable) {
  return (
    <Row style={{ alignItems: 'end' }}>
      <Choice
        label="Compare with the table that bands and walls call for"
        value={compared}
        options={[
          { value: 'no', label: 'No' },
          { value: 'plain', label: 'One grade for both shells' },
          { value: 'mixed', label: 'Mixed pairs allowed' },
        ]}
        onChange={setCompared}
      />
      {made && (
        <>
          <p role="status">
            {differences.length === 0
              ? 'Every cell is the same.'
              : `${differences.length} of ${rows.length * columns.length} cells differ.`}
          </p>
          {differences.length > 0 && (
            <Button onPress={take}>
              <Wand2 aria-hidden size={18} />
              Take this table
            </Button>
          )}
        </>
      )}
      {compared !== 'no' && !made && <p>That needs the clearance limits on the sheet, and the grades.</p>}
    </Row>
  );
}
