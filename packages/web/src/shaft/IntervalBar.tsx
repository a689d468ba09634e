import type { ClearanceInterval } from '@fettle/core';
import { CLEARANCE_DECIMALS, formatLength, type Unit } from '@fettle/core';
import * as d3 from 'd3';
import styled from 'styled-components';
import { useClearances } from '../person/useClearances.js';

const Svg = styled.svg`
  display: block;
  width: 100%;
  .within { fill: var(--sunken); }
  .limit { stroke: var(--ink); stroke-width: 1.5; }
  .inside { fill: var(--inside); }
  .tight { fill: var(--tight); }
  .loose { fill: var(--loose); }
`;

const Words = styled.span`
  display: flex;
  justify-content: center;
  gap: 0.4rem;
  font-size: 0.8125rem;
  line-height: 1.2;
  white-space: nowrap;
  .figure { color: var(--ink-soft); }
  strong { font-weight: 700; }
  .tight { color: var(--tight); }
  .loose { color: var(--loose); }
  /* In a narrow column its ends stand one below the other. */
  @container (max-width: 6.4rem) { white-space: normal; flex-wrap: wrap; gap: 0; > * { max-width: 100%; text-align: center; } }
`;

interface IntervalBarProps {
  readonly interval: ClearanceInterval;
  readonly limits: { readonly low: number; readonly high: number } | null;
  readonly unit: Unit;
}

/** How an interval stands to its limits, in a word; null while it is inside. */
function intervalWord(
  { tightest, loosest }: ClearanceInterval,
  limits: IntervalBarProps['limits'],
): 'tight' | 'loose' | 'both' | null {
  if (!limits) return null;
  const [isTight, isLoose] = [tightest < limits.low, loosest > limits.high];
  return isTight && isLoose ? 'both' : isTight ? 'tight' : isLoose ? 'loose' : null;
}

/** The clearance that bands imply, drawn between its limits: a bar with square ends, what leaves the limits in another height. */
export function IntervalBar({ interval, limits, unit }: IntervalBarProps) {
  const { tightest, loosest } = interval;
  const { shown } = useClearances(unit);
  const text = (value: number) => formatLength(value as never, shown, CLEARANCE_DECIMALS[shown]);
  const ends = limits ?? { low: tightest, high: loosest };
  const room = (ends.high - ends.low) * 0.35 || 1000;
  const x = d3.scaleLinear([ends.low - room, ends.high + room], [0, 100]).clamp(true);
  const part = (from: number, to: number, name: string, isOut: boolean) =>
    to > from && (
      <rect
        className={name}
        x={x(from)}
        width={Math.max(0.8, x(to) - x(from))}
        y={isOut ? 1 : 3.5}
        height={isOut ? 10 : 5}
      />
    );
  const word = intervalWord(interval, limits);
  return (
    <>
      <Svg viewBox="0 0 100 12" height={12} preserveAspectRatio="none" aria-hidden>
        <rect className="within" x={x(ends.low)} width={x(ends.high) - x(ends.low)} y={0} height={12} />
        {part(tightest, Math.min(loosest, ends.low), 'tight', true)}
        {part(Math.max(tightest, ends.low), Math.min(loosest, ends.high), 'inside', false)}
        {part(Math.max(tightest, ends.high), loosest, 'loose', true)}
        {limits && (
          <>
            <line className="limit" x1={x(limits.low)} x2={x(limits.low)} y1={0} y2={12} />
            <line className="limit" x1={x(limits.high)} x2={x(limits.high)} y1={0} y2={12} />
          </>
        )}
      </Svg>
      <Words>
        <span className="figure">
          {text(tightest)} to {text(loosest)}
        </span>
        {word && (
          <strong className={word === 'loose' ? 'loose' : 'tight'}>{word === 'both' ? 'tight and loose' : word}</strong>
        )}
      </Words>
    </>
  );
}

/** The unit that the clearances of an engine are shown in, to stand at the head of a row of them. */
export function ClearanceUnit({ unit }: { readonly unit: Unit }) {
  return useClearances(unit).shown;
}
