import { instrumentName } from '@fettle/core';
import { Link } from 'react-router';
import { Notice } from '../ui/Notice.js';
import { api } from '../wire/api.js';
import { standingOf, standingWords } from './instrumentWords.js';

/** Instruments named at once; the rest are counted. */
const MOST_NAMED = 4;

/** The instruments in use whose calibration is overdue, found wrong, or due within a month; nothing where all are held. */
export function InstrumentReminders() {
  const { data } = api.useListInstrumentsQuery({});
  const due = (data?.instruments ?? []).filter(
    (one) => one.instrument.state === 'inUse' && ['wrong', 'overdue', 'soon'].includes(standingOf(one)),
  );
  if (due.length === 0) return null;
  const named = due.slice(0, MOST_NAMED);
  return (
    <Notice>
      <strong>Calibration due:</strong>{' '}
      {named.map((one, at) => (
        <span key={one.id}>
          {at > 0 && '; '}
          <Link to={`/instruments/${one.id}`}>{instrumentName(one.instrument)}</Link>, {standingWords(one)}
        </span>
      ))}
      {due.length > named.length && (
        <>
          ; <Link to="/instruments">{due.length - named.length} more</Link>
        </>
      )}
      .
    </Notice>
  );
}
