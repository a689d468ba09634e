import { describe, expect, it } from 'vitest';
import { BLANK_CRUSH } from '../crush/crushSchema.js';
import { CRUSH_SETTINGS } from '../crush/crushSettings.js';
import { blankEndPlay } from '../endPlay/endPlaySchema.js';
import { END_PLAY_SETTINGS } from '../endPlay/endPlaySettings.js';
import { usualLayout } from '../part/crankLayout.js';
import { measuringPart } from '../reading/measuringPart.js';
import { ownSettings } from '../stage/settingRow.js';
import { newJob } from './newJob.js';
import { placeWords } from './slices.js';

describe('the settings of an engine', () => {
  it('are what a new engine starts with: the usual figures of the trade', () => {
    expect(blankEndPlay('in')).toMatchObject({
      repeatWithin: 25_400,
      uncertainty: 6_350,
      alikeWithin: 5_000,
      counts: [3, 2],
    });
    expect(blankEndPlay('mm')).toMatchObject({
      repeatWithin: 25_000,
      uncertainty: 5_000,
      settle: 0,
      aim: null,
      kind: null,
    });
    expect(BLANK_CRUSH).toEqual({
      kind: null,
      bigEnds: null,
      aim: null,
      aimAluminium: null,
      alikeWithin: 5_000,
      joints: {},
    });
    expect(measuringPart.upgrades![5]!({ measuring: {} })).toEqual({
      measuring: { mode: expect.objectContaining({ pin: null }) },
    });
  });

  it('are shown where they matter: rings settle, washers shift, white metal has two sides alike', () => {
    const keys = (kind: 'washers' | 'flanged' | 'rings' | null) =>
      ownSettings(END_PLAY_SETTINGS, { kind, onSheet: 'unknown' }).map(([key]) => key);
    expect(keys('rings')).toEqual(['kind', 'counts', 'settle', 'aim', 'repeatWithin', 'uncertainty']);
    expect(keys('washers')).toContain('maxShift');
    expect(keys('flanged')).toContain('weight');
    expect(keys('flanged')).not.toContain('maxShift');
    const shown = (kind: 'saddle' | 'plain') =>
      ownSettings(CRUSH_SETTINGS, { kind }).flatMap(([key, { field }]) => (field ? [key] : []));
    expect(shown('saddle')).toEqual(['aim', 'alikeWithin']);
    expect(shown('plain')).toEqual(['aim', 'aimAluminium']);
  });

  it('have words of their own in the history', () => {
    const usual = usualLayout(3, 2, 1, 2);
    if (!usual.ok) throw new Error(usual.message);
    const job = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
    for (const [member, rows] of [
      ['endPlay', END_PLAY_SETTINGS],
      ['crush', CRUSH_SETTINGS],
    ] as const)
      for (const [key, { place }] of Object.entries(rows)) expect(placeWords([member, key], job)).toBe(place);
    expect(placeWords(['measuring', 'setting', 'pin'], job)).toBe('setting size for the pins');
    expect(placeWords(['measuring', 'order'], job)).toBe('order of measuring');
  });
});
