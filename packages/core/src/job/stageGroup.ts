/** The groups that the stages stand in, in the order of the work. */
export const STAGE_GROUPS = ['Engine', 'Measure', 'Select', 'Check', 'Build'] as const;
export type StageGroup = (typeof STAGE_GROUPS)[number];
