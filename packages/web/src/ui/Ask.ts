import styled from 'styled-components';

/** A question asked where the eye is, with its answers as buttons; named by its `aria-label`. */
export const Ask = styled.fieldset`
  flex-basis: 100%;
  min-width: 0;
  margin: 0.5rem 0 0;
  padding: 0.6rem 0.75rem;
  border: 2px solid var(--line-strong);
  border-radius: var(--radius);
  p, ul { margin-bottom: 0.5rem; }
`;
