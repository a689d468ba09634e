import type { JobView, Json, Reading } from '@fettle/core';
import { type JobDocument, keysOfPointer, mergeThreeWays, patchStepOf, slotKey, withValueAt } from '@fettle/core';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { type AnswerMeta, api } from '../wire/api.js';
import type { AskFault } from '../wire/ask.js';
import type { Clash, Parcel, Refusal, Waiting } from './outbox.js';

type Matcher = (action: unknown) => action is { type: string };

export interface SavingState {
  /** Jobs as the server last told them. */
  readonly jobs: Readonly<Record<string, JobView>>;
  /** Changes not yet on the server, oldest first; the first may be on its way. */
  readonly parcels: readonly Parcel[];
  /** Id of the parcel that is on its way. */
  readonly sending: string | null;
  readonly unreachable: boolean;
  /** Whether it is only the database that is away. */
  readonly isDatabaseAway: boolean;
  /** Why this browser cannot keep unsent changes over a reload, or null. */
  readonly notKept: string | null;
  readonly clashes: readonly Clash[];
  readonly refusals: readonly Refusal[];
  /** What went wrong in the page itself, unforeseen: from then on it cannot be sure that everything was taken down. */
  readonly pageFault: string | null;
}

const initialState: SavingState = {
  jobs: {},
  parcels: [],
  sending: null,
  unreachable: false,
  isDatabaseAway: false,
  notKept: null,
  clashes: [],
  refusals: [],
  pageFault: null,
};

function asJson(document: JobDocument): Json {
  return document as unknown as Json;
}

/** Lays unsent document changes over what the server has. */
export function documentWith(server: JobDocument, parcels: readonly Parcel[], jobId: string): JobDocument {
  return parcels.reduce((document, parcel) => {
    if (parcel.kind !== 'document' || parcel.jobId !== jobId) return document;
    return mergeThreeWays(asJson(parcel.base), asJson(parcel.ours), asJson(document))
      .document as unknown as JobDocument;
  }, server);
}

/** An engine as the server tells it; news that is older than what is known is none. */
function withJob(state: SavingState, job: JobView): SavingState {
  const known = state.jobs[job.id];
  if (known && known.revision > job.revision) return state;
  return { ...state, jobs: { ...state.jobs, [job.id]: job } };
}

const endpoints = Object.values(api.endpoints);
const hasAnswered = (action: unknown): action is { type: string } =>
  endpoints.some(({ matchFulfilled }) => (matchFulfilled as Matcher)(action));
const hasFailed = (action: unknown): action is { payload: AskFault | undefined } =>
  endpoints.some(({ matchRejected }) => (matchRejected as Matcher)(action));

const savingSlice = createSlice({
  name: 'saving',
  initialState: initialState as SavingState,
  reducers: {
    waitingRecalled: (state, { payload }: PayloadAction<Waiting>) => ({
      ...state,
      parcels: [...payload.parcels, ...state.parcels],
      clashes: [...payload.clashes, ...state.clashes],
      refusals: [...payload.refusals, ...state.refusals],
    }),
    pageFailed: (state, { payload }: PayloadAction<string>) => ({ ...state, pageFault: state.pageFault ?? payload }),
    keepingFailed: (state, { payload }: PayloadAction<string>) => ({ ...state, notKept: payload }),
    parcelAdded: (state, { payload: parcel }: PayloadAction<Parcel>) => {
      // A change that is not yet on its way is brought up to date instead of queued twice.
      const waiting = state.parcels.findIndex(
        (other) =>
          other.id !== state.sending &&
          other.kind === parcel.kind &&
          other.jobId === parcel.jobId &&
          (other.kind !== 'reading' || parcel.kind !== 'reading' || slotKey(other.draft) === slotKey(parcel.draft)),
      );
      const old = state.parcels[waiting];
      if (!old) return { ...state, parcels: [...state.parcels, parcel] };
      const joined: Parcel =
        old.kind === 'reading' && parcel.kind === 'reading'
          ? { ...parcel, draft: { ...parcel.draft, replaces: old.draft.replaces } }
          : old.kind === 'document' && parcel.kind === 'document'
            ? { ...parcel, base: old.base }
            : parcel;
      return { ...state, parcels: state.parcels.map((other) => (other === old ? joined : other)) };
    },
    sendingStarted: (state, { payload }: PayloadAction<string>) => ({ ...state, sending: payload }),
    /** @param payload whether it is only the database that is away */
    sendingFailed: (state, { payload }: PayloadAction<boolean>) => ({
      ...state,
      sending: null,
      unreachable: true,
      isDatabaseAway: payload,
    }),
    jobArrived: (state, { payload }: PayloadAction<JobView>) => withJob(state, payload),
    parcelDelivered: (state, { payload: id }: PayloadAction<string>) => ({
      ...state,
      sending: null,
      unreachable: false,
      parcels: state.parcels.filter((parcel) => parcel.id !== id),
    }),
    readingArrived: (state, { payload: { jobId, reading } }: PayloadAction<{ jobId: string; reading: Reading }>) => {
      const job = state.jobs[jobId];
      if (!job) return state;
      const key = slotKey(reading);
      const readings = [...job.readings.filter((other) => slotKey(other) !== key), reading];
      // The server counts a new reading as a revision; a look at the engine that set out before it is old news.
      const isNew = !job.readings.some(({ id }) => id === reading.id);
      const revision = job.revision + (isNew ? 1 : 0);
      return { ...state, jobs: { ...state.jobs, [jobId]: { ...job, revision, readings } } };
    },
    /** The server has a newer version: ours is laid over it; where both touched one place, somebody decides. */
    documentOvertaken: (state, { payload: { id, current } }: PayloadAction<{ id: string; current: JobView }>) => {
      const parcel = state.parcels.find((other) => other.id === id);
      const jobs = { ...state.jobs, [current.id]: current };
      if (parcel?.kind !== 'document') return { ...state, jobs, sending: null };
      const { document, clashes } = mergeThreeWays(asJson(parcel.base), asJson(parcel.ours), asJson(current.document));
      const rebased: Parcel = { ...parcel, base: current.document, ours: document as unknown as JobDocument };
      return {
        ...state,
        jobs,
        sending: null,
        parcels: state.parcels.map((other) => (other === parcel ? rebased : other)),
        clashes: [
          ...state.clashes,
          ...clashes.map((clash, at) => ({
            kind: 'document' as const,
            id: `${id}-${current.version}-${at}`,
            jobId: parcel.jobId,
            path: patchStepOf(clash).path,
            ours: clash.to,
            theirs: clash.theirs,
          })),
        ],
      };
    },
    readingOvertaken: (state, { payload: { id, current } }: PayloadAction<{ id: string; current: Reading | null }>) => {
      const parcel = state.parcels.find((other) => other.id === id);
      if (parcel?.kind !== 'reading') return { ...state, sending: null };
      const parcels = state.parcels.filter((other) => other !== parcel);
      const job = state.jobs[parcel.jobId];
      const key = slotKey(parcel.draft);
      const others = job?.readings.filter((reading) => slotKey(reading) !== key) ?? [];
      const jobs = job
        ? { ...state.jobs, [job.id]: { ...job, readings: current ? [...others, current] : others } }
        : state.jobs;
      const agrees = current?.text === parcel.draft.text;
      const clash: Clash = { kind: 'reading', id, jobId: parcel.jobId, ours: parcel.draft, theirs: current };
      return { ...state, jobs, parcels, sending: null, clashes: agrees ? state.clashes : [...state.clashes, clash] };
    },
    parcelRefused: (state, { payload: { id, detail } }: PayloadAction<{ id: string; detail: string }>) => {
      const parcel = state.parcels.find((other) => other.id === id);
      return {
        ...state,
        sending: null,
        parcels: state.parcels.filter((other) => other.id !== id),
        refusals: parcel ? [...state.refusals, { parcel, detail }] : state.refusals,
      };
    },
    refusalDropped: (state, { payload: id }: PayloadAction<string>) => ({
      ...state,
      refusals: state.refusals.filter(({ parcel }) => parcel.id !== id),
    }),
    clashSettled: (state, { payload: id }: PayloadAction<string>) => ({
      ...state,
      clashes: state.clashes.filter((clash) => clash.id !== id),
    }),
  },
  extraReducers: (build) => {
    build.addMatcher(api.endpoints.getJob.matchFulfilled, (state, { payload, meta }) =>
      (meta.baseQueryMeta as AnswerMeta | undefined)?.isUnchanged ? state : withJob(state, payload),
    );
    build.addMatcher(hasAnswered, (state) => (state.unreachable ? { ...state, unreachable: false } : state));
    build.addMatcher(hasFailed, (state, { payload }) => {
      if (payload?.kind !== 'unreachable') return state;
      const { isDatabase } = payload;
      return state.unreachable && state.isDatabaseAway === isDatabase
        ? state
        : { ...state, unreachable: true, isDatabaseAway: isDatabase };
    });
  },
});

export const {
  waitingRecalled,
  pageFailed,
  keepingFailed,
  parcelAdded,
  sendingStarted,
  sendingFailed,
  jobArrived,
  parcelDelivered,
  readingArrived,
  documentOvertaken,
  readingOvertaken,
  parcelRefused,
  refusalDropped,
  clashSettled,
} = savingSlice.actions;
export const savingReducer = savingSlice.reducer;

/** A document with the clash decided our way. */
export function withOurs(document: JobDocument, clash: Clash & { kind: 'document' }): JobDocument {
  return withValueAt(asJson(document), keysOfPointer(clash.path), clash.ours) as unknown as JobDocument;
}
