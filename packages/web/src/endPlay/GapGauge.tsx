import { formatLength, INSTRUMENT_DECIMALS, type ShownUnit } from '@fettle/core';
import * as d3 from 'd3';
import styled from 'styled-components';

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  .scale { fill: var(--sunken); }
  .within { fill: var(--accent-soft); stroke: var(--line-strong); }
  .limit { stroke: var(--ink); stroke-width: 2; }
  .aim { stroke: var(--brass); stroke-width: 2; stroke-dasharray: 5 3; }
  .other { stroke: var(--line-strong); stroke-width: 2; }
  .other.inside { stroke: var(--accent); }
  .spread { stroke: var(--ink); stroke-width: 3; }
  .now { fill: var(--ink); stroke: var(--surface); stroke-width: 1.5; }
  .after { fill: var(--surface); stroke: var(--accent); stroke-width: 3; }
  text { font-family: var(--figures); font-size: 14px; fill: var(--ink); }
  text.word { font-family: var(--text); fill: var(--ink-soft); }
  text.brass { fill: var(--brass); }
`;

const WIDTH = 440;
const HEIGHT = 112;
const LEFT = 16;

interface GapGaugeProps {
  readonly unit: ShownUnit;
  readonly limit: { readonly low: number; readonly high: number } | null;
  readonly aim: number | null;
  /** What is read now, with its expanded uncertainty. */
  readonly now: { readonly mean: number; readonly spread: number } | null;
  /** What the choice in hand leads to. */
  readonly after: number | null;
  /** What the other choices would give. */
  readonly others: readonly number[];
  readonly what: string;
}

/** One gap along a line: the limits, the aim, what is read, what the choice in hand leads to, and what else the pieces would give. */
export function GapGauge({ unit, limit, aim, now, after, others, what }: GapGaugeProps) {
  const known = [limit?.low, limit?.high, aim, now?.mean, after].filter((one) => one != null);
  if (known.length === 0) return null;
  const [low = 0, high = 1] = d3.extent(known) as [number | undefined, number | undefined];
  const room = (high - low) * 0.12 || 10_000;
  const x = d3.scaleLinear([low - room, high + room], [LEFT, WIDTH - LEFT]);
  const text = (value: number) => formatLength(Math.round(value) as never, unit, INSTRUMENT_DECIMALS[unit]);
  const isShown = (value: number) => value >= low - room && value <= high + room;
  const label = [
    `${what}.`,
    limit ? `Limits ${text(limit.low)} to ${text(limit.high)} ${unit}.` : 'No limits on the data sheet.',
    aim === null ? '' : `Target ${text(aim)}.`,
    now ? `Read now ${text(now.mean)}.` : '',
    after === null ? '' : `With this selection ${text(after)}.`,
  ].join(' ');
  return (
    <Svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={label}>
      <rect className="scale" x={LEFT} width={WIDTH - 2 * LEFT} y={38} height={26} rx={4} />
      {limit && (
        <>
          <rect className="within" x={x(limit.low)} width={x(limit.high) - x(limit.low)} y={38} height={26} />
          {[limit.low, limit.high].map((value, at) => (
            <g key={value}>
              <line className="limit" x1={x(value)} x2={x(value)} y1={32} y2={70} />
              <text x={x(value)} y={86} textAnchor="middle">
                {text(value)}
              </text>
              <text className="word" x={x(value)} y={104} textAnchor="middle">
                {at === 0 ? 'low' : 'high'}
              </text>
            </g>
          ))}
        </>
      )}
      {others.filter(isShown).map((value) => {
        const isInside = limit !== null && value >= limit.low && value <= limit.high;
        return (
          <line
            key={value}
            className={isInside ? 'other inside' : 'other'}
            x1={x(value)}
            x2={x(value)}
            y1={isInside ? 40 : 46}
            y2={isInside ? 62 : 56}
          />
        );
      })}
      {aim !== null && (
        <>
          <line className="aim" x1={x(aim)} x2={x(aim)} y1={32} y2={70} />
          <text className="brass" x={x(aim)} y={86} textAnchor="middle">
            {text(aim)}
          </text>
          <text className="word brass" x={x(aim)} y={104} textAnchor="middle">
            target
          </text>
        </>
      )}
      {now && (
        <>
          <line
            className="spread"
            x1={x(Math.max(low - room, now.mean - now.spread))}
            x2={x(Math.min(high + room, now.mean + now.spread))}
            y1={51}
            y2={51}
          />
          <path className="now" d={`M${x(now.mean)} 36l7-12h-14z`} />
          <text x={x(now.mean)} y={16} textAnchor="middle">
            now {text(now.mean)}
          </text>
        </>
      )}
      {after !== null && (
        <>
          <path className="after" d={`M${x(after)} 42l9 9-9 9-9-9z`} />
          {(now === null || Math.abs(x(after) - x(now.mean)) > 150) && (
            <text x={x(after)} y={16} textAnchor="middle">
              these {text(after)}
            </text>
          )}
        </>
      )}
    </Svg>
  );
}
