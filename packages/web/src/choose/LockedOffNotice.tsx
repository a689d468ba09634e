import { type AcceptedChoice, type JobDocument, type JobStation, type LockedOff, lockedOff } from '@fettle/core';
import { useMemo } from 'react';
import { fineText } from '../fit/meanOff.js';
import { useClearances } from '../person/useClearances.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Row } from '../ui/Panel.js';
import type { Play } from './usePlay.js';

/** Maximum stations asked about at once. */
const MOST_ASKED = 3;

interface LockedOffNoticeProps {
  readonly document: JobDocument;
  readonly stations: ReadonlyMap<string, JobStation>;
  readonly halves: AcceptedChoice['stations'];
  /** What the engine may take of the workshop's halves. */
  readonly free: ReadonlyMap<string, number> | null;
  readonly play: Play;
}

/** Asks about shells that are locked though others would be nearer to the target, by the parts as measured. */
export function LockedOffNotice({ document, stations, halves, free, play }: LockedOffNoticeProps) {
  const { shown } = useClearances(document.unit);
  const found = useMemo(
    () => lockedOff(document, [...stations.values()], halves, free),
    [document, stations, halves, free],
  );
  if (found.length === 0) return null;
  const offText = (off: LockedOff['off']) => {
    const text = fineText(off, shown);
    return /[1-9]/u.test(text) ? `${text} off target` : 'on target';
  };
  return (
    <Notice>
      <div>
        {found.slice(0, MOST_ASKED).map(({ station, locked, nearer, off, offNearer }) => (
          <Row key={station} style={{ marginBottom: '0.25rem' }}>
            <p style={{ flex: '1 1 18rem' }}>
              <strong>
                {station}: {nearer} would be {offText(offNearer)}.
              </strong>{' '}
              The locked {locked} is {offText(off)}. Unlock {station}?
            </p>
            <Button onPress={() => play.wish(station, { upper: null, lower: null }, `${station} unlocked`)}>
              Unlock {station}
            </Button>
          </Row>
        ))}
        {found.length > MOST_ASKED && (
          <p>
            {found.length - MOST_ASKED} more:{' '}
            {found
              .slice(MOST_ASKED)
              .map(({ station }) => station)
              .join(', ')}
            .
          </p>
        )}
      </div>
    </Notice>
  );
}
