import {
  type DrawerLine,
  freeHalves,
  gradeUsed,
  type KnownUse,
  type NeedAhead,
  needAhead,
  plainNumber,
} from '@fettle/core';
import { useMemo } from 'react';
import { useQuery } from '../base/useQuery.js';
import { useDrawer } from '../drawer/useDrawer.js';
import { Field } from '../ui/Field.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { KnownTable } from './KnownTable.js';
import { FAMILY_WORDS, HALF_WORDS, percentText } from './knownText.js';

interface AheadProps {
  readonly uses: readonly KnownUse[];
  readonly engines: number;
  readonly months: number;
  readonly onBench: number;
  /** True if the engines are narrowed by their type and by nothing else, as those on the benches are. */
  readonly isOfType: boolean;
  /** Weeks that a delivery takes, and the wanted chance, as the page asks for them; null where they are no numbers. */
  readonly lead: number | null;
  readonly service: number | null;
}

interface AheadRow extends NeedAhead {
  readonly use: KnownUse;
  readonly free: number;
  readonly short: number;
}

/** Halves of a kind that are free; those that fit either place are shared half and half. */
function freeOf({ family, series, grade, half: side }: KnownUse, lines: readonly DrawerLine[]): number {
  const own = (place: DrawerLine['half']['half']) =>
    lines
      .filter(
        ({ half }) =>
          half.family === family && half.series === series && half.half === place && gradeUsed(half) === grade,
      )
      .reduce((sum, line) => sum + Math.max(0, freeHalves(line, null)), 0);
  return side === 'either' ? own('either') : own(side) + Math.floor(own('either') / 2);
}

/** What the benches will need in the next weeks, by chance, against the stock and the time that a delivery takes. */
export function AheadPanel({ uses, engines, months, onBench, isOfType, lead, service }: AheadProps) {
  const [typed, setTyped] = useQuery('ahead');
  const { lines } = useDrawer();
  const weeks = plainNumber(typed ?? '4');
  const isAhead = weeks > 0 && weeks <= 52;
  const certain = isOfType ? onBench : 0;
  const rows = useMemo(() => {
    if (!isAhead || service === null || lines === null) return null;
    return uses.map((use): AheadRow => {
      const free = freeOf(use, lines);
      const ahead = { months: (weeks * 12) / 52, onBench: certain, free, service };
      const need = needAhead({ engines, months, taken: use.taken }, ahead);
      return { use, free, ...need, short: Math.max(0, need.wanted - free) };
    });
  }, [uses, engines, months, certain, weeks, isAhead, service, lines]);
  const isLate = lead !== null && isAhead && lead >= weeks;
  const short = rows?.filter((row) => row.short > 0).length ?? 0;
  return (
    <Panel aria-label="Several engines ahead">
      <PanelTitle>Several engines ahead</PanelTitle>
      <Row style={{ alignItems: 'start' }}>
        <Field
          label="Look ahead, weeks"
          figure
          inputMode="decimal"
          value={typed ?? '4'}
          onChange={(value) => setTyped(value)}
          fault={isAhead ? null : 'Weeks, above 0, at most 52.'}
        />
        <p style={{ flex: '1 1 20rem', alignSelf: 'center' }}>
          {rows === null
            ? 'Reading the stock …'
            : short === 0
              ? 'Each kind, taken alone, lasts with the required chance.'
              : `${short} of ${rows.length} kinds are short.`}
          {isLate && short > 0 && (
            <strong> Delivery takes as long as this period: an order placed now comes too late for some.</strong>
          )}
        </p>
      </Row>
      <Quiet>
        {isOfType
          ? `${certain} ${certain === 1 ? 'open engine' : 'open engines'} without a selection ${certain === 1 ? 'is' : 'are'} certain. `
          : 'Filter by engine type alone to count its open engines as certain. '}
        Other engines arrive at the past rate and take shells as past engines did. Reserved shells are not free. Shells
        that fit either side count half as upper, half as lower.
      </Quiet>
      {rows && (
        <KnownTable
          label="Shells needed"
          file="needed-ahead"
          items={rows}
          keyOf={({ use: { family, series, grade, half } }) => `${family} ${series} ${grade} ${half}`}
          columns={[
            { head: 'Series', text: ({ use }) => use.series },
            { head: 'Grade', text: ({ use }) => use.grade },
            { head: 'For', text: ({ use }) => `${FAMILY_WORDS[use.family]}, ${HALF_WORDS[use.half]}` },
            { head: 'Free', text: ({ free }) => String(free), sortBy: ({ free }) => free, isFigure: true },
            {
              head: 'Expected need',
              text: ({ expected }) => expected.toFixed(1),
              sortBy: ({ expected }) => expected,
              isFigure: true,
            },
            {
              head: 'Chance that free stock lasts',
              text: ({ lasts }) => percentText(lasts),
              sortBy: ({ lasts }) => lasts,
              isFigure: true,
            },
            {
              head: 'Order',
              text: ({ short: count }) => (count === 0 ? '' : String(count)),
              sortBy: ({ short: count }) => -count,
              isFigure: true,
            },
          ]}
        />
      )}
    </Panel>
  );
}
