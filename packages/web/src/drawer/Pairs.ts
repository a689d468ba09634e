import styled from 'styled-components';

/** Boxes two by two; a whole one takes both places. */
export const Pairs = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.25rem 0.75rem;
  > .whole { grid-column: 1 / -1; }
`;
