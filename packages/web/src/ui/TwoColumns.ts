import styled from 'styled-components';

/** Two columns of panels, the left one wider; one below the other where the screen is narrow. */
export const TwoColumns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  @media (max-width: 1080px) { grid-template-columns: minmax(0, 1fr); }
  @container stage (max-width: 940px) { grid-template-columns: minmax(0, 1fr); }
  gap: 0.75rem;
  align-items: start;
  > div { min-width: 0; display: flex; flex-direction: column; gap: 0.75rem; }
`;
