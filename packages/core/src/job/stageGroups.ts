import type { StageState } from './slice.js';
import { STAGES, type Stage } from './stages.js';

/** The stages in five groups, in the order of the work. Every stage is in one of them. */
const GROUPS = {
  Engine: ['data'],
  Measure: ['codes', 'bores', 'journals', 'bigEnds', 'pins', 'runout'],
  Select: ['drawer', 'choose'],
  Check: ['trial', 'crush', 'endPlay'],
  Build: ['assembly', 'torque', 'sheet'],
} as const satisfies Readonly<Record<string, readonly Stage[]>>;

export type StageGroup = keyof typeof GROUPS;
export const STAGE_GROUPS = Object.keys(GROUPS) as readonly StageGroup[];

/** How far a group is. */
export interface GroupProgress {
  readonly group: StageGroup;
  readonly state: StageState;
  /** Stages done, and stages that the engine has. */
  readonly done: number;
  readonly of: number;
}

/** The group of a stage. */
export function groupOf(stage: Stage): StageGroup {
  return STAGE_GROUPS.find((group) => (GROUPS[group] as readonly Stage[]).includes(stage))!;
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
