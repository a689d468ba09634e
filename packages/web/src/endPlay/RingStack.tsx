import { lengthText, type Nanometres, type Unit } from '@fettle/core';
import styled from 'styled-components';
import { useClearances } from '../person/useClearances.js';

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  max-height: 15rem;
  .shaft { fill: var(--sunken); stroke: var(--steel-dark); }
  .block { fill: var(--steel); stroke: var(--steel-dark); }
  .ring { fill: var(--brass); stroke: var(--ink); }
  .left { fill: var(--accent-soft); stroke: var(--accent); stroke-dasharray: 4 3; }
  text { font-size: 13px; fill: var(--ink); }
  text.figure { font-family: var(--figures); }
  text.soft { fill: var(--ink-soft); }
`;

interface RingStackProps {
  readonly unit: Unit;
  readonly gap: Nanometres | null;
  /** Thicknesses of the rings in hand. */
  readonly rings: readonly Nanometres[];
  readonly settle: Nanometres;
}

/** The end of the shaft with its stack of rings, to one scale: what the gap takes, and what is left over. */
export function RingStack({ unit, gap, rings, settle }: RingStackProps) {
  const { shown } = useClearances(unit);
  const sum = rings.reduce<number>((total, ring) => total + ring, 0);
  const left = gap === null ? null : ((gap - settle - sum) as Nanometres);
  const whole = Math.max(gap ?? 0, sum, 1);
  const px = 300 / whole;
  const from = 130;
  let at = from;
  const drawn = rings.map((ring) => {
    const x = at;
    at += ring * px;
    return { x, width: ring * px, ring };
  });
  const end = from + Math.max(gap ?? sum, sum) * px;
  const label =
    gap === null
      ? 'End of the shaft; the gap without shims was not read yet.'
      : `Gap ${lengthText(gap, shown)}, ${rings.length} rings total ${lengthText(sum, shown)}: ${lengthText(left!, shown)} remains.`;
  return (
    <Svg viewBox="0 0 560 190" role="img" aria-label={label}>
      <rect className="shaft" x={20} y={58} width={end - 20 + 60} height={44} />
      <rect className="block" x={40} y={20} width={from - 40} height={120} rx={4} />
      <rect className="block" x={end} y={20} width={80} height={120} rx={4} />
      {drawn.map(({ x, width, ring }, place) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a ring is told by its place in the stack
        <g key={place}>
          <rect className="ring" x={x} y={34} width={Math.max(3, width)} height={92} />
          <text className="figure" x={x + width / 2} y={place % 2 === 0 ? 26 : 146} textAnchor="middle">
            {lengthText(ring, shown)}
          </text>
        </g>
      ))}
      {left !== null && left > 0 && rings.length > 0 && (
        <rect className="left" x={at} y={34} width={Math.max(2, end - at)} height={92} />
      )}
      <text x={85} y={84} textAnchor="middle">
        block
      </text>
      <text x={end + 40} y={84} textAnchor="middle">
        flange
      </text>
      <text x={20} y={178} className="soft">
        gap {gap === null ? 'not read' : lengthText(gap, shown)}
        {settle > 0 && `, settles ${lengthText(settle, shown)}`}
      </text>
      {left !== null && rings.length > 0 && (
        <text x={540} y={178} textAnchor="end">
          {left < 0 ? `binds by ${lengthText(-left, shown)}` : `left: ${lengthText(left, shown)}`}
        </text>
      )}
    </Svg>
  );
}
