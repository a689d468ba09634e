import styled from 'styled-components';

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
  .whisker { stroke: var(--ink-soft); stroke-width: 1.5; }
  .dot { fill: var(--surface); stroke: var(--ink); stroke-width: 1.5; }
  .bar { fill: var(--accent); }
  .even { stroke: var(--ink); stroke-width: 2; stroke-dasharray: 4 3; }
  text { font-size: 13px; fill: var(--ink-soft); }
  text.figure { font-family: var(--figures); fill: var(--ink); }
`;

/** Size of a chart in its own units, and what is kept free around it. */
export const CHART = { width: 720, height: 240, left: 84, right: 16, top: 12, bottom: 34 } as const;
