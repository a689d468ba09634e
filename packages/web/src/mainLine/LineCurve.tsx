import { formatLength, type LineRead, type Unit } from '@fettle/core';
import * as d3 from 'd3';
import styled from 'styled-components';

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  .frame { fill: var(--sunken); }
  .zero { stroke: var(--accent); stroke-width: 1.5; }
  .line { fill: none; stroke: var(--ink); stroke-width: 1.5; stroke-dasharray: 4 3; }
  .dot { fill: var(--ink); stroke: var(--surface); stroke-width: 1.5; }
  text { font-size: 13px; fill: var(--ink-soft); }
  text.figure { font-family: var(--figures); fill: var(--ink); }
`;

const WIDTH = 640;
const HEIGHT = 200;
const EDGE = { left: 74, right: 20, top: 16, bottom: 30 };
/** The scale shows so much at least, nm: a straight line looks straight. */
const LEAST = 5_000;

/** What each main is off the least-squares line, drawn along the shaft. */
export function LineCurve({ line, unit }: { readonly line: LineRead; readonly unit: Unit }) {
  const { mains, direction } = line;
  const most = Math.max(LEAST, ...mains.map(({ offLine }) => Math.abs(offLine))) * 1.25;
  const x = d3.scalePoint(
    mains.map(({ main }) => main),
    [EDGE.left + 24, WIDTH - EDGE.right - 24],
  );
  const y = d3.scaleLinear([-most, most], [HEIGHT - EDGE.bottom, EDGE.top]);
  const text = (value: number) => formatLength(Math.round(value) as never, unit, unit === 'mm' ? 3 : 4);
  const path = d3.line<(typeof mains)[number]>(
    ({ main }) => x(main)!,
    ({ offLine }) => y(offLine),
  );
  const told = mains.map(({ main, offLine }) => `${main} ${text(offLine)}`).join(', ');
  return (
    <Svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`Off the straight line, ${direction}, ${unit}: ${told}`}
    >
      <rect
        className="frame"
        x={EDGE.left}
        y={EDGE.top}
        width={WIDTH - EDGE.left - EDGE.right}
        height={HEIGHT - EDGE.top - EDGE.bottom}
        rx={4}
      />
      <line className="zero" x1={EDGE.left} x2={WIDTH - EDGE.right} y1={y(0)} y2={y(0)} />
      {y.ticks(3).map((value) => (
        <text key={value} className="figure" x={EDGE.left - 8} y={y(value) + 4} textAnchor="end">
          {text(value)}
        </text>
      ))}
      <path className="line" d={path([...mains]) ?? ''} />
      {mains.map(({ main, offLine }) => (
        <g key={main}>
          <circle className="dot" cx={x(main)} cy={y(offLine)} r={5.5} />
          <text x={x(main)} y={HEIGHT - 10} textAnchor="middle">
            {main}
          </text>
        </g>
      ))}
    </Svg>
  );
}
