import { boltOrder, type CrankLayout, type FastenerPlace } from '@fettle/core';
import * as d3 from 'd3';
import styled from 'styled-components';
import { useWidth } from '../shaft/useWidth.js';

const Frame = styled.div`
  svg { display: block; width: 100%; }
  .cap { fill: var(--steel); stroke: var(--steel-dark); stroke-width: 1.5; }
  .thrust { stroke: var(--brass); stroke-width: 3; }
  .axis { stroke: var(--line-strong); stroke-dasharray: 12 4 2 4; }
  .bolt { fill: var(--surface); stroke: var(--ink); stroke-width: 1.75; }
  .bolt.other { fill: none; stroke: var(--line-strong); stroke-width: 1.25; stroke-dasharray: 3 2; }
  text { font-family: var(--figures); font-weight: 700; font-size: 14px; text-anchor: middle; fill: var(--ink); }
  text.name { font-weight: 600; font-size: 13px; fill: var(--ink-soft); }
`;

/** Rows of bolts from the shaft outwards: inner, outer, from the side; as parts of the half height. */
const AWAY: Readonly<Record<Exclude<FastenerPlace, 'rod' | 'other'>, number>> = {
  'main-inner': 0.36,
  'main-outer': 0.64,
  'main-side': 0.9,
};
const PLACES = Object.keys(AWAY) as (keyof typeof AWAY)[];
const HEIGHT = 190;
const RADIUS = 13;

interface CapsDrawingProps {
  readonly layout: CrankLayout;
  /** The place that is tightened now. */
  readonly place: keyof typeof AWAY;
  /** Bolts a cap, of each place that the engine has. */
  readonly perCap: Readonly<Partial<Record<FastenerPlace, number>>>;
}

/** The main caps from below, front at the left, with the bolts of one pass numbered in the order in which they are tightened. */
export function CapsDrawing({ layout, place, perCap }: CapsDrawingProps) {
  const [frame, width] = useWidth();
  const drawn = Math.max(width, 280);
  const mains = Array.from({ length: layout.mains }, (_, at) => at + 1);
  const across = d3
    .scaleBand<number>()
    .domain(mains)
    .range([8, drawn - 8])
    .paddingInner(0.3)
    .paddingOuter(0.1);
  const middle = HEIGHT / 2 - 6;
  const half = middle - 8;
  const bolts = PLACES.flatMap((one) =>
    boltOrder(layout.mains, perCap[one] ?? 0).map((bolt) => {
      const rows = Math.ceil((perCap[one] ?? 0) / 2);
      const width_ = across.bandwidth();
      const x = across(bolt.main)! + (width_ * bolt.row) / (rows + 1);
      // On a narrow cap the second of a side stands beyond the first, so that each number can be read.
      const isNarrow = rows > 1 && width_ / (rows + 1) < 2 * RADIUS;
      const beyond = isNarrow ? (bolt.row - (rows + 1) / 2) * (2 * RADIUS + 2) : 0;
      const y = middle + (bolt.side === 'left' ? -1 : 1) * (half * AWAY[one] + beyond);
      return { ...bolt, x, y, isNow: one === place, key: `${one} ${bolt.main} ${bolt.side} ${bolt.row}` };
    }),
  );
  const order = bolts.filter(({ isNow }) => isNow).map(({ main, side }) => `${main} ${side}`);
  return (
    <Frame ref={frame}>
      <svg
        viewBox={`0 0 ${drawn} ${HEIGHT}`}
        height={HEIGHT}
        role="img"
        aria-label={`Order of the bolts, by main and side: ${order.join(', ')}`}
      >
        <line className="axis" x1={0} x2={drawn} y1={middle} y2={middle} />
        {mains.map((main) => (
          <g key={main}>
            <rect
              className={main === layout.thrustMain ? 'cap thrust' : 'cap'}
              x={across(main)}
              y={middle - half}
              width={across.bandwidth()}
              height={half * 2}
              rx={6}
            />
            <text className="name" x={across(main)! + across.bandwidth() / 2} y={HEIGHT - 2}>
              M{main}
            </text>
          </g>
        ))}
        {bolts.map(({ key, x, y, isNow, sequence }) => (
          <g key={key}>
            <circle className={isNow ? 'bolt' : 'bolt other'} cx={x} cy={y} r={isNow ? RADIUS : RADIUS * 0.6} />
            {isNow && (
              <text x={x} y={y + 5}>
                {sequence}
              </text>
            )}
          </g>
        ))}
      </svg>
    </Frame>
  );
}
