import { createGlobalStyle } from 'styled-components';
import { declarationsOf } from './tokens.js';

/** Type scale in rem; figures are set in the monospaced face so that digits line up. */
export const GlobalStyle = createGlobalStyle`
  :root {
    ${declarationsOf('light')}
    color-scheme: light;
    --text: 'Atkinson Hyperlegible Next Variable', system-ui, sans-serif;
    --figures: 'Atkinson Hyperlegible Mono Variable', ui-monospace, monospace;
    --size-small: 0.875rem;
    --size-body: 1rem;
    --size-figure: 1.1875rem;
    --size-lead: 1.375rem;
    --size-title: 1.75rem;
    --gap: 0.5rem;
    --radius: 6px;
    --rule: 1px;
    --target: 44px;
  }
  :root[data-appearance='dark'] { ${declarationsOf('dark')} color-scheme: dark; }
  :root[data-appearance='workshop'] { ${declarationsOf('workshop')} color-scheme: dark; --rule: 2px; font-size: 106.25%; }
  *, *::before, *::after { box-sizing: border-box; }
  html, body, #root { height: 100%; }
  /* What has the focus is not under the button that a phone has at its foot. */
  @media (max-width: 640px) { html { scroll-padding-bottom: 56px; } }
  body {
    margin: 0;
    background: var(--bg);
    color: var(--ink);
    font-family: var(--text);
    font-size: var(--size-body);
    line-height: 1.4;
  }
  h1, h2, h3, p, dl, dd, ul, ol, figure { margin: 0; padding: 0; }
  ul, ol { list-style: none; }
  a { color: var(--accent); }
  [data-kept-focus]:focus { outline: none; }
  :focus-visible { outline: 3px solid var(--accent); outline-offset: 2px; }
  /* Where the device's own few colours stand for all of ours, what is current or pressed has an edge, and the focus a wider one. */
  @media (forced-colors: active) {
    [aria-current]:not([aria-current='false']), [aria-pressed='true'], [aria-selected='true'] { outline: 2px dashed Highlight; outline-offset: -2px; }
    :focus-visible { outline: 3px solid Highlight !important; }
  }
  /* How many of something: no reading, so it needs no face of its own. */
  .count { font-variant-numeric: tabular-nums; white-space: nowrap; }
  .figure { font-family: var(--figures); font-variant-numeric: tabular-nums; white-space: nowrap; }
  .visually-hidden {
    position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap;
  }
  @media print {
    :root, :root[data-appearance] { ${declarationsOf('light')} --bg: #fff; --surface: #fff; --ink: #000; --ink-soft: #222; color-scheme: light; font-size: 10.5pt; }
    .no-print { display: none !important; }
  }
`;
