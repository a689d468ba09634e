import { describe, expect, it } from 'vitest';
import { STAGE_GROUPS } from './stageGroup.js';
import { groupProgress } from './stageGroups.js';
import { groupOf, STAGES } from './stageName.js';

describe('the stages in five groups', () => {
  it('hold every stage once', () => {
    expect(new Set(STAGES.map(groupOf))).toEqual(new Set(STAGE_GROUPS));
    expect(STAGES.filter((stage) => groupOf(stage) === undefined)).toEqual([]);
  });

  it('are as far as their stages are', () => {
    expect(
      groupProgress({
        data: 'done',
        bores: 'done',
        journals: 'open',
        drawer: 'open',
        choose: 'open',
        sheet: 'started',
      }),
    ).toEqual([
      { group: 'Engine', state: 'done', done: 1, of: 1 },
      { group: 'Measure', state: 'started', done: 1, of: 2 },
      { group: 'Select', state: 'open', done: 0, of: 2 },
      { group: 'Build', state: 'started', done: 0, of: 1 },
    ]);
    expect(groupProgress({ bores: 'attention', journals: 'done' })[0]!.state).toBe('attention');
  });
});
