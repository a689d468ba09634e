import { expect, type Page, test } from '@playwright/test';
import { ASSEMBLED_SEDGE_4, toldAlready } from './engines.js';
import { cutTexts, PAGES } from './pages.js';

// Styles of the test's own are put into the pages.
test.use({ bypassCSP: true });

test.beforeEach(({ page }) => toldAlready(page));

async function open(page: Page, path: string): Promise<void> {
  await page.goto(path);
  await page.waitForLoadState('networkidle');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
}

/** The text spacing that a reader may ask for, WCAG 2.2, 1.4.12 (cited from memory). */
const SPACED =
  '* { line-height: 1.5 !important; letter-spacing: 0.12em !important; word-spacing: 0.16em !important; } p { margin-bottom: 2em !important; }';

test('with the text spaced as WCAG 1.4.12 asks, no page cuts a text or grows wider than its screen', async ({
  page,
}) => {
  test.setTimeout(600_000);
  for (const path of PAGES) {
    await page.setViewportSize({ width: 1280, height: 844 });
    await open(page, path);
    await page.addStyleTag({ content: SPACED });
    for (const width of [1280, 390]) {
      await page.setViewportSize({ width, height: 844 });
      await page.waitForTimeout(120);
      const found = await page.evaluate(() => document.documentElement.scrollWidth);
      expect.soft(found, `${path} at ${width}`).toBeLessThanOrEqual(width);
      expect.soft(await cutTexts(page), `${path} at ${width}`).toEqual([]);
    }
  }
});

/** Controls too small to be hit: 24 px each way, but for links within a sentence (WCAG 2.2, 2.5.8; cited from memory). */
function smallTargets(page: Page, least: number, where: string): Promise<string[]> {
  return page.evaluate(
    ([least, where]) =>
      [
        ...document.querySelectorAll<HTMLElement>(
          `${where} :is(a[href], button, input, select, summary, [role="button"])`,
        ),
      ]
        .filter(
          (one) =>
            one.checkVisibility() && !one.closest('.visually-hidden, [aria-hidden="true"]') && one.tabIndex >= -1,
        )
        .filter((one) => !(one.tagName === 'A' && getComputedStyle(one).display === 'inline'))
        .flatMap((one) => {
          // A box in its own label is hit by hitting the label.
          const { width, height } = (
            one.matches('input[type="checkbox"], input[type="radio"]') && one.closest('label')
              ? one.closest('label')!
              : one
          ).getBoundingClientRect();
          const isClipped = width <= 1 || height <= 1;
          return isClipped || (width >= least - 0.5 && height >= least - 0.5)
            ? []
            : [
                `${Math.round(width)} × ${Math.round(height)}: ${one.getAttribute('aria-label') ?? one.textContent?.slice(0, 40)}`,
              ];
        }),
    [least, where] as const,
  );
}

test('every control is at least 24 px each way, and 44 px high where readings are typed', async ({ page }) => {
  test.setTimeout(300_000);
  for (const path of PAGES) {
    await open(page, path);
    expect.soft(await smallTargets(page, 24, 'body'), path).toEqual([]);
    const small = await page.evaluate(
      () =>
        [...document.querySelectorAll<HTMLElement>('input[data-reading]')].filter(
          (box) => box.checkVisibility() && box.getBoundingClientRect().height < 44,
        ).length,
    );
    expect.soft(small, `boxes of readings on ${path}`).toBe(0);
  }
});

/** Names of controls that stand for two different things on one page. */
function alikeNames(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const names = [...document.querySelectorAll<HTMLElement>('main :is(button, input, select, textarea)')]
      .filter(
        (one) =>
          one.checkVisibility() && !one.closest('[aria-hidden="true"]') && (one as HTMLInputElement).type !== 'hidden',
      )
      .map((one) => {
        const labels = [...((one as HTMLInputElement).labels ?? [])].map((label) => label.textContent ?? '').join(' ');
        const by = (one.getAttribute('aria-labelledby') ?? '')
          .split(' ')
          .map((id) => (id === '' ? '' : (document.getElementById(id)?.textContent ?? '')))
          .join(' ')
          .trim();
        const name =
          one.getAttribute('aria-label') ?? (by || labels || (one.tagName === 'BUTTON' ? one.textContent : '') || '');
        // Fields of a group are told apart by it.
        const group =
          one
            .closest('fieldset, [role="group"], section[aria-label], article[aria-label]')
            ?.getAttribute('aria-label') ?? '';
        return `${group} / ${name.trim()}`;
      });
    return [...new Set(names.filter((name, at) => names.indexOf(name) !== at))];
  });
}

test('no two controls of a group share a name, and who types a name is helped by the browser', async ({ page }) => {
  test.setTimeout(300_000);
  // Engines and types may share a name: whoever named them tells them apart.
  for (const path of PAGES.filter((one) => one !== '/' && one !== '/types')) {
    await open(page, path);
    expect.soft(await alikeNames(page), path).toEqual([]);
  }
  await page.goto('/');
  await expect(page.getByLabel('Fitter')).toHaveAttribute('autocomplete', 'name');
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
