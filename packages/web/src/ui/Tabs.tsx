import styled from 'styled-components';

/** Links to the parts of one thing, as tabs. */
export const Tabs = styled.nav`
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem;
  border-bottom: 2px solid var(--line-strong);
  a {
    display: inline-flex; align-items: center; gap: 0.35rem; min-height: var(--target); padding: 0 0.55rem; font-size: 0.9375rem;
    border: var(--rule) solid transparent; border-bottom: 0; border-radius: var(--radius) var(--radius) 0 0;
    color: var(--ink); font-weight: 600; text-decoration: none;
  }
  a.active { background: var(--surface); border-color: var(--line-strong); box-shadow: 0 2px 0 var(--surface); color: var(--accent); }
`;
