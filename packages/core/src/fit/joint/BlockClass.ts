import type { StationBlock } from './StationBlock.js';

/** Blocks with the same cells: one of them, solved for all. */
export interface BlockClass {
  readonly block: StationBlock;
  /** Per unit and station of the block, its options cell by cell. */
  readonly units: readonly (readonly Int32Array[])[];
  /** Per unit its stations. */
  readonly stations: readonly (readonly number[])[];
}
