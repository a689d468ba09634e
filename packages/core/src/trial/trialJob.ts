import type { StationFacts } from '../station/stationFacts.js';
import type { StationJob } from '../station/stationJob.js';
import type { StripMembers } from '../strip/stripPart.js';

/** What trials are judged with: the stations of an engine, and the strips that were pressed in them. */
export type TrialJob = StationJob & StripMembers;
export type TrialFacts = StationFacts<TrialJob>;
