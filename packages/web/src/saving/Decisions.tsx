import type { JobView } from '@fettle/core';
import { Link, useMatch } from 'react-router';
import { newId } from '../base/newId.js';
import { store, useAppDispatch, useAppSelector } from '../base/store.js';
import { useBy } from '../person/useBy.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { clashQuestion, readingPlace } from './clashWords.js';
import { knownDocument } from './knownEngine.js';
import type { Clash } from './outbox.js';
import { clashSettled, KEPT_OVER, parcelAdded, refusalDropped, withOurs } from './savingSlice.js';

/** How a reading was taken of which nothing was said. */
const PLAINLY_TAKEN = { instrument: '', needle: 'bigger', celsius: null, gaugeCelsius: null, reason: '' } as const;

function useSettle(): (clash: Clash, keepOurs: boolean) => void {
  const dispatch = useAppDispatch();
  const by = useBy();
  return (clash, keepOurs) => {
    dispatch(clashSettled(clash.id));
    if (!keepOurs) return;
    const id = newId();
    if (clash.kind === 'reading') {
      const taken = clash.ours.taken ?? PLAINLY_TAKEN;
      const draft = {
        ...clash.ours,
        replaces: clash.theirs?.id ?? null,
        at: new Date().toISOString(),
        taken: { ...taken, reason: KEPT_OVER },
      };
      dispatch(parcelAdded({ kind: 'reading', id, jobId: clash.jobId, draft }));
      return;
    }
    const base = knownDocument(store.getState().saving, clash.jobId);
    if (!base) return;
    dispatch(parcelAdded({ kind: 'document', id, jobId: clash.jobId, by, base, ours: withOurs(base, clash) }));
  };
}

/** Changes that need somebody's word before they can be kept: those of the engine that is open, and where others wait. */
export function Decisions() {
  const dispatch = useAppDispatch();
  const saving = useAppSelector((state) => state.saving);
  const { clashes, refusals, pageFault, jobs } = saving;
  const settle = useSettle();
  const open = useMatch('/engines/:id/*')?.params.id ?? null;
  const here = clashes.flatMap((clash) => {
    const document = clash.jobId === open ? knownDocument(saving, clash.jobId) : null;
    return document ? [{ clash, document }] : [];
  });
  const elsewhere = [...new Set(clashes.filter(({ jobId }) => jobId !== open).map(({ jobId }) => jobId))];
  return (
    <>
      {pageFault !== null && (
        <Notice urgent actions={<Button onPress={() => location.reload()}>Reload</Button>}>
          Page error ({pageFault}). Earlier entries are safe. Check the last figure, then reload the page.
        </Notice>
      )}
      {here.map(({ clash, document }) => (
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
          {clashQuestion(clash, document)}
        </Notice>
      ))}
      {elsewhere.map((id) => (
        <Notice key={id}>
          Conflicting changes on <Link to={`/engines/${id}/data`}>{nameOf(jobs[id])}</Link>. Choose one there.
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
              <Button onPress={() => dispatch(refusalDropped(parcel.id))}>Discard</Button>
            </>
          }
        >
          {parcel.jobId !== open && `${nameOf(jobs[parcel.jobId])}: `}
          {parcel.kind === 'reading'
            ? `${readingPlace(parcel.draft)}: “${parcel.draft.text}” was not taken. `
            : 'A change was not taken. '}
          {detail}
        </Notice>
      ))}
    </>
  );
}

function nameOf(job: JobView | undefined): string {
  return job?.document.name ?? 'another engine';
}
