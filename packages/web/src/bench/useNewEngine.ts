import {
  type CrankLayout,
  codedFeatures,
  familiesOf,
  type JobDocument,
  jobDocumentSchema,
  jobOfType,
  type KnownBuild,
  LIMIT_KEYS,
  type LimitKey,
  limitsNeeded,
  type Material,
  newJob,
  nextBuild,
  shellsOfSheet,
} from '@fettle/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { type Control, useForm, useWatch } from 'react-hook-form';
import { useNavigate, useSearchParams } from 'react-router';
import { newId } from '../base/newId.js';
import { useAppDispatch, useAppSelector } from '../base/store.js';
import { useSettled } from '../base/useSettled.js';
import { layoutOfText } from '../engineType/layoutText.js';
import { type Library, useLibrary } from '../engineType/useLibrary.js';
import { EMPTY_LIMIT, type LimitText, readLimit } from '../limits/limitText.js';
import { NOBODY, personNamed } from '../person/personSlice.js';
import { parcelAdded } from '../saving/savingSlice.js';
import { noteDone, notedText, noteText } from '../ui/typingNotes.js';
import { api } from '../wire/api.js';
import { ask, faultInWords } from '../wire/ask.js';

export interface EngineForm {
  /** Engine type of the library whose sheet it copies; empty for none. */
  type: string;
  name: string;
  /** Serial number on the engine; empty: not given. */
  serial: string;
  /** The build that it goes on from, by its id; empty: none, `last`: the last one signed. */
  from: string;
  unit: 'mm' | 'in';
  mains: string;
  rods: string;
  rodsPerPin: '1' | '2';
  withRods: 'yes' | 'no';
  thrustMain: string;
  block: Material;
  caps: Material;
  rodMaterial: Material;
  limits: Record<LimitKey, LimitText>;
  /** The fitter's name, asked for where this device has none yet. */
  fitter: string;
}

const BLANK: EngineForm = {
  type: '',
  name: '',
  serial: '',
  from: 'last',
  unit: 'mm',
  mains: '5',
  rods: '4',
  rodsPerPin: '1',
  thrustMain: '',
  block: 'unknown',
  caps: 'unknown',
  rodMaterial: 'unknown',
  withRods: 'yes',
  fitter: '',
  limits: Object.fromEntries(LIMIT_KEYS.map((key) => [key, EMPTY_LIMIT])) as Record<LimitKey, LimitText>,
};
/** After so long without a key a serial number is looked up, ms. */
const SERIAL_AFTER_MS = 300;
const DRAFT_KEY = 'fettle.draft.new-engine';

function keptDraft(): EngineForm {
  const kept = notedText(DRAFT_KEY);
  if (kept === null) return BLANK;
  const draft = JSON.parse(kept) as Partial<EngineForm>;
  return { ...BLANK, ...draft, limits: { ...BLANK.limits, ...draft.limits } };
}

type ReadLimits = Readonly<Partial<Record<LimitKey, ReturnType<typeof readLimit>>>>;

/** The document that a filled form starts, or null while it says too little. */
export function documentOfForm(
  form: EngineForm,
  view: Library['view'],
  layout: CrankLayout | null,
  limits: ReadLimits,
): JobDocument | null {
  const withRods = form.withRods === 'yes';
  const name = form.name.trim();
  const serial = form.serial.trim();
  if (name === '') return null;
  if (form.type !== '') {
    if (!view) return null;
    const job = jobOfType(name, view.type, { type: view.id, revision: view.revision }, withRods);
    const families = familiesOf({ withRods });
    const shells = families.flatMap((family) => shellsOfSheet(view.type, family, null));
    return { ...job, serial, shells: Object.fromEntries(shells.map((shell) => [newId(), shell])) };
  }
  if (!layout) return null;
  const materials: JobDocument['materials'] = { block: form.block, caps: form.caps, rods: form.rodMaterial };
  const job = newJob(name, form.unit, layout, materials, withRods);
  const typed = Object.fromEntries(Object.entries(limits).map(([key, { limit }]) => [key, limit]));
  return jobDocumentSchema.parse({ ...job, serial, limits: { ...job.limits, ...typed } });
}

/** The build that a new engine goes on from: the one that was chosen, or the last one signed of its serial number. */
export function buildOfForm({ from }: Pick<EngineForm, 'from'>, builds: readonly KnownBuild[]): KnownBuild | null {
  if (from === 'last') return builds.find(({ signed }) => signed !== null) ?? null;
  return builds.find(({ id }) => id === from) ?? null;
}

export interface NewEngineForm {
  /** Builds of the engine with the serial number that was typed, the latest first. */
  readonly builds: readonly KnownBuild[];
  /** The one that it goes on from; null: it starts from a data sheet. */
  readonly build: KnownBuild | null;
  /** True while that build is fetched. */
  readonly isFetching: boolean;
  /** Why that build cannot be fetched; null where it can. */
  readonly buildFault: string | null;
  readonly control: Control<EngineForm>;
  readonly form: EngineForm;
  readonly library: Library;
  /** True if the sheet is typed here, not copied from the library. */
  readonly isTyped: boolean;
  readonly layout: CrankLayout | null;
  readonly faults: ReturnType<typeof layoutOfText>['faults'];
  /** The limits that it needs, in the order of the sheet. */
  readonly keys: readonly LimitKey[];
  readonly limits: ReadLimits;
  /** Proposes as many rods as the bays between the mains take, where another number of them cannot be. */
  readonly proposeRods: (rodsPerPin: '1' | '2') => void;
  readonly setLimit: (key: LimitKey, text: LimitText) => void;
  readonly nameFault: string | null;
  /** True if it was tried to start it: then each box says what it wants. */
  readonly isTried: boolean;
  readonly isReady: boolean;
  /** True if nobody has given a name on this device yet: it is asked for once, here. */
  readonly isNameAsked: boolean;
  readonly submit: () => void;
}

/** The form that starts an engine, kept on this device until it is on the bench. */
export function useNewEngine(): NewEngineForm {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const named = useAppSelector((state) => state.person.name);
  const isSignedIn = useAppSelector((state) => state.access.isOn === true);
  const [query] = useSearchParams();
  const asked = query.get('type');
  // Whoever comes from a type starts an engine of it, with what else was typed here before.
  const startsFrom = useMemo(() => ({ ...keptDraft(), ...(asked === null ? {} : { type: asked }) }), [asked]);
  const { control, handleSubmit, setValue } = useForm<EngineForm>({ defaultValues: startsFrom });
  const form = useWatch({ control }) as EngineForm;
  const [isTried, setTried] = useState(false);
  const isStarted = useRef(false);
  useEffect(() => {
    if (!isStarted.current) noteText(DRAFT_KEY, JSON.stringify(form));
  }, [form]);
  const library = useLibrary(form.type);
  const serial = useSettled(form.serial.trim(), SERIAL_AFTER_MS);
  const { currentData, isError } = api.useListBuildsQuery({ serial }, { skip: serial === '' });
  const isLookedUp = serial === form.serial.trim() && (serial === '' || currentData !== undefined || isError);
  const builds = serial === form.serial.trim() ? (currentData?.builds ?? []) : [];
  const build = buildOfForm(form, builds);
  const [fetched, setFetched] = useState<{ busy: boolean; fault: string | null }>({ busy: false, fault: null });
  const isTyped = form.type === '' && build === null;
  const { layout, faults } = layoutOfText(form);
  const keys = limitsNeeded({ withRods: form.withRods === 'yes' });
  const limits: ReadLimits = Object.fromEntries(keys.map((key) => [key, readLimit(form.limits[key], form.unit)]));
  const nameFault = form.name.trim() === '' ? 'Give the engine a name, with its number if it has one.' : null;
  const isRead = Object.values(limits).every((one) => Object.keys(one.faults).length === 0);
  const isReady =
    nameFault === null && (build !== null || (isTyped ? layout !== null && isRead : library.view !== null));
  const isNameAsked = !isSignedIn && named === '';
  const ofBuild = async ({ id, signed }: KnownBuild): Promise<JobDocument | null> => {
    setFetched({ busy: true, fault: null });
    const result = await ask('getJob', { id }, null);
    const fault = result.ok ? null : faultInWords(result.fault);
    setFetched({ busy: false, fault });
    if (!result.ok || 'isUnchanged' in result) return null;
    const { document, readings } = result.value;
    return nextBuild({ ...document, serial: form.serial.trim() }, readings, { id, signed }, form.name.trim(), newId);
  };
  const start = async () => {
    setTried(true);
    if (!isReady) return;
    // Whoever is quicker than the look for earlier builds sees them first, and chooses.
    if (!isLookedUp && form.from === 'last') {
      const looked = await ask('listBuilds', { serial: form.serial.trim() }, null);
      if (looked.ok && !('isUnchanged' in looked) && looked.value.builds.length > 0) return;
    }
    const document = build ? await ofBuild(build) : documentOfForm(form, library.view, layout, limits);
    if (!document) return;
    const jobId = newId();
    const fitter = form.fitter.trim();
    if (isNameAsked && fitter !== '') dispatch(personNamed(fitter));
    const by = (isNameAsked ? fitter : named) || NOBODY;
    dispatch(parcelAdded({ kind: 'create', id: newId(), jobId, by, document }));
    isStarted.current = true;
    noteDone(DRAFT_KEY);
    const first = build ? 'cameApart' : codedFeatures(document).length > 0 ? 'codes' : 'bores';
    void navigate(`/engines/${jobId}/${first}`, {
      state: { toNext: true },
    });
  };
  const submit = handleSubmit(start, start);
  return {
    builds,
    build,
    isFetching: fetched.busy,
    buildFault: fetched.fault,
    control,
    form,
    library,
    isTyped,
    layout,
    faults,
    keys,
    limits,
    proposeRods: (rodsPerPin) => {
      const mains = Number(form.mains);
      if (layoutOfText({ ...form, rodsPerPin }).layout !== null || !(mains >= 1)) return;
      setValue('rods', String(Math.max(1, mains - 1) * Number(rodsPerPin)));
    },
    setLimit: (key, text) => setValue(`limits.${key}`, text),
    nameFault,
    isTried,
    isReady,
    isNameAsked,
    submit: () => void submit(),
  };
}
