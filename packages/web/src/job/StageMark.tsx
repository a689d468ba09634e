import type { StageState } from '@fettle/core';

export const STAGE_STATE_WORDS: Readonly<Record<StageState, string>> = {
  open: 'to do',
  started: 'started',
  done: 'done',
  attention: 'needs attention',
};

/** How far a stage is: empty ring, half ring, tick, exclamation in a square. */
export function StageShape({ state }: { readonly state: StageState }) {
  return (
    <svg
      width="16"
      height="16"
      viewBox="0 0 16 16"
      role="img"
      aria-label={STAGE_STATE_WORDS[state]}
      style={{ flex: 'none' }}
    >
      {state === 'open' && <circle cx="8" cy="8" r="6" fill="none" stroke="var(--ink-soft)" strokeWidth="1.6" />}
      {state === 'started' && (
        <>
          <circle cx="8" cy="8" r="6" fill="none" stroke="var(--accent)" strokeWidth="1.6" />
          <path d="M8 2a6 6 0 0 1 0 12z" fill="var(--accent)" />
        </>
      )}
      {state === 'done' && (
        <>
          <circle cx="8" cy="8" r="7" fill="var(--inside)" />
          <path d="m4.6 8.2 2.4 2.5 4.4-5" fill="none" stroke="var(--surface)" strokeWidth="2" />
        </>
      )}
      {state === 'attention' && (
        <>
          <rect x="1" y="1" width="14" height="14" rx="2" fill="var(--blocked)" />
          <path d="M8 3.6v5.2M8 10.8v1.8" stroke="var(--surface)" strokeWidth="2.2" />
        </>
      )}
    </svg>
  );
}
