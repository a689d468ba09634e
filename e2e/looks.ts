import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';

/** A large screen, a tablet upright, a screen at 200 %, a phone. */
const WIDTHS = [1280, 820, 640, 390];

/** After so long a page is looked at as it is, ms. */
const QUIET_MS = 15_000;

/**
 * Waits until nothing more is fetched. A worker that is ended in the middle of being loaded, as a search that nobody waits for any more is,
 * leaves a request that never ends in the browser's books: then the page is looked at after a while all the same.
 */
export async function settled(page: Page): Promise<void> {
  await Promise.race([page.waitForLoadState('networkidle', { timeout: 0 }), page.waitForTimeout(QUIET_MS)]);
}

/** The widths at which a view is wider than its screen. */
export async function tooWide(page: Page): Promise<string[]> {
  const wide: string[] = [];
  for (const width of WIDTHS) {
    await page.setViewportSize({ width, height: 844 });
    const measure = () => page.evaluate(() => document.documentElement.scrollWidth);
    let found = await measure();
    // What is drawn to its width follows a moment later.
    for (let again = 0; found > width && again < 10; again += 1) {
      await page.waitForTimeout(50);
      found = await measure();
    }
    if (found > width) wide.push(`${found} at ${width}`);
  }
  await page.setViewportSize({ width: 1280, height: 800 });
  return wide;
}

/** What axe finds that is serious, in any look. */
export async function seriousFaults(page: Page): Promise<string[]> {
  const faults: string[] = [];
  for (const look of ['light', 'dark', 'workshop']) {
    await page.evaluate((chosen) => {
      document.documentElement.dataset.appearance = chosen;
    }, look);
    // The pages have no frames: axe need not open a page of its own to gather from them. Of what is in order it need not say where.
    const axe = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ['violations'] });
    // Only colours change with the look; all else was looked at in the first.
    const { violations } = await (look === 'light' ? axe : axe.withRules(['color-contrast'])).analyze();
    const serious = violations.filter(({ impact }) => impact === 'serious' || impact === 'critical');
    faults.push(...serious.map(({ id, nodes }) => `${look}: ${id} ${nodes[0]?.html}`));
  }
  return faults;
}

/**
 * Controls whose spoken name lacks what stands on them, word for word: whoever speaks to the page says what is read on it (WCAG 2.2, 2.5.3; cited
 * from memory).
 */
export function misnamed(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const plain = (text: string) =>
      text
        .toLowerCase()
        .replaceAll(/[^\p{L}\p{N}%]+/gu, ' ')
        .trim();
    /** The words that are seen: not what is for screen readers only, nor what is drawn. */
    const seen = (element: Element): string => {
      const clone = element.cloneNode(true) as Element;
      for (const hidden of clone.querySelectorAll('.visually-hidden, [aria-hidden="true"], svg')) hidden.remove();
      return plain([...clone.childNodes].map((node) => node.textContent ?? '').join(' '));
    };
    return [...document.querySelectorAll('button[aria-label], a[aria-label], [role="button"][aria-label]')].flatMap(
      (control) => {
        const said = plain(control.getAttribute('aria-label') ?? '');
        const words = seen(control);
        const isIn = ` ${said} `.includes(` ${words} `);
        return words === '' || isIn ? [] : [`“${words}” is called “${said}”`];
      },
    );
  });
}

/** Keeps what live regions say from here on. @returns what was said since it was asked last */
export async function listen(page: Page): Promise<() => Promise<string[]>> {
  await page.evaluate(() => {
    const said: string[] = [];
    Object.assign(window, { said });
    new MutationObserver((changes) => {
      const regions = new Set(
        changes.map(({ target }) =>
          (target instanceof Element ? target : target.parentElement)?.closest(
            '[aria-live], [role="status"], [role="alert"], output',
          ),
        ),
      );
      for (const region of regions) {
        if (region && region.getAttribute('aria-live') !== 'off') said.push(region.textContent ?? '');
      }
    }).observe(document.body, { subtree: true, childList: true, characterData: true });
  });
  return () => page.evaluate(() => (window as unknown as { said: string[] }).said.splice(0));
}
