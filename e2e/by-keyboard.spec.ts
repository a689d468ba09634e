import { expect, type Locator, type Page, test } from '@playwright/test';
import { allSaved, toldAlready } from './engines.js';

/** Everything that the Tab key stops at, in its order, as far as it can be seen. */
const STOPS =
  'a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled), textarea:not(:disabled), summary, [tabindex]';

/** A fitter with a keyboard and no mouse: counts how often Tab is pressed. */
class Keyboard {
  tabs = 0;
  readonly page: Page;

  constructor(page: Page) {
    this.page = page;
  }

  /** Goes to a control by Tab, or back by Shift+Tab where that is nearer. */
  async reach(at: Locator): Promise<void> {
    await expect(at).toBeVisible();
    const steps = await at.evaluate((target, stops) => {
      const seen = [...document.querySelectorAll<HTMLElement>(stops)].filter(
        (one) => one.tabIndex >= 0 && one.checkVisibility({ visibilityProperty: true }),
      );
      const from = document.activeElement === document.body ? -1 : seen.indexOf(document.activeElement as HTMLElement);
      const to = seen.indexOf(target as HTMLElement);
      // What has the focus without being a stop lies between two of them.
      const next = seen.findIndex(
        (one) => (document.activeElement!.compareDocumentPosition(one) & Node.DOCUMENT_POSITION_FOLLOWING) !== 0,
      );
      return from >= 0 || document.activeElement === document.body ? to - from : to >= next ? to - next + 1 : to - next;
    }, STOPS);
    // Lists that scroll are stops too, which nothing marks: a few more than counted are allowed.
    for (let step = 0; step < Math.abs(steps) + 5; step += 1) {
      if (await at.evaluate((target) => target === document.activeElement)) break;
      await this.page.keyboard.press(steps > 0 ? 'Tab' : 'Shift+Tab');
      this.tabs += 1;
    }
    await expect(at).toBeFocused();
  }

  async act(at: Locator): Promise<void> {
    await this.reach(at);
    await this.page.keyboard.press('Enter');
  }

  async along(figures: readonly string[]): Promise<void> {
    for (const figure of figures) {
      await this.page.keyboard.type(figure);
      await this.page.keyboard.press('Enter');
    }
  }
}

test('from a new engine to its printed sheet by keyboard alone, in fewer than 60 presses of Tab', async ({ page }) => {
  const hand = new Keyboard(page);
  const log = (what: string) => console.log(what, hand.tabs);
  await toldAlready(page);
  await page.goto('/');
  await hand.act(page.getByRole('link', { name: 'Skip to content' }));
  await hand.act(page.getByRole('button', { name: 'New engine' }));
  log('new');
  await expect(page.getByLabel('Name, with its number')).toBeFocused();
  await page.keyboard.type('Rush Twin by keyboard');
  await hand.reach(page.getByLabel('Main housing bore: low limit, mm'));
  log('limits');
  await hand.along(['64-64.02', '59.98-60', '.02-.06', '54-54.02', '50.98-51', '.02-.06']);
  await expect(page.getByLabel('Main housing bore: source: book and page')).toBeFocused();
  await hand.along(['book, p. 7']);
  await hand.act(page.getByRole('button', { name: 'Create engine' }));
  log('create');
  const read = async (first: string, figures: readonly string[]) => {
    const box = page.getByLabel(first);
    await expect(box).toBeVisible();
    const one = page.getByRole('button', { name: 'One reading a part' });
    if (await one.isVisible()) await hand.act(one);
    if (!(await box.evaluate((input) => input === document.activeElement))) await hand.reach(box);
    await hand.along(figures);
    log(first);
  };
  const goOn = async (to: RegExp) => {
    await hand.act(page.getByRole('button', { name: to }));
    log(String(to));
  };
  await read('M1 main bore front plane, mm', ['64.010', '64.012', '64.009', '64.011', '64.010']);
  await goOn(/^Next: Read the journal/u);
  await read('M1 main journal front, 0°, mm', ['59.990', '59.992', '59.989', '59.991', '59.990']);
  await goOn(/^Next: Read the big end/u);
  await read('R1 big end front plane, mm', ['54.010', '54.011', '54.010', '54.012']);
  await goOn(/^Next: Read the (?:pin|crankpin)/u);
  await read('P1 crankpin front, 0°, mm', ['50.990', '50.991', '50.990', '50.992']);
  await goOn(/^Next: Enter the shells/u);
  const form = page.getByRole('group', { name: 'Add shells' });
  await expect(form.getByLabel('Series')).toBeFocused();
  await page.keyboard.type('Osier');
  for (const wall of ['1.987', '1.487']) {
    await hand.reach(form.getByLabel('First wall, mm'));
    await page.keyboard.type(wall);
    for (const text of ['.003', '3', '8']) {
      await page.keyboard.press('Tab');
      hand.tabs += 1;
      await page.keyboard.type(text);
    }
    await page.keyboard.press('Enter');
  }
  log('shells');
  await goOn(/^Next: Select shells/u);
  await hand.act(page.getByRole('button', { name: 'Accept selection' }));
  log('accept');
  await expect(page.getByText('Accepted by')).toBeVisible();
  const bar = page.getByRole('navigation', { name: 'Stages' });
  await hand.act(bar.getByRole('link', { name: /^Build \d/u }));
  await hand.act(bar.getByRole('link', { name: /^Build sheet,/u }));
  log('sheet');
  await hand.act(page.getByRole('button', { name: 'Print build sheet' }));
  log('print');
  await allSaved(page);
  expect(hand.tabs).toBeLessThan(60);
});
