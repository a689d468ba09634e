import styled from 'styled-components';

/** Expert settings folded away, with their values told in the line that opens them. */
export const Fold = styled.details`
  margin-top: 0.5rem;
  summary { cursor: pointer; min-height: var(--target); display: flex; align-items: center; color: var(--accent); font-weight: 600; }
`;

/** Fields two by two. */
export const FieldPairs = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0.25rem 0.75rem;
  margin-top: 0.5rem;
`;

/** Boxes that belong together, for who hears the page; nothing is drawn around them. */
export const PlainGroup = styled.fieldset`
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
`;
