import { readFile } from 'node:fs/promises';
import { STAGES, stageName } from '@fettle/core';
import { describe, expect, it } from 'vitest';
import { guidePage, guideText, stageOfPage } from './guidePages.js';

const GUIDE = new URL('../../../../docs/guide/', import.meta.url);

describe('the handbook', () => {
  it.each(STAGES)('has a page for %s, named as the stage, with steps and the usual mistakes', (stage) => {
    const text = guideText(stage);
    expect(text.startsWith(`# ${stageName(stage)}\n`)).toBe(true);
    expect(text).toContain('## Steps\n\n1. ');
    expect(text).toContain('## Usual mistakes\n\n* ');
    expect(stageOfPage(guidePage(stage))).toBe(stage);
  });

  it('is listed whole, and its pictures are there', async () => {
    const list = await readFile(new URL('README.md', GUIDE), 'utf8');
    for (const stage of STAGES) expect(list).toContain(`[${stageName(stage)}](${guidePage(stage)}.md)`);
    for (const stage of STAGES) {
      for (const [, picture] of guideText(stage).matchAll(/\]\((\.\.\/screenshots\/[^)]+)\)/gu)) {
        expect((await readFile(new URL(picture!, GUIDE))).length).toBeGreaterThan(1000);
      }
    }
  });
});
