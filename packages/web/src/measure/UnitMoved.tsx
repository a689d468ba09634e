import type { Reading } from '@fettle/core';
import { useState } from 'react';
import { localNote, setLocalNote } from '../base/localNotes.js';
import { useLatest } from '../base/useLatest.js';
import type { OpenJob } from '../job/useJob.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { useKeepAgain } from './useSaveReading.js';

/** Figures that are shown in the question. */
const SHOWN = 3;

const UNIT_NAMES = { mm: 'millimetres', in: 'inches' } as const;

/** Where somebody has said that figures typed in another unit stay as they are: for the unit of now, on this device. */
function keptKey(job: string): string {
  return ['fettle.kept-unit', job].join('/');
}

/** Figures without a unit of their own that were typed while the engine had another unit: each keeps the size it had. */
function typedInOther({ document, readings }: OpenJob): Reading[] {
  return readings.filter(({ text, unit, nm }) => unit !== document.unit && nm !== null && /^[\d.,\s]+$/u.test(text));
}

/** Asks once, after the unit of an engine was changed, in which unit the figures so far were meant. Nothing is read otherwise unasked. */
export function UnitMoved({ job }: { readonly job: OpenJob }) {
  const { unit } = job.document;
  const key = keptKey(job.id);
  const [kept, setKept] = useState(() => localNote(key));
  const keepAgain = useKeepAgain(useLatest(job));
  const old = typedInOther(job);
  const [first] = old;
  if (first === undefined || kept === unit) return null;
  const shown = old.slice(0, SHOWN).map(({ text }) => text);
  const count = old.length === 1 ? 'One figure was' : `${old.length} figures were`;
  const keep = () => {
    setLocalNote(key, unit);
    setKept(unit);
  };
  return (
    <Notice
      actions={
        <>
          <Button onPress={keep}>They are {UNIT_NAMES[first.unit]}</Button>
          <Button
            onPress={() => {
              keepAgain(old, { unit });
              keep();
            }}
          >
            They are {UNIT_NAMES[unit]}
          </Button>
        </>
      }
    >
      {count} typed while the unit was {first.unit}: {shown.join(', ')}
      {old.length > SHOWN && ' …'} Millimetres or inches?
    </Notice>
  );
}
