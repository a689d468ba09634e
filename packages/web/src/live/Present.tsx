import type { ShaftColumn } from '@fettle/core';
import { UserRound } from 'lucide-react';
import { memo } from 'react';
import styled from 'styled-components';
import { useOthers } from './useOthers.js';

const Badge = styled.div`
  grid-row: 1;
  align-self: end;
  justify-self: center;
  max-width: 100%;
  display: flex;
  align-items: center;
  gap: 0.2rem;
  padding: 0.05rem 0.4rem;
  border-radius: 1rem;
  background: var(--accent);
  color: var(--on-accent);
  font-size: 0.8125rem;
  font-weight: 600;
  pointer-events: none;
  svg { flex: none; }
  span { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
`;

/** Who else is where along the shaft: over the drawing, so that nothing moves when somebody comes or goes. */
export const Present = memo(({ columns }: { readonly columns: readonly ShaftColumn[] }) => {
  const others = useOthers();
  return columns.map(({ key }, at) => {
    const there = others.filter(({ part }) => part === key);
    if (there.length === 0) return null;
    const names = there.map(({ name }) => name).join(', ');
    return (
      <Badge key={key} style={{ gridColumn: at + 2 }} role="note" aria-label={`At ${key}: ${names}`}>
        <UserRound aria-hidden size={13} />
        <span>{names}</span>
      </Badge>
    );
  });
});
