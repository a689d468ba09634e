import { dueOn, groupProgress, inThousandths, isSample, type JobSummary, type Stage, stageName } from '@fettle/core';
import { intlFormatDistance } from 'date-fns';
import { ArrowRight, Trash2, TriangleAlert } from 'lucide-react';
import { useEffect, useLayoutEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { useAppSelector } from '../base/store.js';
import { today } from '../base/today.js';
import { StageShape } from '../job/StageMark.js';
import { useLookedAtEvery } from '../live/useLookedAtEvery.js';
import { useThousandths } from '../person/useClearances.js';
import { Ask } from '../ui/Ask.js';
import { Button } from '../ui/Button.js';
import { Panel, Quiet, Row } from '../ui/Panel.js';
import { Sample } from '../ui/Sample.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { Offline } from './Offline.js';

const LOOK_EVERY_MS = 8000;

export const List = styled.ul`
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
`;

const Card = styled.li`
  display: grid;
  grid-template-columns: minmax(14rem, 1fr) minmax(14rem, 1fr) minmax(22rem, 1.1fr);
  @media (max-width: 900px) { grid-template-columns: minmax(0, 1fr); }
  align-items: center;
  gap: 0.5rem 1.5rem;
  padding: 0.85rem 1rem;
  background: var(--surface);
  border: var(--rule) solid var(--line);
  border-left: 6px solid var(--accent);
  border-radius: var(--radius);
  h2 { font-size: var(--size-lead); line-height: 1.2; overflow-wrap: anywhere; }
  h2 a { color: var(--ink); text-decoration: none; }
  .next { flex: 1; justify-content: flex-start; text-align: left; padding-top: 0.35rem; padding-bottom: 0.35rem; line-height: 1.25; }
  .next svg { flex: none; color: var(--accent); }
  .short { display: flex; align-items: flex-start; gap: 0.4rem; font-weight: 600; color: var(--close); margin-bottom: 0.3rem; }
  .short svg { flex: none; margin-top: 0.15rem; }
  .stages {
    display: flex; flex-wrap: wrap; gap: 0.2rem 1rem; margin: 0; padding: 0; list-style: none;
    font-size: var(--size-small); font-weight: 600; color: var(--ink-soft);
  }
  .stages li { display: inline-flex; align-items: center; gap: 0.35rem; }
`;

/** What is to become of what an engine has reserved when it is taken off the bench. */
export type OffBench = 'fitted' | 'back';

interface CardProps {
  readonly job: JobSummary;
  readonly onOff: (job: JobSummary, reserved: OffBench) => void;
}

/** Asked where the eye is, before an engine that has halves reserved goes off the bench. */
function WhatOfReserved({ job, onOff, onStay }: CardProps & { readonly onStay: () => void }) {
  const { reserved } = job.held;
  return (
    <Ask aria-label={`${job.name}: reserved shells`}>
      <p>
        <strong>{reserved === 1 ? 'One part in stock is' : `${reserved} parts in stock are`} reserved for it.</strong>{' '}
        Fitted, or back to stock?
      </p>
      <Row>
        <Button autoFocus onPress={() => onOff(job, 'fitted')}>
          Fitted: close engine
        </Button>
        <Button onPress={() => onOff(job, 'back')}>Back to stock</Button>
        <Button $kind="quiet" onPress={onStay}>
          Cancel
        </Button>
      </Row>
    </Ask>
  );
}

function EngineCard({ job, onOff }: CardProps) {
  const navigate = useNavigate();
  const [isAsked, setAsked] = useState(false);
  const { next, todo: due } = dueOn(job, today(), job.held);
  // Figures in inches only are written in thousandths: an engine in millimetres has none.
  const todo = useThousandths() ? inThousandths(due) : due;
  const groups = groupProgress(job.stages);
  return (
    <Card>
      <div>
        <h2>
          <Link to={`/engines/${job.id}/${next}`}>{job.name}</Link> <Sample id={job.id} />
        </h2>
        <Quiet>
          {job.mains} {job.mains === 1 ? 'main' : 'mains'}, {job.rods} {job.rods === 1 ? 'rod' : 'rods'},{' '}
          {job.unit === 'mm' ? 'millimetres' : 'inches'}
        </Quiet>
        <Quiet>
          Last edited {intlFormatDistance(new Date(job.updatedAt), new Date(), { locale: 'en' })} by {job.updatedBy}
        </Quiet>
      </div>
      <div>
        {job.short.length > 0 && (
          <p className="short">
            <TriangleAlert aria-hidden size={18} />
            <span>Too few in workshop stock: {job.short.join(', ')}</span>
          </p>
        )}
        <ul className="stages" aria-label={`Progress of ${job.name}`}>
          {groups.map(({ group, state, done, of }) => (
            <li key={group}>
              <StageShape state={state} />
              {group}
              {state !== 'done' && of > 1 && (
                <span className="count" role="img" aria-label={`${done} of ${of} stages done`}>
                  {done}/{of}
                </span>
              )}
            </li>
          ))}
        </ul>
        {isAsked && <WhatOfReserved job={job} onOff={onOff} onStay={() => setAsked(false)} />}
      </div>
      <Row style={{ flexWrap: 'nowrap' }}>
        <Button
          className="next"
          onPress={() => navigate(`/engines/${job.id}/${next}`, { state: { toNext: true } })}
          aria-label={`${job.name}, next: ${todo}`}
        >
          <ArrowRight aria-hidden size={20} />
          <span>Next: {todo}</span>
        </Button>
        <Button
          $kind="quiet"
          aria-label={`Close ${job.name}`}
          aria-expanded={isAsked}
          onPress={() => (job.held.reserved > 0 ? setAsked(!isAsked) : onOff(job, 'back'))}
        >
          <Trash2 aria-hidden size={20} />
        </Button>
      </Row>
    </Card>
  );
}

/** Which engines are listed. */
export interface BenchFilter {
  /** Those whose names hold these words. */
  readonly words: string;
  /** Those whose next thing to do is in this stage. */
  readonly stage: Stage | null;
  /** Those that this person has touched last. */
  readonly person: string | null;
}

interface EnginePageProps {
  /** Where the page before this one said that the list goes on; null for the first page. */
  readonly after: string | null;
  readonly filter: BenchFilter;
  readonly isLast: boolean;
  /** Shows the page after this one. */
  readonly onMore: (after: string) => void;
  readonly onOff: CardProps['onOff'];
  /** Told who has touched an engine last, whenever that is read. */
  readonly onPeople: (people: readonly string[]) => void;
  /** Told whether a sample is among the engines of this page. */
  readonly onSamples: (areThere: boolean) => void;
}

/** One page of the engines on the benches, last touched first. */
export function EnginePage({ after, filter, isLast, onMore, onOff, onPeople, onSamples }: EnginePageProps) {
  const { words, stage, person } = filter;
  const asked = {
    words,
    ...(stage === null ? {} : { stage }),
    ...(person === null ? {} : { person }),
    ...(after === null ? {} : { after }),
  };
  const { data, error } = api.useListJobsQuery(asked, useLookedAtEvery(LOOK_EVERY_MS));
  const people = data?.people;
  useEffect(() => {
    if (people) onPeople(people);
  }, [people, onPeople]);
  const areSamples = data?.jobs.some(({ id }) => isSample(id)) ?? false;
  // Before the list is painted: nothing moves when the line above it comes.
  useLayoutEffect(() => onSamples(areSamples), [areSamples, onSamples]);
  const isAway = useAppSelector((state) => state.saving.unreachable);
  if (!data) {
    const isRefused = error && 'kind' in error && error.kind !== 'unreachable';
    return isRefused ? (
      <Panel role="alert">{refusalInWords(error)}</Panel>
    ) : isAway ? (
      <Offline />
    ) : (
      <Panel aria-busy>Loading engines …</Panel>
    );
  }
  const { jobs, goesOn } = data;
  if (jobs.length === 0 && after === null) {
    return (
      <Panel>
        <p>
          {words === '' && stage === null && person === null
            ? 'No open engines. Have a data sheet ready to start one: name, mains, rods and limits.'
            : `No open engine ${[...(words === '' ? [] : [`is called “${words}”`]), ...(stage === null ? [] : [`is at ${stageName(stage)}`]), ...(person === null ? [] : [`was last edited by ${person}`])].join(' and ')}.`}
        </p>
      </Panel>
    );
  }
  return (
    <>
      {isAway && after === null && <Quiet>Offline copy.</Quiet>}
      <List aria-label={after === null ? 'Engines' : 'More engines'}>
        {jobs.map((job) => (
          <EngineCard key={job.id} job={job} onOff={onOff} />
        ))}
      </List>
      {isLast && goesOn !== null && (
        <Row style={{ justifyContent: 'center', padding: '0.75rem' }}>
          <Button onPress={() => onMore(goesOn)}>Show more engines</Button>
        </Row>
      )}
    </>
  );
}
