import {
  drawerLabel,
  type FitPlan,
  type FitProgress,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  type JobView,
  type JointFit,
  type JointLeftOut,
  jointChoices,
  jointFit,
  type Nanometres,
} from '@fettle/core';
import { proxy } from 'comlink';
import { Check } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { FitSearcher, resultOf } from '../choose/fitSearch.js';
import { Button } from '../look/Button.js';
import { Notice } from '../look/Notice.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../look/Panel.js';
import { NOBODY } from '../person/personSlice.js';
import { acceptTogether, fetchJob, fetchJobs, RefusedError } from '../saving/api.js';
import { jobArrived } from '../saving/savingSlice.js';
import { useDrawer } from './useDrawer.js';

const LEFT_OUT: Readonly<Record<JointLeftOut['reason'], string>> = {
  'nothing-to-choose': 'nothing measured yet, or no clearance limits',
  'not-on-the-drawer': 'does not draw on the workshop drawer',
  'other-rules': 'its rules of choice differ from those of the first engine',
  'other-unit': 'it is measured in another unit than the first engine',
};

const Engines = styled.ul`
  list-style: none;
  margin: 0.5rem 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(20rem, 1fr));
  gap: 0.25rem 1rem;
  label { display: flex; align-items: center; gap: 0.6rem; min-height: var(--target); font-weight: 600; cursor: pointer; }
  input { flex: none; width: 1.4rem; height: 1.4rem; accent-color: var(--accent); }
  small { color: var(--ink-soft); font-weight: 400; }
`;

const Bar = styled.div`
  height: 0.6rem;
  border-radius: 0.3rem;
  background: var(--sunken);
  overflow: hidden;
  > div { height: 100%; background: var(--accent); }
`;

const DOING: Readonly<Record<FitProgress['doing'], string>> = {
  'pricing halves': 'Pricing the halves between the engines',
  combining: 'Combining what is best for each engine',
  proving: 'Proving that nothing is cheaper',
  searching: 'Searching',
};
const STEPS = Object.keys(DOING) as FitProgress['doing'][];

/** A search that is told to go on has so long, seconds. */
const GO_ON_S = 300;

type Work =
  | { readonly state: 'idle' }
  | { readonly state: 'working'; readonly progress: FitProgress | null }
  | { readonly state: 'done'; readonly joint: JointFit; readonly plan: FitPlan }
  | { readonly state: 'cancelled' }
  | { readonly state: 'accepted'; readonly count: number }
  | { readonly state: 'failed'; readonly detail: string };

/** Plans several engines at once on the workshop's drawer, so that the halves go where they serve best. */
export function TogetherView() {
  const dispatch = useAppDispatch();
  const by = useAppSelector((state) => state.person.name) || NOBODY;
  const { lines, act, fault } = useDrawer();
  const [engines, setEngines] = useState<readonly JobView[] | null>(null);
  const [loading, setLoading] = useState<string | null>(null);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [work, setWork] = useState<Work>({ state: 'idle' });
  const searcher = useRef(new FitSearcher());
  const load = async () => {
    const jobs = await fetchJobs(false);
    const views = await Promise.all(jobs.map(({ id }) => fetchJob(id, null)));
    setEngines(views.flatMap((view) => view ?? []));
  };
  const loadNow = useRef(load);
  useEffect(() => {
    loadNow.current().catch((error: Error) => setLoading(error.message));
    const { current } = searcher;
    current.start();
    return () => current.end();
  }, []);

  const joint = useMemo(
    () =>
      engines && lines
        ? jointFit(
            engines.filter(({ id }) => !left.has(id)),
            lines,
          )
        : null,
    [engines, lines, left],
  );
  const sharing = (engines ?? []).filter(({ document }) =>
    Object.values(document.shells).some(({ line }) => line !== null),
  );

  const fitThem = (seconds?: number) => {
    if (!joint?.request) return;
    setWork({ state: 'working', progress: null });
    const { request } = joint;
    const listen = proxy((progress: FitProgress) =>
      setWork((old) => (old.state === 'working' ? { state: 'working', progress } : old)),
    );
    searcher.current
      .ask(async (search) => resultOf(await search.solve(request, listen, seconds)))
      .then((plan) => setWork({ state: 'done', joint, plan }))
      .catch((error: Error) => setWork({ state: 'failed', detail: error.message }));
  };
  const cancel = () => {
    searcher.current.stop();
    setWork({ state: 'cancelled' });
  };
  const accept = (chosen: JointFit, plan: FitPlan) => {
    const at = new Date().toISOString();
    const jobs = jointChoices(chosen, plan).map(({ job, stations }) => ({
      id: job.id,
      version: engines!.find(({ id }) => id === job.id)!.version,
      choice: { at, by, stations },
    }));
    void act(async () => {
      try {
        for (const view of await acceptTogether(by, jobs)) dispatch(jobArrived(view));
        setWork({ state: 'accepted', count: jobs.length });
      } catch (error) {
        if (!(error instanceof RefusedError)) throw error;
        setWork({ state: 'failed', detail: `${error.problem.detail} Nothing was accepted; fit them together again.` });
      }
      await load();
    });
  };
  return (
    <>
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle as="h1">Fit engines together</PanelTitle>
        <Link to="/drawer">Open the workshop drawer</Link>
      </Row>
      {(fault ?? loading) && <Notice urgent>{fault ?? loading}</Notice>}
      <Panel>
        <Quiet>
          One plan for all of them at least cost in all. What they have reserved themselves is shared out anew; what
          other engines have reserved stays theirs.
        </Quiet>
        {engines === null || lines === null ? (
          <p aria-busy>Looking up the engines …</p>
        ) : sharing.length === 0 ? (
          <p>No engine draws on the workshop drawer yet. Open an engine’s drawer and let it draw on a series.</p>
        ) : (
          <>
            <Engines aria-label="Engines that draw on the workshop drawer">
              {sharing.map(({ id, document }) => {
                const out = joint?.leftOut.find(({ job }) => job === id);
                return (
                  <li key={id}>
                    <label>
                      <input
                        type="checkbox"
                        checked={!left.has(id)}
                        onChange={(event) => {
                          const next = new Set(left);
                          if (event.target.checked) next.delete(id);
                          else next.add(id);
                          setLeft(next);
                          setWork({ state: 'idle' });
                        }}
                      />
                      <span>
                        {document.name}{' '}
                        <small>{out ? LEFT_OUT[out.reason] : document.choice ? 'has a choice' : ''}</small>
                      </span>
                    </label>
                  </li>
                );
              })}
            </Engines>
            <Row>
              {work.state === 'working' ? (
                <Button onPress={cancel}>Cancel</Button>
              ) : (
                <Button $kind="main" isDisabled={!joint?.request} onPress={() => fitThem()}>
                  Fit these {joint?.jobs.length ?? 0} engines together
                </Button>
              )}
            </Row>
          </>
        )}
      </Panel>
      {work.state === 'working' && (
        <Panel aria-label="Progress" aria-busy>
          <p>{work.progress ? DOING[work.progress.doing] : 'Starting'} …</p>
          <Bar
            role="progressbar"
            aria-label="How far the search is"
            aria-valuemin={0}
            aria-valuemax={STEPS.length}
            aria-valuenow={work.progress ? STEPS.indexOf(work.progress.doing) + 1 : 0}
          >
            <div
              style={{
                width: `${(100 * (work.progress ? STEPS.indexOf(work.progress.doing) + 1 : 0)) / STEPS.length}%`,
              }}
            />
          </Bar>
          {work.progress?.bound != null && (
            <Quiet>No plan can cost less than {work.progress.bound.toFixed(1)} µm².</Quiet>
          )}
        </Panel>
      )}
      {work.state === 'cancelled' && <Notice>The search was cancelled. Nothing was changed.</Notice>}
      {work.state === 'failed' && <Notice urgent>{work.detail}</Notice>}
      {work.state === 'accepted' && (
        <Panel role="status">
          <Check aria-hidden size={20} /> The choices of {work.count} engines are accepted; their halves are reserved.{' '}
          <Link to="/">To the benches</Link>
        </Panel>
      )}
      {work.state === 'done' && (
        <Outcome
          joint={work.joint}
          plan={work.plan}
          lines={lines ?? []}
          onAccept={() => accept(work.joint, work.plan)}
          onGoOn={() => fitThem(GO_ON_S)}
        />
      )}
    </>
  );
}

function Outcome({
  joint,
  plan,
  lines,
  onAccept,
  onGoOn,
}: {
  joint: JointFit;
  plan: FitPlan;
  lines: Parameters<typeof drawerLabel>[0];
  onAccept: () => void;
  onGoOn: () => void;
}) {
  const { unit } = plan;
  const named = (text: string) => lines.reduce((said, { id }) => said.replaceAll(id, drawerLabel(lines, id)), text);
  if (plan.status === 'stopped') {
    return (
      <Notice>
        <div>
          <strong>No answer in the time there was</strong>: neither a plan that fits nor a proof that there is none. The
          best bound so far: no plan can cost less than {plan.bound?.toFixed(1)} µm².{' '}
          <Button onPress={onGoOn}>Go on for 5 min</Button>
        </div>
      </Notice>
    );
  }
  if (plan.cost === null) {
    return plan.conflicts.map((conflict) => (
      <Notice key={conflict.message}>
        <div>
          <p>
            <strong>{named(conflict.message)}</strong>{' '}
            {(conflict.remedies ?? []).length === 0 && named(conflict.remedy)}
          </p>
          <ul>
            {(conflict.remedies ?? []).map((remedy) => (
              <li key={remedy.message}>{named(remedy.message)}</li>
            ))}
          </ul>
        </div>
      </Notice>
    ));
  }
  const choices = jointChoices(joint, plan);
  return (
    <Panel aria-label="The plan for all">
      <Row style={{ justifyContent: 'space-between' }}>
        <p>
          <strong>
            {choices.length} engines, {plan.stations.length} stations,{' '}
            {plan.status === 'optimal'
              ? 'proven'
              : `within ${((1 - plan.bound! / plan.cost) * 100).toFixed(2)} % of the best`}
            .
          </strong>{' '}
          Cost in all <span className="figure">{plan.cost.toFixed(1)}</span> µm².
        </p>
        <Button $kind="main" onPress={onAccept}>
          <Check aria-hidden size={20} />
          Accept for all {choices.length}
        </Button>
      </Row>
      <Table>
        <thead>
          <tr>
            <th>Engine</th>
            <th className="number">Spread, {unit}</th>
            <th>Halves, upper over lower</th>
          </tr>
        </thead>
        <tbody>
          {choices.map(({ job, stations, spread }) => (
            <tr key={job.id}>
              <td>
                <Link to={`/engines/${job.id}/choose`}>{job.document.name}</Link>
              </td>
              <td className="number">
                {spread === null ? '·' : formatExactLength(spread as Nanometres, unit, INSTRUMENT_DECIMALS[unit])}
              </td>
              <td>
                {Object.entries(stations)
                  .map(([id, { upper, lower }]) => {
                    const grade = (shell: string) => job.document.shells[shell]?.grade ?? shell;
                    const [above, below] = [grade(upper.shell), grade(lower.shell)];
                    return `${id} ${above === below ? above : `${above} / ${below}`}`;
                  })
                  .join(', ')}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      {(plan.prices ?? []).length > 0 && (
        <Quiet>
          Where stock is short:{' '}
          {[...plan.prices!]
            .sort((a, b) => b.price - a.price)
            .slice(0, 4)
            .map(({ id, price }) => `one more ${drawerLabel(lines, id)} would save ${price.toFixed(1)} µm²`)
            .join('; ')}
          .
        </Quiet>
      )}
    </Panel>
  );
}
