import styled from 'styled-components';
import { useNarrow } from '../base/useNarrow.js';

/** The charts of what is known: one ink, one accent, thin rules. */
export const Svg = styled.svg`
  display: block;
  width: 100%;
  max-width: 56rem;
  height: auto;
  .frame { fill: var(--sunken); }
  .band { fill: var(--accent-soft); }
  .zero { stroke: var(--line-strong); }
  .mean { stroke: var(--accent); stroke-width: 2; }
  .whisker { stroke: var(--ink); stroke-width: 1.75; }
  .dot { fill: var(--surface); stroke: var(--ink); stroke-width: 1.5; }
  .bar { fill: var(--accent-soft); stroke: var(--accent); stroke-width: 1.5; }
  .even { stroke: var(--ink); stroke-width: 2; stroke-dasharray: 4 3; }
  text { font-size: 13px; fill: var(--ink-soft); }
  text.figure { font-family: var(--figures); fill: var(--ink); }
`;

const WIDE = { width: 720, height: 240, left: 84, right: 16, top: 12, bottom: 34, isNarrow: false } as const;
const NARROW = { ...WIDE, width: 360, isNarrow: true } as const;

/** Size of a chart in its own units, and what is kept free around it: on a phone half as wide, so that its words can be read. */
export function useChart(): typeof WIDE | typeof NARROW {
  return useNarrow() ? NARROW : WIDE;
}
