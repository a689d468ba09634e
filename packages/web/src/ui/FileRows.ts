import styled from 'styled-components';

/** The rows of a file before they are kept: bad ones stand out, and a long file scrolls in its place. */
export const FileRows = styled.div`
  max-height: 26rem;
  overflow: auto;
  margin: 0.5rem 0;
  td { vertical-align: top; }
  tr.bad td { background: var(--attention-soft); }
`;
