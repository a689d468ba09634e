import { momentText, type OffsetGroup, type Unit } from '@fettle/core';
import * as d3 from 'd3';
import { Svg, useChart } from './chartParts.js';
import { knownLength } from './knownText.js';

/** The offset of each engine over time with what it is known to, their mean, and where the next engine is likely to be. */
export function OffsetChart({ group, unit }: { readonly group: OffsetGroup; readonly unit: Unit }) {
  const { width, height, left, right, top, bottom } = useChart();
  const dots = [...group.latest].reverse();
  const times = dots.map(({ at }) => Date.parse(at));
  const x = d3.scaleTime(d3.extent(times) as [number, number], [left + 16, width - right - 16]);
  const ends = [
    ...dots.flatMap(({ offset, u }) => [offset - 2 * u, offset + 2 * u]),
    0,
    ...(group.next ? [group.next.low, group.next.high] : []),
  ];
  const y = d3.scaleLinear(d3.extent(ends) as [number, number], [height - bottom, top]).nice();
  return (
    <Svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={`Assembly offset by engine, ${group.series}`}>
      <rect className="frame" x={left} y={top} width={width - left - right} height={height - top - bottom} rx={4} />
      {group.next && (
        <rect
          className="band"
          x={left}
          y={y(group.next.high)}
          width={width - left - right}
          height={y(group.next.low) - y(group.next.high)}
        />
      )}
      {y.ticks(5).map((value) => (
        <text key={value} className="figure" x={left - 8} y={y(value) + 4} textAnchor="end">
          {knownLength(value, unit, true)}
        </text>
      ))}
      <line className="zero" x1={left} x2={width - right} y1={y(0)} y2={y(0)} />
      <line className="mean" x1={left} x2={width - right} y1={y(group.mean)} y2={y(group.mean)} />
      {dots.map(({ id, name, at, offset, u }) => (
        <g key={id}>
          <title>{`${name}: ${knownLength(offset, unit, true)} ± ${knownLength(2 * u, unit)} ${unit}`}</title>
          <line
            className="whisker"
            x1={x(Date.parse(at))}
            x2={x(Date.parse(at))}
            y1={y(offset - 2 * u)}
            y2={y(offset + 2 * u)}
          />
          <circle className="dot" cx={x(Date.parse(at))} cy={y(offset)} r={4} />
        </g>
      ))}
      {[dots[0], dots.at(-1)].map((one, nth) =>
        one === undefined || (nth === 1 && dots.length === 1) ? null : (
          <text
            key={one.id}
            x={x(Date.parse(one.at))}
            y={height - 12}
            textAnchor={dots.length === 1 ? 'middle' : nth === 0 ? 'start' : 'end'}
          >
            {momentText(one.at, 'day')}
          </text>
        ),
      )}
    </Svg>
  );
}
