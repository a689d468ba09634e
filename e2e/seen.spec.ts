import { expect, type Page, test } from '@playwright/test';
import { ASSEMBLED_SEDGE_4, toldAlready } from './engines.js';
import { settled } from './looks.js';

test.beforeEach(({ page }) => toldAlready(page));

async function open(page: Page, path: string): Promise<void> {
  await page.goto(path);
  await settled(page);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
}

test('who types a name is helped by the browser', async ({ page }) => {
  await open(page, '/');
  await expect(page.getByRole('textbox', { name: 'Fitter' })).toHaveAttribute('autocomplete', 'name');
});

test('in forced colours the page, the group and the stage in view are told apart, and the focus from them', async ({
  page,
}) => {
  await page.emulateMedia({ forcedColors: 'active' });
  await open(page, `/engines/${ASSEMBLED_SEDGE_4}/bores`);
  const looks = (name: RegExp, where: string) =>
    page
      .getByRole('navigation', { name: where })
      .getByRole('link', { name })
      .evaluate((link) => {
        const { outlineStyle, outlineWidth } = getComputedStyle(link);
        return outlineStyle === 'none' ? 'none' : `${outlineStyle} ${outlineWidth}`;
      });
  expect(await looks(/^Measure/u, 'Stages')).toBe('dashed 2px');
  expect(await looks(/^Select/u, 'Stages')).toBe('none');
  expect(await looks(/^Main bores/u, 'Stages')).toBe('dashed 2px');
  expect(await looks(/^Main journals/u, 'Stages')).toBe('none');
  await page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('link', { name: /^Select/u })
    .focus();
  await page.keyboard.press('Shift+Tab');
  expect(await looks(/^Measure/u, 'Stages')).toBe('solid 3px');
  await page.goto('/drawer');
  expect(await looks(/^Workshop stock/u, 'Pages')).toBe('dashed 2px');
  expect(await looks(/^Engines/u, 'Pages')).toBe('none');
  // What is on in a list, and what the arrow keys are at, differ too.
  const theme = page.getByRole('button', { name: /Theme$/u });
  await theme.click();
  await page.keyboard.press('ArrowDown');
  const option = page.locator('[role="option"][data-focused]');
  expect(await option.evaluate((one) => getComputedStyle(one).outlineStyle)).not.toBe('none');
  await page.keyboard.press('Escape');
});

test('on a phone what has the focus is not under the button at the foot', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  for (const stage of ['data', 'bores', 'choose', 'sheet']) {
    await open(page, `/engines/${ASSEMBLED_SEDGE_4}/${stage}`);
    for (let step = 0; step < 45; step += 1) {
      await page.keyboard.press('Tab');
      const hidden = await page.evaluate(() => {
        const { activeElement: at } = document;
        if (!(at instanceof HTMLElement) || at === document.body) return null;
        const { left, top, width, height } = at.getBoundingClientRect();
        if (width < 2 || height < 2) return null;
        const over = document.elementFromPoint(left + width / 2, Math.min(top + height / 2, innerHeight - 1));
        const isSeen = over !== null && (at.contains(over) || over.contains(at) || over.closest('label')?.contains(at));
        return isSeen
          ? null
          : `${at.getAttribute('aria-label') ?? at.textContent?.slice(0, 40)} under ${over?.textContent?.slice(0, 40)}`;
      });
      expect.soft(hidden, `${stage}, stop ${step + 1}`).toBeNull();
    }
  }
});
