import { TriangleAlert } from 'lucide-react';
import type { ReactNode } from 'react';
import styled from 'styled-components';

const Box = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem 0.75rem;
  padding: 0.6rem 0.9rem;
  border: 2px solid var(--close);
  border-radius: var(--radius);
  background: var(--attention-soft);
  color: var(--ink);
  svg { flex: none; color: var(--close); }
  > div { flex: 1 1 20rem; }
`;

interface NoticeProps {
  readonly children: ReactNode;
  readonly actions?: ReactNode;
  /** Announced at once to screen readers. */
  readonly urgent?: boolean;
}

/** Something that needs a decision or an eye. */
export function Notice({ children, actions, urgent = false }: NoticeProps) {
  return (
    <Box role={urgent ? 'alert' : 'status'}>
      <TriangleAlert aria-hidden size={22} />
      <div>{children}</div>
      {actions}
    </Box>
  );
}
