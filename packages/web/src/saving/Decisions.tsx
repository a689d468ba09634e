import type { JobDocument, Json } from '@fettle/core';
import { store, useAppDispatch, useAppSelector } from '../app/store.js';
import { Button } from '../look/Button.js';
import { Notice } from '../look/Notice.js';
import { NOBODY } from '../person/personSlice.js';
import type { Clash } from './outbox.js';
import { clashSettled, documentWith, parcelAdded, refusalDropped, withOurs } from './savingSlice.js';

const SLOT_WORDS: Readonly<Record<string, string>> = {
  mainBore: 'bore',
  mainJournal: 'journal',
  bigEnd: 'big end',
};

function shown(value: Json | undefined): string {
  return value === undefined ? 'nothing' : typeof value === 'string' ? `“${value}”` : JSON.stringify(value);
}

function question(clash: Clash): string {
  if (clash.kind === 'document') {
    const place = clash.path.split('/').slice(1).join(' › ');
    return `${place}: you set ${shown(clash.ours)}, somebody else set ${shown(clash.theirs)} meanwhile.`;
  }
  const { feature, station, slot, text } = clash.ours;
  const theirs = clash.theirs ? `${clash.theirs.by} entered “${clash.theirs.text}”` : 'it was taken back';
  return `M${station} ${SLOT_WORDS[feature]} ${slot}: you typed “${text}”, meanwhile ${theirs}.`;
}

function useSettle(): (clash: Clash, keepOurs: boolean) => void {
  const dispatch = useAppDispatch();
  const by = useAppSelector((state) => state.person.name) || NOBODY;
  return (clash, keepOurs) => {
    const { jobs, parcels } = store.getState().saving;
    dispatch(clashSettled(clash.id));
    if (!keepOurs) return;
    const id = crypto.randomUUID();
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
  const { clashes, refusals } = useAppSelector((state) => state.saving);
  const settle = useSettle();
  return (
    <>
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
            ? `M${parcel.draft.station} “${parcel.draft.text}” was not taken. `
            : 'A change was not taken. '}
          {detail}
        </Notice>
      ))}
    </>
  );
}
