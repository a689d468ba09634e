import {
  acceptedForJobs,
  type JobsShimPlan,
  type JobView,
  jobsPieces,
  lengthOfNumber,
  lengthText,
  type PieceLine,
} from '@fettle/core';
import { Check } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useAppDispatch } from '../base/store.js';
import { resultOf } from '../fit/fitSearch.js';
import { useAsked } from '../fit/useAsked.js';
import { useBy } from '../person/useBy.js';
import { jobArrived } from '../saving/savingSlice.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../ui/Panel.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';

interface TogetherPiecesProps {
  readonly engines: readonly JobView[];
  readonly shelf: readonly PieceLine[];
  /** Looks the engines up again. */
  readonly onAccepted: () => Promise<void>;
}

function said(chosen: JobsShimPlan['choices'] extends ReadonlyMap<string, infer Choice> ? Choice : never): string {
  return chosen.chosen.map(({ id, count }) => (count > 1 ? `${count} × ${id}` : id)).join(', ');
}

/** What the pieces of a plan cost, where all of them have a price; null where one has none. */
function priceOf(
  plan: JobsShimPlan,
  lines: ReadonlyMap<string, ReadonlyMap<string, string>>,
  shelf: readonly PieceLine[],
) {
  let sum = 0;
  for (const [job, { chosen }] of plan.choices) {
    for (const { id, count } of chosen) {
      const line = lines.get(job)?.get(id);
      if (line === undefined) continue;
      const price = shelf.find((one) => one.id === line)?.piece.price ?? null;
      if (price === null) return null;
      sum += count * price;
    }
  }
  return sum;
}

/** The end play of several engines set from one shelf, so that washers and rings go where they serve best. */
export function TogetherPieces({ engines, shelf, onAccepted }: TogetherPiecesProps) {
  const dispatch = useAppDispatch();
  const by = useBy();
  const [told, setTold] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const joint = useMemo(
    () =>
      jobsPieces(
        engines.filter(({ id }) => !left.has(id)),
        shelf,
      ),
    [engines, shelf, left],
  );
  const text = joint.engines.length === 0 ? null : JSON.stringify(joint.question);
  const question = useMemo(() => (text === null ? null : (JSON.parse(text) as typeof joint.question)), [text]);
  const { result: plan, fault: searchFault } = useAsked(question, async (search) =>
    resultOf(await search.jobsShims(question!)),
  );
  if (joint.engines.length === 0 && left.size === 0) return told === null ? null : <Panel role="status">{told}</Panel>;
  const name = (key: string) => joint.engines.find(({ job }) => job.id === key)?.job.document.name ?? key;
  const lines = new Map(joint.engines.map(({ job, lines: own }) => [job.id, new Map(own)]));
  const price = plan && priceOf(plan, lines, shelf);
  const served = joint.engines.filter(({ job }) => plan?.choices.has(job.id));
  const accept = async () => {
    if (!plan || plan.cost === null) return;
    setFault(null);
    const at = new Date().toISOString();
    const jobs = served.map((one) => ({
      id: one.job.id,
      version: engines.find(({ id }) => id === one.job.id)!.version,
      endPlay: acceptedForJobs(one, plan.choices.get(one.job.id)!, { at, by }),
    }));
    try {
      for (const view of await tell('acceptTogether', { body: { by, jobs } })) dispatch(jobArrived(view));
      setTold(
        `Washers and shims of ${jobs.length === 1 ? 'one engine' : `${jobs.length} engines`} accepted and reserved.`,
      );
    } catch (error) {
      setFault(`${refusalInWords(error)} Nothing was accepted.`);
    }
    await onAccepted();
  };
  return (
    <Panel aria-label="End play of several engines">
      <PanelTitle>End play of several engines</PanelTitle>
      <Quiet>Engines with measured end play that use workshop washers or rings: one plan at least total cost.</Quiet>
      {told && <p role="status">{told}</p>}
      {(fault ?? searchFault) && <Notice urgent>{fault ?? searchFault}</Notice>}
      {plan?.status === 'feasible' && <Notice>Best found so far; not proven best in the time allowed.</Notice>}
      {plan && plan.alone.length > 0 && (
        <Notice>No free piece fits {plan.alone.map(name).join(', ')}: open the engine for its options.</Notice>
      )}
      {plan?.status === 'infeasible' && plan.alone.length < joint.engines.length && (
        <Notice>
          {`Not enough stock. Leave out one of ${plan.competing.map(name).join(', ')}.`}
          {!plan.isOneEnough && ' More than one engine may have to be left out.'}
        </Notice>
      )}
      {plan && (
        <>
          <div style={{ position: 'relative', overflowX: 'auto' }}>
            <Table aria-label="End play of each engine">
              <thead>
                <tr>
                  <th>Engine</th>
                  <th>Washers and shims</th>
                  <th className="number">Gives</th>
                  <th>
                    <span className="visually-hidden">Leave out</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {joint.engines.map(({ job }) => {
                  const choice = plan.choices.get(job.id);
                  const { unit } = job.document;
                  return (
                    <tr key={job.id}>
                      <td>{job.document.name}</td>
                      <td>{choice ? said(choice) : ''}</td>
                      <td className="number">{choice ? lengthText(lengthOfNumber(choice.result, unit), unit) : ''}</td>
                      <td>
                        <Button
                          $kind="quiet"
                          aria-label={`Leave out ${job.document.name}`}
                          onPress={() => setLeft(new Set([...left, job.id]))}
                        >
                          Leave out
                        </Button>
                      </td>
                    </tr>
                  );
                })}
              </tbody>
            </Table>
          </div>
          <Row style={{ marginTop: '0.5rem' }}>
            <Button isDisabled={served.length === 0} onPress={() => void accept()}>
              <Check aria-hidden size={20} />
              Accept for {served.length === 1 ? 'one engine' : `${served.length} engines`}
            </Button>
            {left.size > 0 && <Button onPress={() => setLeft(new Set())}>Include all again</Button>}
            {price !== null && price > 0 && <Quiet>Pieces worth {price.toFixed(2)} leave stock.</Quiet>}
          </Row>
        </>
      )}
    </Panel>
  );
}
