import { dueOn, type JobSummary, STAGES, stageName } from '@fettle/core';
import { formatDistanceToNow } from 'date-fns';
import { ArrowRight, Trash2 } from 'lucide-react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { today } from '../app/today.js';
import { StageShape } from '../job/StageMark.js';
import { Button } from '../look/Button.js';
import { Panel, Quiet, Row } from '../look/Panel.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { lookedAtEvery } from '../wire/polling.js';

const LOOK_EVERY_MS = 8000;

export const List = styled.ul`
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
`;

const Card = styled.li`
  display: grid;
  grid-template-columns: minmax(14rem, 1.1fr) minmax(20rem, 1.5fr) auto;
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
  .todo { display: flex; align-items: flex-start; gap: 0.5rem; font-weight: 600; }
  .todo svg { flex: none; margin-top: 0.15rem; color: var(--accent); }
  .stages { display: flex; flex-wrap: wrap; gap: 0.2rem 0.9rem; margin-top: 0.4rem; font-size: var(--size-small); color: var(--ink-soft); }
  .stages span { display: inline-flex; align-items: center; gap: 0.3rem; }
`;

interface CardProps {
  readonly job: JobSummary;
  readonly onTrash: (job: JobSummary) => void;
}

function EngineCard({ job, onTrash }: CardProps) {
  const navigate = useNavigate();
  const { next, todo } = dueOn(job, today());
  return (
    <Card>
      <div>
        <h2>
          <Link to={`/engines/${job.id}/${next}`}>{job.name}</Link>
        </h2>
        <Quiet>
          {job.mains} mains, {job.rods} rods, {job.unit === 'mm' ? 'millimetres' : 'inches'}
        </Quiet>
        <Quiet>
          Last touched {formatDistanceToNow(new Date(job.updatedAt), { addSuffix: true })} by {job.updatedBy}
        </Quiet>
      </div>
      <div>
        <p className="todo">
          <ArrowRight aria-hidden size={20} />
          <span>Next: {todo}</span>
        </p>
        <div className="stages">
          {STAGES.flatMap((stage) => {
            const state = job.stages[stage];
            return state ? (
              <span key={stage}>
                <StageShape state={state} />
                {stageName(stage)}
              </span>
            ) : (
              []
            );
          })}
        </div>
      </div>
      <Row>
        <Button onPress={() => navigate(`/engines/${job.id}/${next}`)} aria-label={`Open ${job.name}`}>
          Open
        </Button>
        <Button $kind="quiet" aria-label={`Take ${job.name} off the bench`} onPress={() => onTrash(job)}>
          <Trash2 aria-hidden size={20} />
        </Button>
      </Row>
    </Card>
  );
}

interface EnginePageProps {
  /** Where the page before this one said that the list goes on; null for the first page. */
  readonly after: string | null;
  /** Only engines whose names hold these words. */
  readonly words: string;
  readonly isLast: boolean;
  /** Shows the page after this one. */
  readonly onMore: (after: string) => void;
  readonly onTrash: (job: JobSummary) => void;
}

/** One page of the engines on the benches, last touched first. */
export function EnginePage({ after, words, isLast, onMore, onTrash }: EnginePageProps) {
  const asked = { words, ...(after === null ? {} : { after }) };
  const { data, error } = api.useListJobsQuery(asked, lookedAtEvery(LOOK_EVERY_MS));
  if (!data) {
    const isRefused = error && 'kind' in error && error.kind !== 'unreachable';
    return isRefused ? (
      <Panel role="alert">{refusalInWords(error)}</Panel>
    ) : (
      <Panel aria-busy>Looking up the engines …</Panel>
    );
  }
  const { jobs, goesOn } = data;
  if (jobs.length === 0 && after === null) {
    return (
      <Panel>
        <p>
          {words === ''
            ? 'No engine is on a bench. Start one with its data sheet at hand: name, mains, rods and limits.'
            : `No engine on a bench is called “${words}”.`}
        </p>
      </Panel>
    );
  }
  return (
    <>
      <List aria-label={after === null ? 'Engines' : 'More engines'}>
        {jobs.map((job) => (
          <EngineCard key={job.id} job={job} onTrash={onTrash} />
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
