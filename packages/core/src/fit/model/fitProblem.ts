import type { Nanometres } from '../../measure/nanometres.js';
import type { SizeBand } from '../../measure/sizeBand.js';
import type { Unit } from '../../measure/unit.js';
import type { Family } from '../../part/family.js';
import type { Side } from '../../shell/side.js';

/*
 * What the search is asked, in whole nanometres and by ids. An engine's own choice is asked like this directly; the open format is read into it
 * where it comes in. Names are for sentences only: nothing is looked up by them.
 */

/** A station that wants a housing and two halves. */
export interface ProblemStation {
  readonly id: string;
  readonly name: string;
  /** The engine it belongs to; empty where there is one. */
  readonly engine: string;
  readonly family: Family;
  readonly journal: Nanometres;
  /** All that the journal may be, where only its mark is known. */
  readonly journalBand?: SizeBand | undefined;
  /** Smallest and largest reading: the low limit is judged on the largest journal, the high limit on the smallest. */
  readonly journalReadings?: SizeBand | undefined;
  /** The place whose halves it takes; empty for none of its own. */
  readonly position: string;
  readonly aim: Nanometres;
  readonly low: Nanometres;
  readonly high: Nanometres;
  /** Assembly offset of a pair whose series has none of its own, and of a pair of two series. */
  readonly offset: Nanometres;
  readonly offsets: readonly { readonly series: string; readonly offset: Nanometres }[];
  /** True if it counts in the spread of its engine and family. */
  readonly inSpread: boolean;
  /** What the flanges of its halves have to do; left out where they carry none. */
  readonly endPlay?: ProblemEndPlay | undefined;
}

/** The end play that the flanges of a station's halves have to give. */
export interface ProblemEndPlay {
  readonly reading: Nanometres;
  /** Width over the flanges that was fitted when it was read. */
  readonly fitted: Nanometres;
  readonly low: Nanometres;
  readonly high: Nanometres;
  readonly aim: Nanometres;
  /** Weight of its deviation beside that of the clearance; 0: it only decides between plans of equal cost. */
  readonly weight: number;
}

/** A bore that a station may have. */
export interface ProblemHousing {
  readonly id: string;
  readonly name: string;
  readonly engine: string;
  readonly family: Family;
  readonly bore: Nanometres;
  readonly boreBand?: SizeBand | undefined;
  readonly boreReadings?: SizeBand | undefined;
  /** The station it belongs to; null where it may go to any of its engine and family. */
  readonly station: string | null;
}

/** A kind of half, and how many of it there are. */
export interface ProblemShell {
  readonly id: string;
  readonly name: string;
  readonly family: Family;
  readonly series: string;
  readonly half: Side;
  readonly wall: Nanometres;
  readonly wallBand?: SizeBand | undefined;
  /** Width over the flanges; left out for a half without. */
  readonly width?: Nanometres | undefined;
  /** The places it fits; left out: all. */
  readonly positions?: readonly string[] | undefined;
  /** Empty for standard. */
  readonly undersize: string;
  /** Null where as many as wanted can be had. */
  readonly stock: number | null;
  readonly price: number;
}

export interface ProblemRules {
  readonly mixedHalves: boolean;
  readonly acrossSeries: boolean;
  readonly maxWallStep: Nanometres;
  readonly thinnerHalf: 'either' | 'upper' | 'lower';
  readonly maxSpread: Readonly<Record<Family, Nanometres | null>>;
  /** Weight of a shortfall below the aim beside the same excess. */
  readonly tightWeight: number;
  /** Cost of a mixed station, µm². */
  readonly mixedPenalty: number;
  /** Cost of one unit of price, µm². */
  readonly pricePenalty: number;
  /** Furthest move of a limit that is offered as a remedy, as a share of the range between the limits. */
  readonly limitShare: number;
}

/** What is kept at a station, by ids. */
export interface Hold {
  readonly station: string;
  readonly housing?: string | undefined;
  readonly upper?: string | undefined;
  readonly lower?: string | undefined;
}

/** What may not go to a station, by ids. */
export interface Forbid {
  readonly station: string;
  readonly housing?: string | undefined;
  readonly shell?: string | undefined;
  readonly mixed?: true | undefined;
}

/** Which housing and which halves every station gets: what is asked. */
export interface FitProblem {
  /** The unit in which sentences give lengths. */
  readonly unit: Unit;
  readonly stations: readonly ProblemStation[];
  readonly housings: readonly ProblemHousing[];
  readonly shells: readonly ProblemShell[];
  readonly rules: ProblemRules;
  readonly wishes: { readonly hold: readonly Hold[]; readonly forbid: readonly Forbid[] };
}

/** The furthest a remedy moves a limit where nobody says, as a share of the range between the limits. */
export const USUAL_LIMIT_SHARE = 0.5;
