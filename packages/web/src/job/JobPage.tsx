import { dueOn, type JobProgress, jobProgress, mayDo, STAGES, stageName } from '@fettle/core';
import { ArrowRight, History, Smartphone, Undo2 } from 'lucide-react';
import { memo, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Link, NavLink, Outlet, useLocation, useNavigate, useOutletContext, useParams } from 'react-router';
import styled from 'styled-components';
import { lazilyWith } from '../app/lazily.js';
import { useAppSelector } from '../app/store.js';
import { today } from '../app/today.js';
import { useAfterFrame } from '../app/useAfterFrame.js';
import { useLatest } from '../app/useLatest.js';
import { useTitle } from '../app/useTitle.js';
import { AlsoHere } from '../live/AlsoHere.js';
import { SayWhere } from '../live/SayWhere.js';
import { Button } from '../look/Button.js';
import { Notice } from '../look/Notice.js';
import { Panel } from '../look/Panel.js';
import { NEXT_THING } from './nextThing.js';
import { STAGE_STATE_WORDS, StageShape } from './StageMark.js';
import { type OpenJob, useJob, useJobLoading } from './useJob.js';
import { useUndo, useVisit } from './useUndo.js';

const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 0.4rem 1rem;
  h1 { font-size: var(--size-lead); line-height: 1.2; flex: 1 1 12rem; min-width: 0; overflow-wrap: anywhere; }
  h1 a { color: inherit; text-decoration: none; }
  h1 a:hover { text-decoration: underline; }
  .what { max-width: 18rem; overflow-wrap: anywhere; text-align: left; }
  @media (max-width: 1000px) { flex-wrap: wrap; }
  @media (max-width: 640px) { h1 { flex-basis: 100%; } }
  .past { display: inline-flex; align-items: center; gap: 0.35rem; min-height: var(--target); font-weight: 600; }
  .next { flex: none; margin-left: auto; max-width: min(36rem, 100%); text-align: left; justify-content: flex-start; }
`;

/** Places on one route, as tabs. */
export const Stages = styled.nav`
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem;
  border-bottom: 2px solid var(--line-strong);
  a {
    display: inline-flex; align-items: center; gap: 0.35rem; min-height: var(--target); padding: 0 0.55rem; font-size: 0.9375rem;
    border: var(--rule) solid transparent; border-bottom: 0; border-radius: var(--radius) var(--radius) 0 0;
    color: var(--ink); font-weight: 600; text-decoration: none;
  }
  @media (max-width: 640px) { flex-wrap: nowrap; overflow-x: auto; a { flex: none; } }
  a.active { background: var(--surface); border-color: var(--line-strong); box-shadow: 0 2px 0 var(--surface); color: var(--accent); }
`;

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

/** Where the stages do not all have room, the one in hand is brought into sight. */
function inView(strip: HTMLElement | null): void {
  const active = strip?.querySelector<HTMLElement>('a.active');
  if (strip && active) strip.scrollLeft = active.offsetLeft - (strip.clientWidth - active.clientWidth) / 2;
}

/** The stages with their states; drawn anew where one of them is another. */
const StageLinks = memo(
  ({ stages }: { readonly stages: JobProgress['stages'] }) => {
    const strip = useRef<HTMLElement>(null);
    const { pathname } = useLocation();
    // biome-ignore lint/correctness/useExhaustiveDependencies: another stage is what makes it worth looking for
    useEffect(() => inView(strip.current), [pathname]);
    return (
      <Stages className="no-print" aria-label="Stages of the work" ref={strip}>
        {STAGES.flatMap((stage) => {
          const state = stages[stage];
          return state ? [{ stage, state }] : [];
        }).map(({ stage, state }) => (
          <NavLink key={stage} to={stage} aria-label={`${stageName(stage)}, ${STAGE_STATE_WORDS[state]}`}>
            <StageShape state={state} />
            {stageName(stage)}
          </NavLink>
        ))}
      </Stages>
    );
  },
  ({ stages: one }, { stages: next }) => STAGES.every((stage) => one[stage] === next[stage]),
);

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
      <span className="what">Undo{what !== null && `: ${what}`}</span>
    </Button>
    {onBring && (
      <Button $kind="quiet" aria-pressed={isBringing} onPress={onBring}>
        <Smartphone aria-hidden size={18} />
        Open on phone
      </Button>
    )}
    <Link className="past" to="history">
      <History aria-hidden size={18} />
      History
    </Link>
    <Next todo={todo} onNext={onNext} />
  </Head>
));

/** What is to be done at an engine today. */
function dueNow(progress: JobProgress, { view }: OpenJob) {
  return dueOn(progress, today(), view?.held ?? { reserved: 0 });
}

/** One engine: its stages as places on one route, the next thing to do always named. */
export function JobPage() {
  const { id = '' } = useParams();
  const { fault } = useJobLoading(id);
  const job = useJob(id);
  useVisit(id);
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
  const { pathname } = useLocation();
  const stage = STAGES.find((one) => pathname.endsWith(`/${one}`));
  useTitle(
    job?.document.name ?? 'Engine',
    stage
      ? stageName(stage)
      : pathname.endsWith('/history')
        ? 'History'
        : pathname.endsWith('/order')
          ? 'What to order'
          : '',
  );
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
  return (
    <>
      <Top
        id={id}
        name={job.document.name}
        what={what}
        onUndo={undo === null ? null : onUndo}
        isBringing={isBringing}
        onBring={mayBring ? onBring : null}
        todo={due.todo}
        onNext={onNext}
      />
      {isBringing && mayBring && <bringDevice.View onClose={() => setBringing(false)} />}
      {isPartial && <Notice>Later changes by others were left alone.</Notice>}
      <SayWhere engine={id} stage={stage ?? null} />
      <StageLinks stages={progress.stages} />
      <Outlet context={job} />
    </>
  );
}
