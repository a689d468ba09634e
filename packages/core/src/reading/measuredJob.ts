import type { MarksMembers } from '../codes/marksPart.js';
import type { EngineMembers } from '../engineType/enginePart.js';
import type { RodsMembers } from '../part/rodsPart.js';
import type { Swaps } from '../part/swap.js';
import type { FastenersMembers } from '../torque/fastenersPart.js';
import type { InstrumentsMembers } from './instrumentsPart.js';
import type { MeasuringMembers } from './measuringPart.js';

/** What readings of an engine are judged with: its data sheet, how it is read, and what has changed places since. */
export type MeasuredJob = EngineMembers &
  RodsMembers &
  MarksMembers &
  MeasuringMembers &
  InstrumentsMembers &
  FastenersMembers & { readonly assembly: { readonly swaps: Swaps } };
