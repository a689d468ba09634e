import { isSample } from '@fettle/core';
import styled from 'styled-components';

const Mark = styled.span`
  display: inline-block; padding: 0 0.4rem; border: 1px solid var(--line-strong); border-radius: 4px; background: var(--bg);
  color: var(--ink-soft); font-size: 0.8125rem; font-weight: 600; line-height: 1.35; vertical-align: 0.1em; white-space: nowrap;
`;

/** Says of an engine, a type or a line of stock that it came with Fettle; nothing for any other. */
export function Sample({ id }: { readonly id: string }) {
  return isSample(id) ? <Mark>Sample</Mark> : null;
}
