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
  chosen: 'Selected, no limits',
  inside: 'In limits',
  checked: 'Measured, in limits',
  close: 'Near limit',
  'may-be-tight': 'Could be tight',
  'may-be-loose': 'Could be loose',
  tight: 'Too tight',
  loose: 'Too loose',
  blocked: 'Part out of limits',
};
