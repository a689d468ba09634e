import type { KitChance } from '@fettle/core';
import styled from 'styled-components';

const Bar = styled.svg`
  display: block;
  width: 100%;
  min-width: 8rem;
  .all { fill: var(--sunken); }
  .share { fill: var(--accent); }
  .sure { stroke: var(--ink); stroke-width: 2; }
  .asked { stroke: var(--brass); stroke-width: 2; stroke-dasharray: 3 2; }
`;

/** A share in per cent with one decimal, never 100 where an engine was missed. */
export function percent(share: number): string {
  const text = (share * 100).toFixed(1);
  return share < 1 && text === '100.0' ? 'over 99.9 %' : `${text} %`;
}

/** A chance drawn: its share, the interval it lies in, and what was asked for. */
export function ChanceBar({ chance, target }: { chance: KitChance; target: number }) {
  return (
    <Bar viewBox="0 0 100 12" height={14} preserveAspectRatio="none" aria-hidden>
      <rect className="all" width={100} height={12} />
      <rect className="share" width={chance.chance * 100} y={3} height={6} />
      <path
        className="sure"
        d={`M${chance.low * 100} 1v10M${chance.high * 100} 1v10`}
        vectorEffect="non-scaling-stroke"
      />
      <line className="asked" x1={target * 100} x2={target * 100} y1={0} y2={12} vectorEffect="non-scaling-stroke" />
    </Bar>
  );
}
