import {
  CLEARANCE_DECIMALS,
  FAMILY_TABLE,
  type FitProblem,
  type FitSolution,
  formatLength,
  halvesToOrder,
  type JobDocument,
  type JobFit,
  numberOfLength,
  type PlanVariants,
  spreadMainsText,
  type Unit,
  workedOutText,
} from '@fettle/core';
import { ClipboardCopy, Download } from 'lucide-react';
import { type ReactNode, useMemo, useState } from 'react';
import styled from 'styled-components';
import { meanOffText } from '../fit/meanOff.js';
import { useAsked } from '../fit/useAsked.js';
import { useClearances } from '../person/useClearances.js';
import { CSV_TYPE, saveAs } from '../saving/saveAs.js';
import { csvOf } from '../spreadsheet/spreadsheet.js';
import { Button } from '../ui/Button.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../ui/Panel.js';

const WORDS: Readonly<Record<keyof PlanVariants, { name: string; meaning: string }>> = {
  onHand: { name: 'On hand', meaning: 'stock as counted' },
  orderable: { name: 'Anything ordered', meaning: 'unlimited stock' },
  unmixed: { name: 'Not mixed', meaning: 'on hand, equal walls in every station' },
  evenest: { name: 'Most even', meaning: 'on hand, least spread along the shaft' },
};
const KINDS = Object.keys(WORDS) as (keyof PlanVariants)[];

const Wide = styled.div`
  overflow-x: auto;
  td, th { font-size: var(--size-small); vertical-align: top; line-height: 1.25; }
  td small { display: block; color: var(--ink-soft); font-size: 0.8125rem; }
  tr.changed td.pair { background: var(--accent-soft); }
`;

/** An order as lines of a table: tabs to paste into a spreadsheet, commas for a CSV file (RFC 4180). */
function orderText(order: ReturnType<typeof halvesToOrder>, unit: Unit, separator: string): string {
  const rows = order.map(({ shell: { name, family, half, wall }, count }) => [
    String(count),
    name,
    family,
    half,
    String(numberOfLength(wall, unit)),
  ]);
  const lines = [['Count', 'Shell', 'Family', 'Side', 'Wall'], ...rows];
  return csvOf(lines, separator);
}

function OrderList({ problem, plan, name }: { problem: FitProblem; plan: FitSolution; name: string }) {
  const [isCopied, setCopied] = useState(false);
  const order = halvesToOrder(problem, plan);
  if (order.length === 0) return <Quiet>Nothing to order.</Quiet>;
  return (
    <div>
      <ul aria-label="To order">
        {order.map(({ shell, count }) => (
          <li key={shell.id}>
            {count} × {shell.name}
          </li>
        ))}
      </ul>
      <Row>
        <Button
          onPress={() => {
            void navigator.clipboard.writeText(orderText(order, problem.unit, '\t')).then(() => setCopied(true));
          }}
        >
          <ClipboardCopy aria-hidden size={18} />
          {isCopied ? 'Copied' : 'Copy the order'}
        </Button>
        <Button onPress={() => saveAs(`${name} order.csv`, CSV_TYPE, orderText(order, problem.unit, ','))}>
          <Download aria-hidden size={18} />
          Save as CSV
        </Button>
      </Row>
    </div>
  );
}

interface CompareProps {
  readonly asked: JobFit & { ok: true };
  readonly document: JobDocument;
  /** Accepts one of the plans. */
  readonly onTake: (plan: FitSolution, what: string) => void;
}

/** What a plan has selected at a station. */
function pairAt(plan: FitSolution, id: string) {
  return plan.stations.find((station) => station.id === id);
}

/** The stations at which the plans differ, in shells or in the rod. */
function differingStations(problem: FitProblem, plans: PlanVariants): ReadonlySet<string> {
  return new Set(
    problem.stations.flatMap(({ id }) => {
      const pairs = KINDS.flatMap((kind) => pairAt(plans[kind], id) ?? []);
      const keys = new Set(pairs.map(({ upper, lower, housing }) => `${upper} ${lower} ${housing}`));
      return keys.size > 1 ? [id] : [];
    }),
  );
}

/** A row of the table: a cell a plan. */
function PlanRow({ head, cell }: { head: string; cell: (kind: keyof PlanVariants) => ReactNode }) {
  return (
    <tr>
      <th scope="row">{head}</th>
      {KINDS.map((kind) => (
        <td key={kind}>{cell(kind)}</td>
      ))}
    </tr>
  );
}

interface PlansProps extends CompareProps {
  readonly plans: PlanVariants;
}

/** What each plan comes to as a whole. */
function WholeRows({ document, plans }: PlansProps) {
  const { shown, said } = useClearances(document.unit);
  const figure = (tell: (plan: FitSolution) => string) => (kind: keyof PlanVariants) =>
    plans[kind].cost === null ? '·' : tell(plans[kind]);
  const spread = ({ family, value }: FitSolution['spread'][number]) => {
    const { isInLine, words } = FAMILY_TABLE[family];
    return `${isInLine ? spreadMainsText(document) : words} ${workedOutText(value, shown)}`;
  };
  return (
    <>
      <PlanRow
        head="Answer"
        cell={(kind) => {
          const { cost, status, conflicts } = plans[kind];
          if (cost === null) return `Nothing fits. ${conflicts.map(({ message }) => said(message)).join(' ')}`;
          return status === 'optimal' ? 'proven' : 'not proven';
        }}
      />
      <PlanRow
        head={`Off target on average, ${shown}`}
        cell={figure((plan) => meanOffText(plan, shown).split(' ')[0]!)}
      />
      <PlanRow head={`Spread, ${shown}`} cell={figure((plan) => plan.spread.map(spread).join(', '))} />
      <PlanRow
        head="Mixed stations"
        cell={figure((plan) => String(plan.stations.filter(({ mixed }) => mixed).length))}
      />
    </>
  );
}

/** What each plan selects at each station: where they differ, and the others when asked for. */
function StationRows({ asked, document, plans }: PlansProps) {
  const { shown } = useClearances(document.unit);
  const [isWhole, setWhole] = useState(false);
  const { problem } = asked;
  const names = useMemo(() => new Map(problem.shells.map((shell) => [shell.id, shell.name])), [problem]);
  const differing = differingStations(problem, plans);
  const alike = problem.stations.flatMap(({ id }) => (differing.has(id) ? [] : [id]));
  return (
    <>
      {problem.stations
        .filter(({ id }) => isWhole || differing.has(id))
        .map(({ id }) => (
          <tr key={id} className={differing.has(id) ? 'changed' : ''}>
            <th scope="row">{id}</th>
            {KINDS.map((kind) => {
              const pair = pairAt(plans[kind], id);
              return (
                <td key={kind} className="pair">
                  {pair ? (
                    <>
                      <span className="figure">{formatLength(pair.clearance, shown, CLEARANCE_DECIMALS[shown])}</span>{' '}
                      {asked.rodNumbers.has(pair.housing) && pair.housing}
                      <small>
                        {names.get(pair.upper)} over {names.get(pair.lower)}
                      </small>
                    </>
                  ) : (
                    '·'
                  )}
                </td>
              );
            })}
          </tr>
        ))}
      {alike.length > 0 && (
        <tr>
          <th scope="row">Same in every selection</th>
          <td colSpan={KINDS.length}>
            {alike.join(', ')}{' '}
            <Button $kind="quiet" aria-pressed={isWhole} onPress={() => setWhole(!isWhole)}>
              {isWhole ? 'Only what differs' : 'Show them too'}
            </Button>
          </td>
        </tr>
      )}
    </>
  );
}

/** What can be done with each plan: using it, and ordering what it lacks. */
function ActRows({ asked, document, plans, onTake }: PlansProps) {
  return (
    <>
      <PlanRow
        head="Use"
        cell={(kind) =>
          plans[kind].cost !== null &&
          kind !== 'orderable' && (
            <Button
              aria-label={`Use this selection: ${WORDS[kind].name}`}
              onPress={() => onTake(plans[kind], WORDS[kind].name)}
            >
              Use this selection
            </Button>
          )
        }
      />
      <PlanRow
        head="To order"
        cell={(kind) =>
          plans[kind].cost !== null && <OrderList problem={asked.problem} plan={plans[kind]} name={document.name} />
        }
      />
    </>
  );
}

/** The plans that a fitter weighs against each other, column by column. */
export function ComparePlans(props: CompareProps) {
  const { problem } = props.asked;
  const { result: plans, fault } = useAsked(problem, (search) => search.variants(problem));
  if (fault) return <Panel role="alert">{fault}</Panel>;
  if (!plans) return <Panel aria-busy>Working out four selections …</Panel>;
  return (
    <Panel aria-label="Selections side by side">
      <PanelTitle>Selections side by side</PanelTitle>
      <Wide tabIndex={0} role="region" aria-label="Table of the selections">
        <Table>
          <thead>
            <tr>
              <th>
                <span className="visually-hidden">Station</span>
              </th>
              {KINDS.map((kind) => (
                <th key={kind}>
                  {WORDS[kind].name}
                  <small style={{ display: 'block', fontWeight: 400 }}>{WORDS[kind].meaning}</small>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <WholeRows {...props} plans={plans} />
            <StationRows {...props} plans={plans} />
            <ActRows {...props} plans={plans} />
          </tbody>
        </Table>
      </Wide>
    </Panel>
  );
}
