import { STAGES } from '@fettle/core';
import { expect, test } from '@playwright/test';
import {
  ASSEMBLED_SEDGE_4,
  allSaved,
  MARKED_SEDGE_4,
  putOnBench,
  reedDocument,
  SAMPHIRE_8,
  toldAlready,
} from './engines.js';
import { listen, settled } from './looks.js';
import { alikeNames, cutTexts, PAGES, SPACED, smallTargets, WITH_SHIMS } from './pages.js';

const WIDTHS = [1280, 1024, 820, 390, 320];
test.beforeEach(({ page }) => toldAlready(page));

test.describe('every page', () => {
  // Styles of the test's own are put into the pages.
  test.use({ bypassCSP: true });

  test('has no horizontal scroll bar, no cut text and one main heading at any width, spaced as WCAG 1.4.12 asks too; controls that can be hit, and names of their own', async ({
    page,
  }) => {
    test.setTimeout(900_000);
    for (const path of PAGES) {
      await page.setViewportSize({ width: WIDTHS[0]!, height: 844 });
      await page.goto(path);
      await settled(page);
      await expect.soft(page.getByRole('heading', { level: 1 }), `main headings of ${path}`).toHaveCount(1);
      expect.soft(await smallTargets(page, 24, 'body'), `small on ${path}`).toEqual([]);
      expect
        .soft(await smallTargets(page, 44, '[data-station]'), `small where readings are typed on ${path}`)
        .toEqual([]);
      // Engines and types may share a name: whoever named them tells them apart.
      if (path !== '/' && path !== '/types') expect.soft(await alikeNames(page), `alike on ${path}`).toEqual([]);
      const look = async (width: number, how: string) => {
        await page.setViewportSize({ width, height: 844 });
        const softly = expect.configure({ soft: true });
        // What is drawn to its width follows a moment later.
        await softly
          .poll(() => page.evaluate(() => document.documentElement.scrollWidth), `${path} at ${width}${how}`)
          .toBeLessThanOrEqual(width);
        await softly.poll(() => cutTexts(page), `${path} at ${width}${how}`).toEqual([]);
      };
      for (const width of WIDTHS) await look(width, '');
      await page.addStyleTag({ content: SPACED });
      for (const width of [390, 1280]) await look(width, ', spaced');
    }
  });
});

test('the stages stand on two rows at every width, and on a phone the stage begins within 200 px', async ({ page }) => {
  for (const [id, stage] of [
    [ASSEMBLED_SEDGE_4, 'bores'],
    [MARKED_SEDGE_4, 'codes'],
    [ASSEMBLED_SEDGE_4, 'sheet'],
    [WITH_SHIMS, 'crush'],
  ] as const) {
    await page.goto(`/engines/${id}/${stage}`);
    const bar = page.getByRole('navigation', { name: 'Stages' });
    await expect(bar).toBeVisible();
    for (const width of [1280, 1024, 820, 390]) {
      await page.setViewportSize({ width, height: 844 });
      const tops = await bar
        .getByRole('link')
        .evaluateAll((links) => [...new Set(links.map((link) => Math.round(link.getBoundingClientRect().bottom)))]);
      expect(tops.length, `${stage} at ${width}: rows end at ${tops.join(', ')}`).toBeLessThanOrEqual(2);
      for (const box of await bar.getByRole('link').all()) {
        const { x, width: wide } = (await box.boundingBox())!;
        expect(x + wide, `${stage} at ${width}`).toBeLessThanOrEqual(width);
      }
    }
    const below = await bar.evaluate((nav) => nav.getBoundingClientRect().bottom);
    expect(below, `${stage}: the stage begins at`).toBeLessThanOrEqual(200);
  }
});

test('the keyboard does what is done most, the list of keys is a key away, and single keys can be turned off', async ({
  page,
}) => {
  await page.goto(`/engines/${SAMPHIRE_8}/choose`);
  await expect(page.getByText(/proven\./u).first()).toBeVisible({ timeout: 30_000 });
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog', { name: 'Keyboard shortcuts' });
  for (const words of [
    'Next thing to do',
    'Next station',
    'Accept selection',
    'Quick calculation',
    'Help for this stage',
  ]) {
    await expect(keys.getByText(words, { exact: true })).toBeVisible();
  }
  await page.keyboard.press('Escape');
  await expect(keys).toBeHidden();
  await page.keyboard.press('s');
  await expect(page).toHaveURL(/station=M1/u);
  await page.keyboard.press('h');
  const help = page.getByRole('complementary', { name: 'Help' });
  await expect(help.getByRole('heading', { name: 'Select shells' })).toBeVisible();
  await expect(help).toBeFocused();
  await help.getByRole('button', { name: 'Close help' }).click();
  await expect(help).toBeHidden();
  await page.keyboard.press('c');
  await expect(page).toHaveURL(/\/sum$/u);
  // Typed into a box, a letter is a letter.
  await page.goto('/');
  await expect(page.getByRole('list', { name: 'Engines' })).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('reed c');
  await expect(page.getByRole('searchbox', { name: 'Find an engine' })).toHaveValue('reed c');
  // Turned off, they do nothing, and the switch is found without them.
  await page.getByRole('button', { name: 'Keyboard shortcuts' }).click();
  await keys.getByText('Single-key shortcuts on this device').click();
  await keys.getByRole('button', { name: 'Close' }).click();
  await page.keyboard.press('c');
  await expect(page).toHaveURL(/\/(?:\?|$)/u);
  await page.getByRole('button', { name: 'Keyboard shortcuts' }).click();
  await keys.getByText('Single-key shortcuts on this device').click();
});

test('a phone has one head with a menu, and who comes by keyboard skips to the content', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/');
  const head = page.getByRole('banner');
  expect((await head.boundingBox())!.height).toBeLessThanOrEqual(50);
  await expect(head.getByRole('link', { name: 'Workshop stock' })).toBeHidden();
  const menu = head.getByRole('button', { name: 'Menu' });
  await menu.click();
  await expect(menu).toHaveAttribute('aria-expanded', 'true');
  await expect(head.getByLabel('Fitter')).toBeVisible();
  await head.getByRole('link', { name: 'Workshop stock' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Workshop stock' })).toBeVisible();
  await expect(head.getByRole('link', { name: 'Workshop stock' })).toBeHidden();
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto('/');
  await expect(page.getByRole('list', { name: 'Engines' })).toBeVisible();
  await page.keyboard.press('Tab');
  const skip = page.getByRole('link', { name: 'Skip to content' });
  await expect(skip).toBeFocused();
  await expect(skip).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('main')).toBeFocused();
});

test('the handbook has a page for each stage, read without the server', async ({ page, context }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Handbook' }).click();
  await expect(page.getByRole('heading', { level: 2, name: 'Data sheet' })).toBeVisible();
  const pages = page.getByRole('navigation', { name: 'Handbook pages' });
  await expect(pages.getByRole('link')).toHaveCount(STAGES.length);
  await context.setOffline(true);
  await pages.getByRole('link', { name: 'End play' }).click();
  await expect(page.getByText('Never dress a coated face.', { exact: false })).toBeVisible();
  await expect(page.getByRole('heading', { level: 3, name: 'Steps' })).toBeVisible();
  await context.setOffline(false);
  await page.goto('/guide/nothing-like-it');
  await expect(page.getByText('The handbook has no page “nothing-like-it”.', { exact: false })).toBeVisible();
});

test('a screen reader hears of a figure when it is left, not at each key', async ({ page, request }) => {
  const id = await putOnBench(request, reedDocument('Reed 6 said aloud'));
  await page.goto(`/engines/${id}/bores`);
  const box = page.getByLabel('M1 main bore front plane, mm');
  await box.click();
  await page.waitForTimeout(500);
  const heard = await listen(page);
  await page.keyboard.type('64.012', { delay: 80 });
  await page.waitForTimeout(300);
  // That something is not saved yet is said once.
  expect((await heard()).length).toBeLessThanOrEqual(1);
  await page.keyboard.press('Enter');
  await allSaved(page);
  expect((await heard()).join(' | ')).toContain('All saved');
});
