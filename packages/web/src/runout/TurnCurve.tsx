import { formatLength, type Turn, type TurnRead, type Unit } from '@fettle/core';
import * as d3 from 'd3';
import styled from 'styled-components';

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  .frame { fill: var(--sunken); }
  .grid { stroke: var(--line); }
  .once { fill: none; stroke: var(--accent); stroke-width: 2.5; }
  .read { fill: none; stroke: var(--ink); stroke-width: 1.5; stroke-dasharray: 4 3; }
  .dot { fill: var(--ink); stroke: var(--surface); stroke-width: 1.5; }
  .total { stroke: var(--brass); stroke-width: 2; }
  text { font-size: 13px; fill: var(--ink-soft); }
  text.figure { font-family: var(--figures); fill: var(--ink); }
`;

const WIDTH = 640;
const HEIGHT = 250;
const EDGE = { left: 66, right: 92, top: 18, bottom: 34 };

interface TurnCurveProps {
  readonly turn: Turn;
  readonly read: TurnRead | null;
  readonly angles: readonly number[];
  readonly unit: Unit;
  readonly what: string;
}

/** What the dial showed round the turn, the part of it that comes once a turn, and the total reading beside it. */
export function TurnCurve({ turn, read, angles, unit, what }: TurnCurveProps) {
  const points = Object.entries(turn)
    .flatMap(([angle, { nm }]) => (nm === null ? [] : [{ angle: Number(angle), nm: nm as number }]))
    .sort((one, other) => one.angle - other.angle);
  const text = (value: number) => formatLength(Math.round(value) as never, unit, unit === 'mm' ? 3 : 4);
  const [low = 0, high = 0] = d3.extent(points, ({ nm }) => nm) as [number | undefined, number | undefined];
  const room = Math.max((high - low) * 0.25, 5_000);
  const x = d3.scaleLinear([0, 360], [EDGE.left, WIDTH - EDGE.right]);
  const y = d3.scaleLinear([low - room, high + room], [HEIGHT - EDGE.bottom, EDGE.top]);
  const first = points[0];
  // The turn comes round to where it began.
  const closed = first?.angle === 0 ? [...points, { angle: 360, nm: first.nm }] : points;
  const line = d3.line<{ angle: number; nm: number }>(
    ({ angle }) => x(angle),
    ({ nm }) => y(nm),
  );
  const once = read?.once;
  const wave =
    once &&
    d3.range(0, 361, 6).map((angle) => ({
      angle,
      nm: once.mean + once.swing * Math.cos(((angle - once.at) * Math.PI) / 180),
    }));
  const label = read
    ? `${what}: total reading ${text(read.tir)} ${unit}${once ? `, ${text(2 * once.swing)} of it once a turn, highest at ${Math.round(once.at)}°` : ''}.`
    : `${what}: not read yet.`;
  return (
    <Svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={label}>
      <rect
        className="frame"
        x={EDGE.left}
        y={EDGE.top}
        width={WIDTH - EDGE.left - EDGE.right}
        height={HEIGHT - EDGE.top - EDGE.bottom}
        rx={4}
      />
      {angles.map((angle) => (
        <g key={angle}>
          <line className="grid" x1={x(angle)} x2={x(angle)} y1={EDGE.top} y2={HEIGHT - EDGE.bottom} />
          <text x={x(angle)} y={HEIGHT - 12} textAnchor="middle">
            {angle}°
          </text>
        </g>
      ))}
      {y.ticks(4).map((value) => (
        <text key={value} className="figure" x={EDGE.left - 8} y={y(value) + 4} textAnchor="end">
          {text(value)}
        </text>
      ))}
      {wave && <path className="once" d={line(wave) ?? ''} />}
      <path className="read" d={line(closed) ?? ''} />
      {points.map(({ angle, nm }) => (
        <circle key={angle} className="dot" cx={x(angle)} cy={y(nm)} r={5.5} />
      ))}
      {read && (
        <g>
          <path className="total" d={`M${WIDTH - EDGE.right + 12} ${y(low)}h10m-5 0V${y(high)}m-5 0h10`} />
          <text className="figure" x={WIDTH - EDGE.right + 28} y={(y(low) + y(high)) / 2 + 4}>
            {text(read.tir)}
          </text>
        </g>
      )}
    </Svg>
  );
}
