import { isTelling } from '../station/stationOffsets.js';
import type { StationTrial } from '../station/stationTrial.js';
import type { GaugeMode, TrialSchool } from '../station/trialSchema.js';

/** What each school is called, and why one would follow it. */
export const SCHOOL_WORDS: Readonly<Record<TrialSchool, { readonly name: string; readonly why: string }>> = {
  every: { name: 'measure every station', why: 'every station is tried; takes an hour more' },
  one: { name: 'try one, apply to all', why: 'one offset applies to all assembled alike' },
  codes: { name: 'marks only', why: 'parts sorted by the maker, with shells to match; nothing is measured' },
  turns: { name: 'assemble, check that it turns', why: 'shows nothing binds, not the clearance' },
};

export const MODE_WORDS: Readonly<Record<GaugeMode, string>> = {
  journal: 'zeroed on the journal',
  setting: 'zeroed on a setting size',
  bore: 'zeroed in the bore',
};

/** How a trial stands: something is amiss with it, it has been swapped since, it is read and holds, or it is not read yet. */
export type TrialState = 'void' | 'off' | 'swapped' | 'read' | 'open';

export function trialState(tried: StationTrial | null): TrialState {
  if (!tried || tried.difference === null) return 'open';
  if (tried.isVoid !== null) return 'void';
  if (!isTelling(tried)) return 'off';
  return tried.changed === null ? 'read' : 'swapped';
}

/** What has become of the parts of a trial since, in words. */
export const CHANGED_WORDS: Readonly<Record<NonNullable<StationTrial['changed']>, string>> = {
  halves: 'shells changed since',
  swapped: 'shells swapped since',
  rod: 'another rod since',
  cap: 'cap swapped since',
  machined: 'machined since',
};

export const STATE_TEXT: Readonly<Record<TrialState, string>> = {
  void: 'out of date',
  off: 'not as predicted',
  swapped: 'other parts since',
  read: 'as predicted',
  open: 'not read',
};

export const FASTENER_WORDS: Readonly<Record<string, string>> = {
  kind: 'kind of the fasteners',
  name: 'name of the fasteners',
  lubricant: 'lubricant of the fasteners',
  torque: 'torque of the fasteners',
  since: 'when the fasteners were changed',
};

export const WARM_WORDS: Readonly<Record<string, string>> = {
  celsius: 'running temperature',
  iron: 'expansion of iron',
  aluminium: 'expansion of aluminium',
  steel: 'expansion of steel',
  source: 'source of the expansion',
};
