import styled from 'styled-components';

export const Pairs = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(11rem, 1fr));
  gap: 0.25rem 0.75rem;
  margin-top: 0.5rem;
  > .whole { grid-column: 1 / -1; }
`;

export const Extras = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(9rem, 1fr));
  gap: 0.25rem 0.75rem;
`;
