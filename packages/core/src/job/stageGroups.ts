import type { StageState } from '../stage/slice.js';
import { STAGE_GROUPS, type StageGroup } from './stageGroup.js';
import { groupOf, STAGES } from './stageName.js';
import type { Stage } from './stages.js';

/** How far a group is. */
export interface GroupProgress {
  readonly group: StageGroup;
  readonly state: StageState;
  /** Stages done, and stages that the engine has. */
  readonly done: number;
  readonly of: number;
}

/**
 * How far each group is: a group needs attention where one of its stages does, and is done where all are.
 *
 * @param states of the stages that the engine has
 * @returns a row per group with at least one stage, in the order of the work
 */
export function groupProgress(states: Readonly<Partial<Record<Stage, StageState>>>): GroupProgress[] {
  return STAGE_GROUPS.flatMap((group) => {
    const of = STAGES.flatMap((stage) => (groupOf(stage) === group ? (states[stage] ?? []) : []));
    if (of.length === 0) return [];
    const done = of.filter((state) => state === 'done').length;
    const state: StageState = of.includes('attention')
      ? 'attention'
      : done === of.length
        ? 'done'
        : of.every((one) => one === 'open')
          ? 'open'
          : 'started';
    return [{ group, state, done, of: of.length }];
  });
}
