import { type JobDocument, type Json, partName, type ReadingDraft } from '@fettle/core';
import { newId } from '../app/newId.js';
import { store, useAppDispatch, useAppSelector } from '../app/store.js';
import { Button } from '../look/Button.js';
import { Notice } from '../look/Notice.js';
import { FEATURE_WORDS, SLOT_WORDS } from '../measure/featureWords.js';
import { NOBODY } from '../person/personSlice.js';
import type { Clash } from './outbox.js';
import { clashSettled, documentWith, parcelAdded, refusalDropped, withOurs } from './savingSlice.js';

/** What a reading is of: `P2 crankpin, front, 0°`. */
function placeOf({ feature, station, slot }: ReadingDraft): string {
  return `${partName(feature, station)} ${FEATURE_WORDS[feature].toLowerCase()}, ${SLOT_WORDS[slot].toLowerCase()}`;
}

function shown(value: Json | undefined): string {
  return value === undefined ? 'nothing' : typeof value === 'string' ? `“${value}”` : JSON.stringify(value);
}

function question(clash: Clash): string {
  if (clash.kind === 'document') {
    const place = clash.path.split('/').slice(1).join(' › ');
    return `${place}: you set ${shown(clash.ours)}, somebody else set ${shown(clash.theirs)} meanwhile.`;
  }
  const theirs = clash.theirs ? `${clash.theirs.by} entered “${clash.theirs.text}”` : 'it was taken back';
  return `${placeOf(clash.ours)}: you typed “${clash.ours.text}”, meanwhile ${theirs}.`;
}

function useSettle(): (clash: Clash, keepOurs: boolean) => void {
  const dispatch = useAppDispatch();
  const by = useAppSelector((state) => state.person.name) || NOBODY;
  return (clash, keepOurs) => {
    const { jobs, parcels } = store.getState().saving;
    dispatch(clashSettled(clash.id));
    if (!keepOurs) return;
    const id = newId();
    if (clash.kind === 'reading') {
      const draft = { ...clash.ours, replaces: clash.theirs?.id ?? null };
      dispatch(parcelAdded({ kind: 'reading', id, jobId: clash.jobId, draft }));
      return;
    }
    const job = jobs[clash.jobId];
    if (!job) return;
    const base: JobDocument = documentWith(job.document, parcels, clash.jobId);
    dispatch(parcelAdded({ kind: 'document', id, jobId: clash.jobId, by, base, ours: withOurs(base, clash) }));
  };
}

/** Changes that need somebody's word before they can be kept. */
export function Decisions() {
  const dispatch = useAppDispatch();
  const { clashes, refusals, pageFault } = useAppSelector((state) => state.saving);
  const settle = useSettle();
  return (
    <>
      {pageFault !== null && (
        <Notice urgent actions={<Button onPress={() => location.reload()}>Load the page anew</Button>}>
          The page made a mistake ({pageFault}). What was saved before is safe; look whether the last figure was taken,
          and load the page anew.
        </Notice>
      )}
      {clashes.map((clash) => (
        <Notice
          key={clash.id}
          urgent
          actions={
            <>
              <Button onPress={() => settle(clash, true)}>Keep mine</Button>
              <Button onPress={() => settle(clash, false)}>Keep theirs</Button>
            </>
          }
        >
          {question(clash)}
        </Notice>
      ))}
      {refusals.map(({ parcel, detail }) => (
        <Notice
          key={parcel.id}
          urgent
          actions={
            <>
              <Button
                onPress={() => {
                  dispatch(refusalDropped(parcel.id));
                  dispatch(parcelAdded(parcel));
                }}
              >
                Try again
              </Button>
              <Button onPress={() => dispatch(refusalDropped(parcel.id))}>Drop it</Button>
            </>
          }
        >
          {parcel.kind === 'reading'
            ? `${placeOf(parcel.draft)}: “${parcel.draft.text}” was not taken. `
            : 'A change was not taken. '}
          {detail}
        </Notice>
      ))}
    </>
  );
}
