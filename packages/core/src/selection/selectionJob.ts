import type { CrushMembers } from '../crush/crushPart.js';
import type { EndPlayMembers } from '../endPlay/endPlayPart.js';
import type { PiecesMembers } from '../endPlay/piecesPart.js';
import type { StationFacts } from '../station/stationFacts.js';
import type { StationJob } from '../station/stationJob.js';
import type { SelectionMembers } from './selectionPart.js';
import type { ShellsMembers } from './shellsPart.js';

/** What halves are selected for and from: the stations of an engine, its rules and halves, and what washers and shims take. */
export type SelectionJob = StationJob &
  ShellsMembers &
  SelectionMembers &
  PiecesMembers &
  EndPlayMembers &
  CrushMembers;

/** What is known of an engine that halves are selected for. */
export type SelectionFacts = StationFacts<SelectionJob>;
