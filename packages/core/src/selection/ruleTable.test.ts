import { describe, expect, it } from 'vitest';
import { newJob } from '../job/newJob.js';
import { lengthText } from '../measure/lengthText.js';
import { nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import { rulesInWords } from './rulesInWords.js';
import { jobRulesSchema, RULE_TABLE, RULE_UPGRADES, RULES, rulesOfProblem } from './ruleTable.js';

function vee() {
  const usual = usualLayout(5, 8, 2, 5);
  if (!usual.ok) throw new Error(usual.message);
  return newJob('Samphire 8', 'in', usual.layout, { block: 'aluminium', caps: 'iron', rods: 'steel' }, true);
}

describe('the rules of the selection', () => {
  it('are in a new job as their rows have them, and each has words for the history', () => {
    const { rules } = vee();
    expect(jobRulesSchema.parse(rules)).toEqual(rules);
    // Common practice: 0.0005 in, and the thinner half to the cap side of an aluminium block.
    expect(rules).toMatchObject({ maxWallStep: 12_700, thinnerHalf: 'lower', tightWeight: 2, leastChance: null });
    expect(new Set(RULES.map(([, { place }]) => place)).size).toBe(RULES.length);
  });

  it('enter the problem, and what the search does not know stays out', () => {
    const rules = { ...vee().rules, maxSpread: nanometres(5080), maxRodSpread: null, spreadMains: [1, 2, 3] };
    expect(rulesOfProblem(rules)).toEqual({
      mixedHalves: true,
      acrossSeries: false,
      thinnerHalf: 'lower',
      maxWallStep: 12_700,
      maxSpread: { main: 5080, rod: null },
      tightWeight: 2,
      mixedPenalty: 4,
      pricePenalty: 0,
      limitShare: 0.5,
    });
    expect(rulesOfProblem({ ...rules, limitShare: 0.2 })).toHaveProperty('limitShare', 0.2);
  });

  it('come to stored rules with the version that brought them, under what is stored', () => {
    expect(RULE_UPGRADES[3]!({ rules: { tightWeight: 3 } })).toEqual({ rules: { leastChance: null, tightWeight: 3 } });
    expect(RULE_UPGRADES[3]!({ rules: { leastChance: 0.95 } })).toEqual({ rules: { leastChance: 0.95 } });
  });

  it('say of a rule only what an engine has', () => {
    const length = (value: number) => lengthText(nanometres(value), 'mm');
    expect(RULE_TABLE.maxRodSpread.words!(nanometres(4000), length, vee().rules)).toBe(
      'spread of the rods at most 0.004 mm',
    );
    const job = vee();
    const rules = { ...job.rules, maxSpread: nanometres(5080), spreadMains: [1, 2] };
    expect(rulesInWords({ ...job, rules })).toBe(
      'Two walls in one main up to 0.0005 in apart, the thinner shell on the cap side; one series in a main; spread of the mains 1-2 at most 0.0002 in; rods stay on their bank; a shortfall weighs 2 times',
    );
    expect(RULE_TABLE.rodsAcrossBanks.isOf!(vee())).toBe(true);
    expect(RULE_TABLE.rodsAcrossBanks.isOf!({ ...vee(), withRods: false })).toBe(false);
  });
});
