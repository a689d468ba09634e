import { type JobsShimPlan, type JobView, lengthOfNumber, lengthText, type PieceLine } from '@fettle/core';
import { Check } from 'lucide-react';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../ui/Panel.js';
import { WideTable } from '../ui/WideTable.js';
import { type PiecesTogether, useTogetherPieces } from './useTogetherPieces.js';

interface TogetherPiecesProps {
  readonly engines: readonly JobView[];
  readonly shelf: readonly PieceLine[];
  /** Looks the engines up again. */
  readonly onAccepted: () => Promise<void>;
}

interface PlannedProps {
  readonly plan: JobsShimPlan;
  readonly together: PiecesTogether;
}

/** What a plan cannot do, and what would let it. */
function PlanNotices({ plan, together: { asked, nameOf } }: PlannedProps) {
  return (
    <>
      {plan.status === 'feasible' && <Notice>Best found so far; not proven best in the time allowed.</Notice>}
      {plan.alone.length > 0 && (
        <Notice>No free piece fits {plan.alone.map(nameOf).join(', ')}: open the engine for its options.</Notice>
      )}
      {plan.status === 'infeasible' && plan.alone.length < asked.length && (
        <Notice>
          {`Not enough stock. Leave out one of ${plan.competing.map(nameOf).join(', ')}.`}
          {!plan.isOneEnough && ' More than one engine may have to be left out.'}
        </Notice>
      )}
    </>
  );
}

/** Each engine with the pieces of the plan, and the end play they give it. */
function PlanTable({ plan, together: { asked, leaveOut } }: PlannedProps) {
  return (
    <WideTable>
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
          {asked.map(({ id, name, unit }) => {
            const choice = plan.choices.get(id);
            return (
              <tr key={id}>
                <td>{name}</td>
                <td>
                  {choice?.chosen.map(({ id: piece, count }) => (count > 1 ? `${count} × ${piece}` : piece)).join(', ')}
                </td>
                <td className="number">{choice && lengthText(lengthOfNumber(choice.result, unit), unit)}</td>
                <td>
                  <Button $kind="quiet" aria-label={`Leave out ${name}`} onPress={() => leaveOut(id)}>
                    Leave out
                  </Button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </Table>
    </WideTable>
  );
}

/** The end play of several engines set from one shelf, so that washers and rings go where they serve best. */
export function TogetherPieces({ engines, shelf, onAccepted }: TogetherPiecesProps) {
  const together = useTogetherPieces(engines, shelf, onAccepted);
  const { asked, plan, served, price, areSomeLeftOut, accepted, fault } = together;
  if (asked.length === 0 && !areSomeLeftOut) return accepted && <Panel role="status">{accepted}</Panel>;
  return (
    <Panel aria-label="End play of several engines">
      <PanelTitle>End play of several engines</PanelTitle>
      <Quiet>Engines with measured end play that use workshop washers or rings: one plan at least total cost.</Quiet>
      {accepted && <p role="status">{accepted}</p>}
      {fault && <Notice urgent>{fault}</Notice>}
      {plan && (
        <>
          <PlanNotices plan={plan} together={together} />
          <PlanTable plan={plan} together={together} />
          <Row style={{ marginTop: '0.5rem' }}>
            <Button isDisabled={served === 0} onPress={() => void together.accept()}>
              <Check aria-hidden size={20} />
              Accept for {served === 1 ? 'one engine' : `${served} engines`}
            </Button>
            {areSomeLeftOut && <Button onPress={together.includeAll}>Include all again</Button>}
            {price !== null && price > 0 && <Quiet>Pieces worth {price.toFixed(2)} leave stock.</Quiet>}
          </Row>
        </>
      )}
    </Panel>
  );
}
