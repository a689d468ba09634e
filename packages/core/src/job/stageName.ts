import { STAGE_ROWS } from './stageRows.js';
import type { Stage } from './stages.js';

/** The groups that the stages stand in, in the order of the work. */
export const STAGE_GROUPS = ['Engine', 'Measure', 'Select', 'Check', 'Build'] as const;
export type StageGroup = (typeof STAGE_GROUPS)[number];

/** The stages of the work, in order. */
export const STAGES = Object.keys(STAGE_ROWS) as [Stage, ...Stage[]];

/**
 * What a stage is called.
 *
 * @example stageName('bigEnds') // 'Big ends'
 */
export function stageName(stage: Stage): string {
  return STAGE_ROWS[stage].name;
}

/** The group of a stage. */
export function groupOf(stage: Stage): StageGroup {
  return STAGE_ROWS[stage].group;
}
