import type { Nanometres } from '../../measure/nanometres.js';
import type { Family } from '../../part/family.js';
import type { ProblemRules, ProblemShell } from './fitProblem.js';

/** A number of shells of one kind, by its id. */
export interface ShellCount {
  readonly id: string;
  readonly count: number;
}

export type RemedyKind = 'release' | 'move-rod' | 'buy' | 'wall' | 'rule' | 'regrind' | 'limit';

/** A rule that a remedy may change. */
export type ChangedRules = {
  readonly [Key in 'mixedHalves' | 'acrossSeries' | 'maxWallStep' | 'thinnerHalf']?: ProblemRules[Key];
} & { readonly maxSpread?: Partial<Record<Family, Nanometres>> };

/** One change after which what it is for fits: it was applied to the whole problem and solved. */
export interface Remedy {
  readonly kind: RemedyKind;
  readonly message: string;
  readonly stations: readonly string[];
  /** Halves to get, of those in the problem. */
  readonly shells: readonly ShellCount[];
  /** Halves to get that are not in the problem. */
  readonly newShells?: readonly (ProblemShell & { readonly stock: number })[];
  /** Housings that leave their station. */
  readonly housings?: readonly string[];
  readonly rules?: ChangedRules;
  /** Size that the journal of the station is ground to. */
  readonly journal?: Nanometres;
  /** The limit of the station that is moved, and where to. */
  readonly limit?: { readonly side: 'low' | 'high'; readonly value: Nanometres };
}

/** Why stations do not fit, singly or together. Stations, halves and housings are named by their ids; the sentences have their names. */
export interface Conflict {
  readonly kind: 'no-pair-in-range' | 'stock-short' | 'spread' | 'matching' | 'rules';
  readonly stations: readonly string[];
  /** True if the others were shown to fit without any one of the stations, as far as this conflict goes. */
  readonly minimal?: boolean;
  /** Halves they compete for. */
  readonly shells: readonly string[];
  readonly message: string;
  /** The pair that comes nearest to the limits of a station that none serves. */
  readonly nearest?: {
    readonly housing: string;
    readonly upper: string;
    readonly lower: string;
    readonly clearance: Nanometres;
    readonly low: Nanometres;
    readonly high: Nanometres;
    /** Distance outside the limits; below zero too tight, above too loose. */
    readonly by: Nanometres;
  };
  /** The fewest halves that the stations lack, where that was found. */
  readonly missing?: readonly ShellCount[];
  /** What the time, or the work that an explanation may take, was too short for. */
  readonly leftOut?: string;
  readonly spread?: {
    readonly family: Family;
    readonly limit: Nanometres;
    /** Smallest spread limit that works; null: not found. */
    readonly least: Nanometres | null;
  };
  /** Housings that fit any of the stations. */
  readonly housings?: readonly string[];
  readonly remedy: string;
  /** Single changes after which everything fits, the cheapest first. */
  readonly remedies?: readonly Remedy[];
  /** Changes after which the stations concerned fit, while other conflicts remain. */
  readonly partRemedies?: readonly Remedy[];
}

/** How well a clearance is known where a size of its station is known by its band only. */
export interface KnownClearance {
  readonly tightest: Nanometres;
  readonly loosest: Nanometres;
  /** Chance that the clearance is inside the limits, 0 to 1; sizes taken as even over their bands. */
  readonly inside: number;
}

/** What a station gets, by ids. */
export interface SolvedStation {
  readonly id: string;
  readonly housing: string;
  readonly upper: string;
  readonly lower: string;
  readonly clearance: Nanometres;
  /** Clearance less aim. */
  readonly deviation: Nanometres;
  /** True if the two walls differ. */
  readonly mixed: boolean;
  /** End play with these halves, where their flanges set it. */
  readonly endPlay?: Nanometres;
  readonly known?: KnownClearance;
}

/** The answer to a problem, in whole nanometres and by ids. */
export interface FitSolution {
  readonly status: 'optimal' | 'feasible' | 'infeasible' | 'stopped';
  /** µm²; null when infeasible or stopped. */
  readonly cost: number | null;
  /** Proven lower bound of the cost of any plan, µm²; null when infeasible. */
  readonly bound: number | null;
  /** In the order of the problem. */
  readonly stations: readonly SolvedStation[];
  readonly shellsUsed: readonly ShellCount[];
  /** Largest less smallest deviation per engine and family. */
  readonly spread: readonly { readonly engine: string; readonly family: Family; readonly value: Nanometres }[];
  readonly conflicts: readonly Conflict[];
  /** What one more half of a kind would save, µm². */
  readonly prices?: readonly { readonly id: string; readonly price: number }[];
}
