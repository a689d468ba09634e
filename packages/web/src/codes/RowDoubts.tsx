import { FEATURE_TABLE, type RowDoubt, rowDoubts } from '@fettle/core';
import type { OpenJob } from '../job/useJob.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Row } from '../ui/Panel.js';

function wordsOf(doubt: RowDoubt): string {
  const name = FEATURE_TABLE[doubt.feature].words;
  switch (doubt.kind) {
    case 'other-end':
      return `${name}: ${doubt.agree === 0 ? 'none is' : `only ${doubt.agree} are`} of ${doubt.of} measured match their marks; from the other end ${doubt.would === doubt.of ? 'all are' : `${doubt.would} are`}. Wrong end?`;
    case 'same-row':
      return `The rows of the ${name} and of the ${FEATURE_TABLE[doubt.other].words} were typed alike. Is it one row, typed twice?`;
    case 'other-row':
      return `Every mark in the ${name} row is also a mark of the ${FEATURE_TABLE[doubt.other].words}. Typed in the wrong row?`;
  }
}

/** What is to be asked about the stamped rows, with the row turned round one touch away. */
export function RowDoubts({ job, onTurn }: { readonly job: OpenJob; readonly onTurn: (doubt: RowDoubt) => void }) {
  const doubts = rowDoubts(job.document, job.readings);
  if (doubts.length === 0) return null;
  return (
    <Notice>
      {doubts.map((doubt) => (
        <Row
          key={`${doubt.kind} ${doubt.feature}`}
          role="group"
          aria-label={`Row of the ${FEATURE_TABLE[doubt.feature].words}`}
        >
          <span style={{ flex: '1 1 20rem' }}>{wordsOf(doubt)}</span>
          {doubt.kind === 'other-end' && <Button onPress={() => onTurn(doubt)}>Turn the row round</Button>}
        </Row>
      ))}
    </Notice>
  );
}
