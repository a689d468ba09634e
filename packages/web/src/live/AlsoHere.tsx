import { stageName } from '@fettle/core';
import { UserRound } from 'lucide-react';
import styled from 'styled-components';
import { useOthers } from './useOthers.js';

const Names = styled.p`
  display: inline-flex;
  align-items: center;
  gap: 0.35rem;
  max-width: 16rem;
  font-size: var(--size-small);
  font-weight: 600;
  color: var(--accent);
  svg { flex: none; }
  span { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
`;

/** Who else works on this engine, and at what. */
export function AlsoHere() {
  const others = useOthers();
  if (others.length === 0) return null;
  const told = others
    .map(
      ({ name, stage, part }) =>
        `${name}${stage === null ? '' : `: ${stageName(stage)}`}${part === null ? '' : ` ${part}`}`,
    )
    .join(', ');
  return (
    <Names title={told} role="status" aria-label={`Also here: ${told}`}>
      <UserRound aria-hidden size={16} />
      <span>{told}</span>
    </Names>
  );
}
