import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { usualLayout } from '../part/crankLayout.js';
import { blankParts, PART_MEMBERS, partsInVersion } from './jobParts.js';
import { JOB_UPGRADES, JOB_VERSION } from './jobUpgrades.js';
import { PARTS } from './stages.js';

describe('parts of the job document', () => {
  it('are blank as their own schema has them, in either unit, and each is of one part', () => {
    const schema = z.strictObject(PART_MEMBERS);
    const usual = usualLayout(5, 4, 1, 3);
    if (!usual.ok) throw new Error(usual.message);
    const { layout } = usual;
    const materials = { block: 'aluminium', caps: 'iron', rods: 'steel' } as const;
    for (const unit of ['mm', 'in'] as const) {
      const blank = blankParts({ unit, isByMarks: false, name: 'Sedge 4', layout, materials, withRods: true });
      expect(schema.parse(blank)).toEqual(blank);
    }
    for (const member of Object.keys(PART_MEMBERS)) {
      const owners = PARTS.filter(({ members }) => member in members);
      expect(owners, member).toHaveLength(1);
    }
  });

  it('come to a stored job with the version that brought them, and leave what is stored', () => {
    const stored = { unit: 'in', depth: 'codes', runout: { steps: 12, mains: {}, flange: {}, startTooth: '' } };
    const second = partsInVersion(stored, 2);
    expect(Object.keys(second).sort()).toEqual(['crush', 'depth', 'endPlay', 'pieces', 'runout', 'unit']);
    const third = partsInVersion(second, 3);
    expect(third).toMatchObject({ trialSchool: 'codes', trials: {}, strips: {}, runout: { steps: 12 } });
    // A part that came earlier is brought forward once, by the version that changed it.
    const instruments = { micrometer: { name: 'Mic' } };
    expect(partsInVersion({ ...third, instruments }, 4).instruments).toEqual({
      micrometer: { range: null, ball: null, name: 'Mic' },
    });
    const fasteners = { main: { name: 'own' }, rod: {} };
    expect(partsInVersion({ ...third, fasteners }, 5).fasteners).toEqual({
      main: { figures: [], name: 'own' },
      rod: { figures: [] },
    });
    const torque = { passes: {}, stretch: { 'R1 bolt 2': { text: '0.15' }, 'M3 side right': { text: '0.16' } } };
    expect(partsInVersion({ ...third, torque }, 6).torque).toEqual({
      passes: {},
      stretch: { 'rod/1/2': { text: '0.15' }, 'main-side/3/right/1': { text: '0.16' } },
    });
    expect(JOB_UPGRADES).toHaveLength(JOB_VERSION);
  });

  it('keep a member that has the name of a prototype as it was stored', () => {
    const stored = JSON.parse('{ "unit": "mm", "__proto__": { "polluted": true } }') as Record<string, unknown>;
    const after = partsInVersion(stored, 2);
    expect(Object.hasOwn(after, '__proto__')).toBe(true);
    expect((after as { polluted?: boolean }).polluted).toBeUndefined();
  });
});
