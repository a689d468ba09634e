import type { Stage } from '@fettle/core';
import Markdown, { type Components } from 'react-markdown';
import styled from 'styled-components';
import { guideText } from './guidePages.js';

const Text = styled.div`
  display: flex; flex-direction: column; gap: 0.6rem; max-width: 46rem; line-height: 1.45; overflow-wrap: anywhere;
  h2 { font-size: var(--size-lead); line-height: 1.2; }
  h3 { font-size: var(--size-body); margin-top: 0.3rem; }
  ul, ol { padding-left: 1.3rem; display: flex; flex-direction: column; gap: 0.3rem; }
  ul { list-style: disc; }
  ol { list-style: decimal; }
  code { font-family: var(--figures); font-size: 0.95em; }
  blockquote { margin: 0; padding: 0.5rem 0.75rem; border-left: 4px solid var(--close); background: var(--bg); }
`;

/** One level down: the page has a heading of its own. The pictures are of the screen that the text stands beside. */
const PARTS: Components = {
  h1: ({ children }) => <h2>{children}</h2>,
  h2: ({ children }) => <h3>{children}</h3>,
  img: () => null,
};

/** A page of the handbook. */
export function GuideText({ stage }: { readonly stage: Stage }) {
  return (
    <Text>
      <Markdown components={PARTS}>{guideText(stage)}</Markdown>
    </Text>
  );
}
