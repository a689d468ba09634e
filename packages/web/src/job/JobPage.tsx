import { dueOn, type JobProgress, jobProgress, mayDo, STAGES, type Stage, stageName } from '@fettle/core';
import { ArrowRight, History, Smartphone, Undo2 } from 'lucide-react';
import { type ComponentProps, memo, useCallback, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { Link, Outlet, useLocation, useNavigate, useOutletContext, useParams } from 'react-router';
import styled from 'styled-components';
import { useShortcut } from '../base/shortcuts.js';
import { useAppSelector } from '../base/store.js';
import { today } from '../base/today.js';
import { useAfterFrame } from '../base/useAfterFrame.js';
import { useLatest } from '../base/useLatest.js';
import { useTitle } from '../base/useTitle.js';
import type { StageHelp } from '../guide/StageHelp.js';
import { AlsoHere } from '../live/AlsoHere.js';
import { lazilyWith } from '../live/lazily.js';
import { SayWhere } from '../live/SayWhere.js';
import { useClearances } from '../person/useClearances.js';
import { Button } from '../ui/Button.js';
import { isFocusFree } from '../ui/keepFocus.js';
import { Notice } from '../ui/Notice.js';
import { Panel } from '../ui/Panel.js';
import { arriveAt, NEXT_THING } from './nextThing.js';
import { StageBar } from './StageBar.js';
import { type OpenJob, useJob, useJobLoading } from './useJob.js';
import { useUndo, useUndoSteps } from './useUndo.js';

const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 0.4rem 1rem;
  h1 { font-size: var(--size-lead); line-height: 1.2; flex: 1 1 12rem; min-width: 0; overflow-wrap: anywhere; }
  h1 a { color: inherit; text-decoration: none; }
  h1 a:hover { text-decoration: underline; }
  .what { max-width: 18rem; overflow-wrap: anywhere; text-align: left; }
  @media (max-width: 1000px) { flex-wrap: wrap; }
  @media (max-width: 640px) {
    flex-wrap: nowrap; gap: 0;
    h1 { flex: 1 1 0; display: -webkit-box; -webkit-box-orient: vertical; -webkit-line-clamp: 2; overflow: hidden; font-size: 1rem; }
    .word { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); }
    button:not(.next), .past { min-width: var(--target); padding: 0; justify-content: center; border-color: transparent; }
  }
  .past { display: inline-flex; align-items: center; gap: 0.35rem; min-height: var(--target); font-weight: 600; }
  .next { flex: none; margin-left: auto; max-width: min(36rem, 100%); text-align: left; justify-content: flex-start; }
  /* On a phone it is within reach of the thumb, and takes nothing from the stage. */
  @media (max-width: 640px) {
    .next { position: fixed; z-index: 5; left: 0; right: 0; bottom: 0; max-width: none; margin: 0; border-radius: 0; min-height: 48px; }
  }
`;

/** Help stands beside a stage where there is room, else above it. */
const Beside = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.75rem;
  align-items: start;
  > div { container: stage / inline-size; min-width: 0; display: flex; flex-direction: column; gap: 0.6rem; }
  &.open { grid-template-columns: minmax(0, 1fr) 20rem; }
  @media (max-width: 1080px) { &.open { grid-template-columns: minmax(0, 1fr); > aside { order: -1; } } }
`;

const stageHelp = lazilyWith<ComponentProps<typeof StageHelp>>(
  async () => (await import('../guide/StageHelp.js')).StageHelp,
);

/** Only where there are other devices. */
const bringDevice = lazilyWith(async () => (await import('../access/BringDevice.js')).BringDevice);

/** The engine that the views below a job's address work on. */
export function useOpenJob(): OpenJob {
  return useOutletContext<OpenJob>();
}

/** Leads to the next thing to do; drawn anew where that is another. */
const Next = memo(({ todo, onNext }: { readonly todo: string; readonly onNext: () => void }) => (
  <Button id={NEXT_THING} className="next" onPress={onNext}>
    <ArrowRight aria-hidden size={20} />
    Next: {todo}
  </Button>
));

interface TopProps {
  readonly id: string;
  readonly name: string;
  /** What would be taken back. */
  readonly what: string | null;
  /** Takes it back; null where there is nothing. */
  readonly onUndo: (() => void) | null;
  readonly isBringing: boolean;
  /** Shows or hides the code for another device; null where one may not. */
  readonly onBring: (() => void) | null;
  readonly todo: string;
  /** Goes to it. */
  readonly onNext: () => void;
}

/** The engine's name, what can be taken back, and where it goes on; not drawn anew with each figure. */
const Top = memo(({ id, name, what, onUndo, isBringing, onBring, todo, onNext }: TopProps) => (
  <Head className="no-print">
    <h1>
      <Link to={`/engines/${id}`}>{name}</Link>
    </h1>
    <AlsoHere />
    <Button
      isDisabled={onUndo === null}
      aria-label={what === null ? 'Undo' : `Undo: ${what}`}
      onPress={() => onUndo?.()}
    >
      <Undo2 aria-hidden size={20} />
      <span className="what word">Undo{what !== null && `: ${what}`}</span>
    </Button>
    {onBring && (
      <Button $kind="quiet" aria-pressed={isBringing} onPress={onBring}>
        <Smartphone aria-hidden size={18} />
        <span className="word">Open on phone</span>
      </Button>
    )}
    <Link className="past" to="history">
      <History aria-hidden size={18} />
      <span className="word">History</span>
    </Link>
    <Next todo={todo} onNext={onNext} />
  </Head>
));

/** Pages of an engine that are no stage, and the stage that they belong to; without one, the stage that is next. */
const BESIDE: Readonly<Record<string, { readonly title: string; readonly stage?: Stage }>> = {
  history: { title: 'History' },
  labels: { title: 'Labels', stage: 'assembly' },
  order: { title: 'What to order', stage: 'drawer' },
  grinding: { title: 'Grinding plan', stage: 'journals' },
};

/** What is to be done at an engine today. */
function dueNow(progress: JobProgress, { view }: OpenJob) {
  return dueOn(progress, today(), view?.held ?? { reserved: 0 });
}

/** One engine: its stages as places on one route, the next thing to do always named. */
export function JobPage() {
  const { id = '' } = useParams();
  const { fault } = useJobLoading(id);
  const job = useJob(id);
  const { said } = useClearances(job?.document.unit ?? 'mm');
  useUndoSteps(id);
  const { undo, what, isPartial } = useUndo(job);
  // What is next follows a frame after the figure that leads to it.
  const { document, readings } = useAfterFrame(job) ?? { document: null, readings: [] };
  const progress = useMemo(() => document && jobProgress(document, readings), [document, readings]);
  const [isBringing, setBringing] = useState(false);
  const onBring = useCallback(() => setBringing((before) => !before), []);
  const undoing = useLatest(undo);
  const onUndo = useCallback(() => undoing.current?.(), [undoing]);
  const mayBring = useAppSelector(({ access }) => mayDo(access.session?.person?.role ?? null, 'bench'));
  const navigate = useNavigate();
  const latest = useLatest(job);
  // What the button says may be a frame behind the last figure; Enter right after that figure goes where it leads to.
  const onNext = useCallback(() => {
    const now = latest.current;
    if (!now) return;
    const { next } = dueNow(jobProgress(now.document, now.readings), now);
    navigate(next, { state: { toNext: true } });
  }, [latest, navigate]);
  const [isHelping, setHelping] = useState(false);
  const onHelp = useCallback(() => setHelping((before) => !before), []);
  useShortcut('n', 'Next thing to do', onNext);
  useShortcut('u', 'Undo', undo === null ? null : onUndo);
  useShortcut('h', 'Help for this stage', onHelp);
  const { pathname, search, state, key } = useLocation();
  const head = useRef<HTMLHeadingElement>(null);
  const isSent = (state as { toNext?: boolean } | null)?.toNext === true;
  const isLoaded = job !== null;
  // Who was sent here begins at the stage: in its first empty box, which takes the focus itself, or before its first control.
  // The focus moves before the page is shown: later it would leave a button that a key is being pressed on.
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each time somebody is sent
  useLayoutEffect(() => {
    if (!isSent || !isLoaded) return;
    if (isFocusFree() || window.document.activeElement?.id === NEXT_THING) head.current?.focus();
    arriveAt(key);
  }, [key, isLoaded]);
  const last = pathname.slice(pathname.lastIndexOf('/') + 1);
  const stage = STAGES.find((one) => one === last);
  const revision = stage === 'sheet' ? new URLSearchParams(search).get('revision') : null;
  const named = stage ? stageName(stage) : (BESIDE[last]?.title ?? '');
  const heading = revision === null ? named : `${named}, revision ${revision}`;
  useTitle(job?.document.name ?? 'Engine', heading);
  if (!job || !progress) {
    return fault ? (
      <Panel role="alert">
        {fault} <Link to="/">Back to Engines</Link>
      </Panel>
    ) : (
      <Panel aria-busy>Loading engine …</Panel>
    );
  }
  const due = dueNow(progress, job);
  const helpOf = stage ?? BESIDE[last]?.stage ?? due.next;
  return (
    <>
      <Top
        id={id}
        name={job.document.name}
        what={what}
        onUndo={undo === null ? null : onUndo}
        isBringing={isBringing}
        onBring={mayBring ? onBring : null}
        todo={said(due.todo)}
        onNext={onNext}
      />
      {isBringing && mayBring && <bringDevice.View onClose={() => setBringing(false)} />}
      {isPartial && <Notice>Later changes by others were left alone.</Notice>}
      <SayWhere engine={id} stage={stage ?? null} />
      <StageBar stages={progress.stages} stage={helpOf} isHelping={isHelping} onHelp={onHelp} />
      <Beside className={isHelping ? 'open' : ''}>
        <div>
          <h2 ref={head} tabIndex={-1} data-kept-focus="" className="visually-hidden">
            {heading}
          </h2>
          <Outlet context={job} />
        </div>
        {isHelping && <stageHelp.View stage={helpOf} onClose={onHelp} />}
      </Beside>
    </>
  );
}
