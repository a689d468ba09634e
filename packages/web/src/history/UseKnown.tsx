import { type KnownUse, plainNumber, reorderLevel } from '@fettle/core';
import * as d3 from 'd3';
import { useQuery } from '../base/useQuery.js';
import { Field } from '../ui/Field.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { AheadPanel } from './AheadPanel.js';
import { BehindLink } from './BehindLink.js';
import { Svg, useChart } from './chartParts.js';
import { KnownNothing } from './KnownNothing.js';
import { KnownTable } from './KnownTable.js';
import { FAMILY_WORDS, HALF_WORDS, percentText } from './knownText.js';
import { useKnown } from './useKnown.js';

/** Shells of all grades by month. */
function MonthBars({ uses }: { readonly uses: readonly KnownUse[] }) {
  const { width, height, left, right, top, bottom } = useChart();
  const byMonth = d3.rollup(
    uses.flatMap(({ months }) => months),
    (all) => d3.sum(all, ({ count }) => count),
    ({ month }) => month,
  );
  const ends = d3.extent([...byMonth.keys()]) as [string, string];
  const months = d3
    .utcMonths(new Date(`${ends[0]}-01`), new Date(Date.parse(`${ends[1]}-01`) + 1))
    .map((day) => day.toISOString().slice(0, 7));
  const x = d3.scaleBand(months, [left, width - right]).padding(0.2);
  const y = d3.scaleLinear([0, Math.max(...byMonth.values())], [height - bottom, top]).nice();
  return (
    <Svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label="Shells used by month">
      <rect className="frame" x={left} y={top} width={width - left - right} height={height - top - bottom} rx={4} />
      {y.ticks(4).map((value) => (
        <text key={value} className="figure" x={left - 8} y={y(value) + 4} textAnchor="end">
          {value}
        </text>
      ))}
      {months.map((month) => {
        const count = byMonth.get(month) ?? 0;
        return (
          <rect key={month} className="bar" x={x(month)} y={y(count)} width={x.bandwidth()} height={y(0) - y(count)}>
            <title>{`${month}: ${count}`}</title>
          </rect>
        );
      })}
      {[months[0], months.at(-1)].map((month, nth) =>
        month === undefined || (nth === 1 && months.length === 1) ? null : (
          <text
            key={month}
            x={x(month)! + x.bandwidth() / 2}
            y={height - 12}
            textAnchor={months.length === 1 ? 'middle' : nth === 0 ? 'start' : 'end'}
          >
            {month}
          </text>
        ),
      )}
    </Svg>
  );
}

interface GradesUsedProps {
  readonly uses: readonly KnownUse[];
  readonly months: number;
  /** The stock at which a shell is ordered, with the chance that it lasts; null while the boxes say nothing usable. */
  readonly levelOf: (use: KnownUse) => ReturnType<typeof reorderLevel> | null;
}

/** How many of each grade were used, and when to order them. */
function GradesUsed({ uses, months, levelOf }: GradesUsedProps) {
  return (
    <KnownTable
      label="Shells used by grade"
      file="shells-used"
      items={uses}
      keyOf={({ family, series, grade, half }) => `${family} ${series} ${grade} ${half}`}
      columns={[
        { head: 'Series', text: ({ series }) => series },
        { head: 'Grade', text: ({ grade }) => grade },
        { head: 'For', text: ({ family, half }) => `${FAMILY_WORDS[family]}, ${HALF_WORDS[half]}` },
        {
          head: 'Used',
          text: ({ total }) => String(total),
          cell: ({ family, series, grade, half, total }) => (
            <BehindLink
              to={{ what: 'use', family, series, grade, half }}
              label={`${series} ${grade}, ${HALF_WORDS[half]}`}
            >
              {total}
            </BehindLink>
          ),
          sortBy: ({ total }) => total,
          isFigure: true,
        },
        {
          head: 'Per month',
          text: ({ total }) => (total / months).toFixed(1),
          sortBy: ({ total }) => total,
          isFigure: true,
        },
        {
          head: 'Order at',
          text: (use) => String(levelOf(use)?.level ?? ''),
          sortBy: (use) => levelOf(use)?.level ?? null,
          isFigure: true,
        },
        {
          head: 'Chance to last',
          text: (use) => {
            const level = levelOf(use);
            return level === null ? '' : percentText(level.service);
          },
          sortBy: (use) => levelOf(use)?.service ?? null,
          isFigure: true,
        },
      ]}
    />
  );
}

/** Shells that were taken by grade, and the stock at which to order them. */
export function UseKnown() {
  const { scope } = useKnown();
  const [lead, setLead] = useQuery('lead');
  const [service, setService] = useQuery('service');
  const { currentData: data, error } = api.useKnownUseQuery(scope, { refetchOnMountOrArgChange: true });
  if (error) return <Notice urgent>{refusalInWords(error)}</Notice>;
  if (!data) return <p aria-busy>Loading …</p>;
  const { uses, months, engines, onBench } = data;
  if (uses.length === 0 || months <= 0) return <KnownNothing>No shells were selected yet.</KnownNothing>;
  const weeks = plainNumber(lead ?? '2');
  const wanted = plainNumber(service ?? '95');
  const isLead = weeks > 0 && weeks <= 104;
  const isWanted = wanted >= 50 && wanted <= 99.9;
  const levelOf = ({ taken }: KnownUse) =>
    isLead && isWanted ? reorderLevel({ engines, months, taken }, (weeks * 12) / 52, wanted / 100) : null;
  return (
    <>
      <Panel aria-label="Shells used">
        <PanelTitle>Shells used, by month</PanelTitle>
        <MonthBars uses={uses} />
        <Row style={{ alignItems: 'start', marginTop: '0.5rem' }}>
          <Field
            label="Delivery time, weeks"
            figure
            inputMode="decimal"
            value={lead ?? '2'}
            onChange={(value) => setLead(value)}
            fault={isLead ? null : 'Weeks, above 0, at most 104.'}
          />
          <Field
            label="Required chance, %"
            figure
            inputMode="decimal"
            value={service ?? '95'}
            onChange={(value) => setService(value)}
            fault={isWanted ? null : 'From 50 to 99.9 %.'}
          />
        </Row>
        <Quiet>
          {engines} engines in {Math.round(months)} months. Order at this stock or below. It then lasts until delivery
          with the chance beside it, if engines arrive and take shells as before. The chance allows for how few engines
          there are.
        </Quiet>
        <GradesUsed uses={uses} months={months} levelOf={levelOf} />
      </Panel>
      <AheadPanel
        uses={uses}
        engines={engines}
        months={months}
        onBench={onBench}
        isOfType={
          Boolean(scope.type) && !(['series', 'person', 'from', 'to'] as const).some((key) => Boolean(scope[key]))
        }
        lead={isLead ? weeks : null}
        service={isWanted ? wanted / 100 : null}
      />
    </>
  );
}
