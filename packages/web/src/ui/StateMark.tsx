import { STATE_WORDS, type StationState } from '@fettle/core';
import styled from 'styled-components';

const COLOURS: Readonly<Record<StationState, string>> = {
  'not-measured': 'var(--ink-soft)',
  measured: 'var(--accent)',
  chosen: 'var(--accent)',
  inside: 'var(--inside)',
  checked: 'var(--inside)',
  close: 'var(--close)',
  'may-be-tight': 'var(--tight)',
  'may-be-loose': 'var(--loose)',
  tight: 'var(--tight)',
  loose: 'var(--loose)',
  blocked: 'var(--blocked)',
};

/** One shape a state, told apart without colour: tight presses inwards, loose pulls outwards. */
function Shape({ state }: { state: StationState }) {
  switch (state) {
    case 'not-measured':
      return <circle cx="10" cy="10" r="7" fill="none" stroke="currentColor" strokeWidth="2" strokeDasharray="3 2.5" />;
    case 'measured':
      return (
        <>
          <circle cx="10" cy="10" r="7" fill="none" stroke="currentColor" strokeWidth="2" />
          <circle cx="10" cy="10" r="3" fill="currentColor" />
        </>
      );
    case 'chosen':
      return <path d="M10 1.5 18.5 10 10 18.5 1.5 10z" fill="none" stroke="currentColor" strokeWidth="2.4" />;
    case 'inside':
      return (
        <>
          <circle cx="10" cy="10" r="9" fill="currentColor" />
          <path d="m5.6 10.2 3.1 3.2 5.8-6.4" fill="none" stroke="var(--surface)" strokeWidth="2.4" />
        </>
      );
    case 'checked':
      return (
        <>
          <rect x="1" y="1" width="18" height="18" rx="3" fill="currentColor" />
          <path
            d="m3.6 10.4 2.7 2.8 4-4.9m-0.8 4.6 1.4 1.3 5-6.2"
            fill="none"
            stroke="var(--surface)"
            strokeWidth="2"
          />
        </>
      );
    case 'close':
      return (
        <>
          <path d="M2 3h16M2 17h16" stroke="currentColor" strokeWidth="2.2" />
          <path d="M10 5.4 14.6 10 10 14.6 5.4 10z" fill="currentColor" transform="translate(0 -1.6)" />
        </>
      );
    case 'tight':
      return <path d="M2 2h16l-8 7.2zM2 18h16l-8-7.2z" fill="currentColor" />;
    case 'loose':
      return (
        <>
          <path d="M10 0.8 15.6 7H4.4zM10 19.2 4.4 13h11.2z" fill="currentColor" />
          <path d="M3 10h14" stroke="currentColor" strokeWidth="2" strokeDasharray="2.5 2" />
        </>
      );
    case 'may-be-tight':
      return (
        <path
          d="M2.5 2.5h15L10 9zM2.5 17.5h15L10 11z"
          fill="none"
          stroke="currentColor"
          strokeWidth="1.8"
          strokeDasharray="3 1.6"
        />
      );
    case 'may-be-loose':
      return (
        <>
          <path
            d="M10 1.6 15 7H5zM10 18.4 5 13h10z"
            fill="none"
            stroke="currentColor"
            strokeWidth="1.8"
            strokeDasharray="3 1.6"
          />
          <path d="M3 10h14" stroke="currentColor" strokeWidth="2" strokeDasharray="2.5 2" />
        </>
      );
    case 'blocked':
      return (
        <>
          <path d="M6.3 1h7.4L19 6.3v7.4L13.7 19H6.3L1 13.7V6.3z" fill="currentColor" />
          <path d="M5 10h10" stroke="var(--surface)" strokeWidth="3" />
        </>
      );
  }
}

/** The shape alone, for places where the word stands beside it. */
export function StateShape({ state, size = 20 }: { readonly state: StationState; readonly size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" aria-hidden style={{ color: COLOURS[state], flex: 'none' }}>
      <Shape state={state} />
    </svg>
  );
}

const Mark = styled.span<{ $state: StationState }>`
  display: inline-flex;
  align-items: center;
  vertical-align: middle;
  gap: 0.35rem;
  font-weight: 700;
  font-size: var(--size-small);
  line-height: 1.1;
  color: ${({ $state }) => COLOURS[$state]};
`;

/** Shape, word and colour of a station's state. */
export function StateMark({ state }: { readonly state: StationState }) {
  return (
    <Mark $state={state}>
      <StateShape state={state} />
      {STATE_WORDS[state]}
    </Mark>
  );
}
