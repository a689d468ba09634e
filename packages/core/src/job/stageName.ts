import type { StageGroup } from './stageGroup.js';
import { STAGE_ROWS } from './stageRows.js';
import type { Stage } from './stages.js';

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
