export type StationState =
  | 'not-measured'
  | 'measured'
  | 'chosen'
  | 'inside'
  | 'checked'
  | 'close'
  | 'may-be-tight'
  | 'may-be-loose'
  | 'tight'
  | 'loose'
  | 'blocked';

/** What each state is called. */
export const STATE_WORDS: Readonly<Record<StationState, string>> = {
  'not-measured': 'Not measured',
  measured: 'Measured',
  chosen: 'Chosen',
  inside: 'Inside',
  checked: 'Checked',
  close: 'Close to limit',
  'may-be-tight': 'May be tight',
  'may-be-loose': 'May be loose',
  tight: 'Tight',
  loose: 'Loose',
  blocked: 'Blocked',
};
