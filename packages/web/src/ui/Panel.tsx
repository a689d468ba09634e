import styled from 'styled-components';

/** A sheet of paper on the table. */
export const Panel = styled.section`
  background: var(--surface);
  border: var(--rule) solid var(--line);
  border-radius: var(--radius);
  padding: 1rem;
`;

export const PanelTitle = styled.h2`
  font-size: var(--size-lead);
  font-weight: 700;
  line-height: 1.2;
`;

export const Quiet = styled.p`
  color: var(--ink-soft);
  font-size: var(--size-small);
`;

export const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.75rem;
  /* A link that stands by itself is hit like a button. */
  > a { display: inline-flex; align-items: center; min-height: var(--target); }
`;

/** A plain table with ruled lines; figures right-aligned. */
export const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  th { text-align: left; font-size: var(--size-small); font-weight: 600; color: var(--ink-soft); padding: 0.25rem 0.4rem; vertical-align: bottom; }
  td { padding: 0.3rem 0.4rem; border-top: var(--rule) solid var(--line); vertical-align: middle; }
  th.number, td.number { text-align: right; }
  td.number { font-family: var(--figures); font-variant-numeric: tabular-nums; white-space: nowrap; }
`;
