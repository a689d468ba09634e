import { type JobSummary, STAGES } from '@fettle/core';
import { formatDistanceToNow } from 'date-fns';
import { ArrowRight, Plus, RotateCcw, Trash2 } from 'lucide-react';
import { useCallback, useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { STAGE_WORDS, StageShape } from '../job/StageMark.js';
import { Button } from '../look/Button.js';
import { Notice } from '../look/Notice.js';
import { Panel, Quiet, Row } from '../look/Panel.js';
import { NOBODY } from '../person/personSlice.js';
import { deleteJob, fetchJobs, RefusedError, restoreJob, UnreachableError } from '../saving/api.js';
import { serverAnswered, serverLost } from '../saving/savingSlice.js';

const LOOK_EVERY_MS = 8000;

const Title = styled.h1`
  font-size: var(--size-title);
  line-height: 1.15;
`;

const List = styled.ul`
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
`;

const Card = styled.li`
  display: grid;
  grid-template-columns: minmax(14rem, 1.1fr) minmax(20rem, 1.5fr) auto;
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
  return (
    <Card>
      <div>
        <h2>
          <Link to={`/engines/${job.id}/${job.next}`}>{job.name}</Link>
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
          <span>Next: {job.todo}</span>
        </p>
        <div className="stages">
          {STAGES.flatMap((stage) => {
            const state = job.stages[stage];
            return state ? (
              <span key={stage}>
                <StageShape state={state} />
                {STAGE_WORDS[stage]}
              </span>
            ) : (
              []
            );
          })}
        </div>
      </div>
      <Row>
        <Button onPress={() => navigate(`/engines/${job.id}/${job.next}`)} aria-label={`Open ${job.name}`}>
          Open
        </Button>
        <Button $kind="quiet" aria-label={`Take ${job.name} off the bench`} onPress={() => onTrash(job)}>
          <Trash2 aria-hidden size={20} />
        </Button>
      </Row>
    </Card>
  );
}

/** Engines on the benches: how far each is and what is the next thing to do. */
export function BenchList() {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const by = useAppSelector((state) => state.person.name) || NOBODY;
  const [jobs, setJobs] = useState<readonly JobSummary[] | null>(null);
  const [deleted, setDeleted] = useState<readonly JobSummary[]>([]);
  const [fault, setFault] = useState<string | null>(null);
  const waiting = useAppSelector((state) => state.saving.parcels).filter((parcel) => parcel.kind === 'create');

  const look = useCallback(async () => {
    try {
      const [here, gone] = await Promise.all([fetchJobs(false), fetchJobs(true)]);
      setJobs(here);
      setDeleted(gone);
      dispatch(serverAnswered());
    } catch (error) {
      dispatch(serverLost(error instanceof UnreachableError && error.isDatabase));
    }
  }, [dispatch]);
  useEffect(() => {
    void look();
    const timer = setInterval(look, LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, [look]);

  const act = async (action: () => Promise<void>) => {
    setFault(null);
    try {
      await action();
    } catch (error) {
      setFault(
        error instanceof RefusedError
          ? error.problem.detail
          : 'The server cannot be reached. Nothing was changed; try again shortly.',
      );
    }
    await look();
  };

  return (
    <>
      <Row style={{ justifyContent: 'space-between' }}>
        <Title>Engines on the benches</Title>
        <span style={{ flex: 1 }} />
        <Button onPress={() => navigate('/types')}>Engine types</Button>
        <Button onPress={() => navigate('/drawer')}>Workshop drawer</Button>
        <Button onPress={() => navigate('/together')}>Fit engines together</Button>
        <Button $kind="main" onPress={() => navigate('/new')}>
          <Plus aria-hidden size={20} />
          Start an engine
        </Button>
      </Row>
      {fault && <Notice urgent>{fault}</Notice>}
      {waiting.map((parcel) => (
        <Notice key={parcel.id}>
          <Link to={`/engines/${parcel.jobId}/data`}>{parcel.document.name}</Link> is kept on this device until the
          server answers.
        </Notice>
      ))}
      {jobs === null ? (
        <Panel aria-busy>Looking up the engines …</Panel>
      ) : jobs.length === 0 ? (
        <Panel>
          <p>No engine is on a bench. Start one with its data sheet at hand: name, mains, rods and limits.</p>
        </Panel>
      ) : (
        <List aria-label="Engines">
          {jobs.map((job) => (
            <EngineCard
              key={job.id}
              job={job}
              onTrash={({ id, version }) => void act(() => deleteJob(id, version, by))}
            />
          ))}
        </List>
      )}
      {deleted.length > 0 && (
        <Panel aria-label="Taken off the bench">
          <Quiet>Taken off the bench. Everything in them is kept.</Quiet>
          <List>
            {deleted.map((job) => (
              <li key={job.id}>
                <Row>
                  <strong>{job.name}</strong>
                  <Button
                    $kind="quiet"
                    aria-label={`Bring back ${job.name}`}
                    onPress={() => void act(() => restoreJob(job.id, job.version, by))}
                  >
                    <RotateCcw aria-hidden size={18} />
                    Bring back
                  </Button>
                </Row>
              </li>
            ))}
          </List>
        </Panel>
      )}
    </>
  );
}
