import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import {
  ownSettings,
  type SettingRow,
  settingPlaces,
  settingSchemas,
  settingUpgrades,
  usualSettings,
} from './settingRow.js';

/** A table of two settings, the second of which came later and belongs to some engines alone. */
const ROWS = {
  within: { schema: z.number(), usual: ({ unit }: { unit: string }) => (unit === 'mm' ? 5 : 6), place: 'how alike' },
  isDry: {
    schema: z.boolean().optional(),
    since: 4,
    usual: () => false,
    place: 'whether it is dry',
    isOf: ({ mains }: { mains: number }) => mains > 3,
  },
} satisfies Record<string, SettingRow<z.ZodType, never, never>>;

describe('a table of settings', () => {
  it('makes schema, defaults and words', () => {
    expect(z.strictObject(settingSchemas(ROWS)).parse({ within: 3 })).toEqual({ within: 3 });
    expect(usualSettings(ROWS, { unit: 'in' })).toEqual({ within: 6, isDry: false });
    expect(settingPlaces(ROWS)).toEqual({ within: 'how alike', isDry: 'whether it is dry' });
  });

  it('shows an engine the settings that it has', () => {
    expect(ownSettings(ROWS, { mains: 3 }).map(([key]) => key)).toEqual(['within']);
    expect(ownSettings(ROWS, { mains: 5 }).map(([key]) => key)).toEqual(['within', 'isDry']);
  });

  it('brings stored settings forward: what came with a version, under what somebody set', () => {
    const { 4: upgrade, ...others } = settingUpgrades(ROWS, 'trial');
    expect(others).toEqual({});
    expect(upgrade!({ trial: { within: 3 } })).toEqual({ trial: { within: 3, isDry: false } });
    expect(upgrade!({ trial: { within: 3, isDry: true } })).toEqual({ trial: { within: 3, isDry: true } });
  });
});
