import type { JobView, Reading, ReadingDraft } from '@fettle/core';
import { type JobDocument, keysOfPointer, mergeThreeWays, patchStepOf, slotKey, withValueAt } from '@fettle/core';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { type AnswerMeta, api, engineTold, serverAway } from '../wire/api.js';
import type { AskFault, Away } from '../wire/ask.js';
import { withParcel, withRecalled } from './joinParcels.js';
import { asJson, engineWithReading, newerEngine } from './knownEngine.js';
import { type Clash, type Parcel, type Refusal, typedAs, type Waiting } from './outbox.js';

/** Why a reading takes the place of another that was typed in the same box at the same time: its typist was asked, and kept it. */
export const KEPT_OVER = 'kept over another';

type Matcher = (action: unknown) => action is { type: string };

export interface SavingState {
  /** Jobs as the server last told them. */
  readonly jobs: Readonly<Record<string, JobView>>;
  /** Changes not yet on the server, oldest first; the first may be on its way. */
  readonly parcels: readonly Parcel[];
  /** What other tabs of this browser have waiting: shown here as well, sent by them. */
  readonly elsewhere: readonly Parcel[];
  /** Id of the parcel that is on its way. */
  readonly sending: string | null;
  readonly unreachable: boolean;
  /** What is away, while something is. */
  readonly away: Away;
  /** What the server fails at by a fault of its own, with what it said: kept here and tried again, by ids of parcels. */
  readonly failing: Readonly<Record<string, string>>;
  /** True if it was looked what earlier visits left unsent: before that nobody can say that all is saved. */
  readonly isRecalled: boolean;
  /** Why this browser cannot keep unsent changes over a reload, and how many are in the page only; null where it can. */
  readonly notKept: { readonly why: string; readonly only: number } | null;
  readonly clashes: readonly Clash[];
  /** Readings that were sent from here while the page is open, by their ids: who kept another one over them is asked about. */
  readonly delivered: Readonly<Record<string, ReadingDraft>>;
  readonly refusals: readonly Refusal[];
  /** What went wrong in the page itself, unforeseen: from then on it cannot be sure that everything was taken down. */
  readonly pageFault: string | null;
}

const initialState: SavingState = {
  jobs: {},
  parcels: [],
  elsewhere: [],
  sending: null,
  unreachable: false,
  away: 'server',
  failing: {},
  isRecalled: false,
  notKept: null,
  clashes: [],
  delivered: {},
  refusals: [],
  pageFault: null,
};

/** What is not among what is known already goes before it. */
function withNew<Item>(items: readonly Item[], known: readonly Item[], idOf: (item: Item) => string): readonly Item[] {
  const ids = new Set(known.map(idOf));
  return [...items.filter((item) => !ids.has(idOf(item))), ...known];
}

/** An engine as the server tells it; news that is older than what is known is none. */
function withJob(state: SavingState, job: JobView): SavingState {
  if (newerEngine(state.jobs[job.id], job) !== job) return state;
  return withKeptOver({ ...state, jobs: { ...state.jobs, [job.id]: job } }, job);
}

/** Of two who typed in one box at once the second was asked, and kept their own: the first is asked as well, with both figures. */
function withKeptOver(state: SavingState, { id: jobId, readings }: JobView): SavingState {
  const over = readings.flatMap((theirs) => {
    const ours = theirs.replaces === null ? undefined : state.delivered[theirs.replaces];
    const isOver = ours !== undefined && theirs.taken?.reason === KEPT_OVER && ours.text !== theirs.text;
    return isOver && state.delivered[theirs.id] === undefined ? [{ ours, theirs }] : [];
  });
  if (over.length === 0) return state;
  const delivered = { ...state.delivered };
  for (const { theirs } of over) delete delivered[theirs.replaces!];
  const clashes = over.map(({ ours, theirs }): Clash => ({ kind: 'reading', id: theirs.id, jobId, ours, theirs }));
  return { ...state, delivered, clashes: [...state.clashes, ...clashes] };
}

function withAway(state: SavingState, away: Away): SavingState {
  return state.unreachable && state.away === away ? state : { ...state, unreachable: true, away };
}

function without(failing: SavingState['failing'], id: string): SavingState['failing'] {
  if (!(id in failing)) return failing;
  const { [id]: _, ...others } = failing;
  return others;
}

const endpoints = Object.values(api.endpoints);
const hasAnswered = (action: unknown): action is { type: string; meta?: { baseQueryMeta?: AnswerMeta | undefined } } =>
  endpoints.some(({ matchFulfilled }) => (matchFulfilled as Matcher)(action));
const hasFailed = (action: unknown): action is { payload: AskFault | undefined } =>
  endpoints.some(({ matchRejected }) => (matchRejected as Matcher)(action));

declare module '../base/store.js' {
  interface RootState {
    readonly saving: SavingState;
  }
}

const savingSlice = createSlice({
  name: 'saving',
  initialState: initialState as SavingState,
  reducers: {
    waitingRecalled: (state, { payload }: PayloadAction<Waiting>) => ({
      ...state,
      parcels: withRecalled(payload.parcels, state.parcels, state.sending),
      clashes: withNew(payload.clashes, state.clashes, ({ id }) => id),
      refusals: withNew(payload.refusals, state.refusals, ({ parcel }) => parcel.id),
    }),
    recallDone: (state) => ({ ...state, isRecalled: true }),
    pageFailed: (state, { payload }: PayloadAction<string>) => ({ ...state, pageFault: state.pageFault ?? payload }),
    keepingFailed: (state, { payload }: PayloadAction<SavingState['notKept']>) => ({ ...state, notKept: payload }),
    /** There is room again: everything that waits is written down. */
    keepingWorks: (state) => ({ ...state, notKept: null }),
    parcelAdded: (state, { payload: parcel }: PayloadAction<Parcel>) => ({
      ...state,
      parcels: withParcel(state.parcels, parcel, state.sending),
    }),
    sendingStarted: (state, { payload }: PayloadAction<string>) => ({ ...state, sending: payload }),
    sendingFailed: (state, { payload: away }: PayloadAction<Away>) => ({
      ...state,
      sending: null,
      unreachable: true,
      away,
    }),
    /** The server failed at it: it rests for a while, and the others go on. */
    parcelRests: (state, { payload: { id, detail } }: PayloadAction<{ id: string; detail: string }>) => ({
      ...state,
      sending: null,
      failing: { ...state.failing, [id]: detail },
    }),
    elsewhereSeen: (state, { payload: elsewhere }: PayloadAction<readonly Parcel[]>) => ({ ...state, elsewhere }),
    /** What was on its way has to wait until somebody signs in. */
    sendingHeld: (state) => ({ ...state, sending: null }),
    /** What others typed here and could not send is sent by who is signed in, under their name. */
    parcelsTaken: (state, { payload: by }: PayloadAction<string>) => ({
      ...state,
      parcels: state.parcels.map((parcel) => (parcel.id === state.sending ? parcel : typedAs(parcel, by))),
    }),
    jobArrived: (state, { payload }: PayloadAction<JobView>) => withJob(state, payload),
    parcelDelivered: (state, { payload: id }: PayloadAction<string>) => {
      const parcel = state.parcels.find((other) => other.id === id);
      return {
        ...state,
        sending: null,
        unreachable: false,
        failing: without(state.failing, id),
        parcels: state.parcels.filter((other) => other.id !== id),
        ...(parcel?.kind === 'reading' ? { delivered: { ...state.delivered, [id]: parcel.draft } } : {}),
      };
    },
    readingArrived: (state, { payload: { jobId, reading } }: PayloadAction<{ jobId: string; reading: Reading }>) => {
      const job = state.jobs[jobId];
      if (!job) return state;
      return { ...state, jobs: { ...state.jobs, [jobId]: engineWithReading(job, reading) } };
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
      // One's own earlier figure was sent after all, and nobody had heard: this one corrects it.
      if (current && parcel.took?.includes(current.id)) {
        const after: Parcel = { ...parcel, draft: { ...parcel.draft, replaces: current.id } };
        return {
          ...state,
          sending: null,
          parcels: state.parcels.map((other) => (other === parcel ? after : other)),
        };
      }
      const parcels = state.parcels.filter((other) => other !== parcel);
      const job = state.jobs[parcel.jobId];
      const key = slotKey(parcel.draft);
      const others = job?.readings.filter((reading) => slotKey(reading) !== key) ?? [];
      const jobs = job
        ? { ...state.jobs, [job.id]: { ...job, readings: current ? [...others, current] : others } }
        : state.jobs;
      // Who has typed anew at the place meanwhile is asked about that figure.
      const isRetyped = parcels.some((other) => other.kind === 'reading' && other.draft.replaces === id);
      const agrees = isRetyped || current?.text === parcel.draft.text;
      const clash: Clash = { kind: 'reading', id, jobId: parcel.jobId, ours: parcel.draft, theirs: current };
      return { ...state, jobs, parcels, sending: null, clashes: agrees ? state.clashes : [...state.clashes, clash] };
    },
    parcelRefused: (state, { payload: { id, detail } }: PayloadAction<{ id: string; detail: string }>) => {
      const parcel = state.parcels.find((other) => other.id === id);
      return {
        ...state,
        sending: null,
        failing: without(state.failing, id),
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
    build.addCase(engineTold, (state, { payload }) => withJob(state, payload));
    build.addMatcher(hasAnswered, (state, { meta }) =>
      state.unreachable && !meta?.baseQueryMeta?.isKept ? { ...state, unreachable: false } : state,
    );
    build.addMatcher(serverAway.match, (state, { payload }) => withAway(state, payload));
    build.addMatcher(hasFailed, (state, { payload }) =>
      payload?.kind === 'unreachable' ? withAway(state, payload.away) : state,
    );
  },
});

export const {
  waitingRecalled,
  recallDone,
  pageFailed,
  keepingFailed,
  keepingWorks,
  parcelAdded,
  sendingStarted,
  parcelRests,
  sendingFailed,
  sendingHeld,
  elsewhereSeen,
  parcelsTaken,
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
