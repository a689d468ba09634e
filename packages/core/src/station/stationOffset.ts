import type { Budget } from '../measure/budget.js';
import type { Nanometres } from '../measure/nanometres.js';

/** How an assembly with one series of shells differs from the sum of its parts at one station. */
export interface StationOffset {
  readonly series: string;
  readonly offset: Nanometres;
  /** Standard uncertainty of the offset, nm. */
  readonly u: number;
  /** What that comes from. */
  readonly budget: Budget;
  /** The stations whose trials it comes from; none where other engines let expect it. */
  readonly stations: readonly string[];
  /** How many other engines let expect it; 0: it comes from trials of this one. */
  readonly engines: number;
  readonly isSpread: boolean;
  /** True if the station itself was tried, rather than others of its family. */
  readonly isOwn: boolean;
}
