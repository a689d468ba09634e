import { expect, type Locator, type Page, test } from '@playwright/test';
import { allSaved, enter, putOnBench, reedDocument, SAMPHIRE_8, toldAlready } from './engines.js';
import { listen } from './looks.js';
import { toStage } from './stages.js';

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
  await toldAlready(page);
  await page.goto('/');
  await hand.act(page.getByRole('link', { name: 'Skip to content' }));
  await hand.act(page.getByRole('button', { name: 'New engine' }));
  await expect(page.getByLabel('Name, with its number')).toBeFocused();
  await page.keyboard.type('Rush Twin by keyboard');
  await hand.reach(page.getByLabel('Main housing bore: low limit, mm'));
  await hand.along(['64-64.02', '59.98-60', '.02-.06', '54-54.02', '50.98-51', '.02-.06']);
  await expect(page.getByLabel('Main housing bore: source: book and page')).toBeFocused();
  await hand.along(['book, p. 7']);
  await hand.act(page.getByRole('button', { name: 'Create engine' }));
  const read = async (first: string, figures: readonly string[]) => {
    const box = page.getByLabel(first);
    await expect(box).toBeVisible();
    const one = page.getByRole('button', { name: 'One reading a part' });
    if (await one.isVisible()) await hand.act(one);
    if (!(await box.evaluate((input) => input === document.activeElement))) await hand.reach(box);
    await hand.along(figures);
  };
  const goOn = async (to: RegExp) => {
    await hand.act(page.getByRole('button', { name: to }));
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
  await goOn(/^Next: Select shells/u);
  await hand.act(page.getByRole('button', { name: 'Accept selection' }));
  await expect(page.getByText('Accepted by')).toBeVisible();
  const bar = page.getByRole('navigation', { name: 'Stages' });
  await hand.act(bar.getByRole('link', { name: /^Build \d/u }));
  await hand.act(bar.getByRole('link', { name: /^Build sheet,/u }));
  await hand.act(page.getByRole('button', { name: 'Print build sheet' }));
  await allSaved(page);
  expect(hand.tabs).toBeLessThan(60);
});

/** Where the focus is, in a word: its control, or the place that holds it. */
function focusAt(page: Page): Promise<string> {
  return page.evaluate(() => {
    const { activeElement: at, body } = document;
    if (at === null || at === body) return 'nowhere';
    return `${at.tagName.toLowerCase()} ${at.getAttribute('aria-label') ?? at.textContent?.trim().slice(0, 40) ?? ''}`;
  });
}

test('the shaft line is a table: stations over its columns, what is known at the head of each row, exact figures in its gauges', async ({
  page,
}) => {
  await page.goto(`/engines/${SAMPHIRE_8}/choose`);
  const line = page.getByRole('table', { name: 'Selection by station' });
  await expect(line.getByRole('columnheader', { name: 'M3', exact: true })).toHaveCount(1);
  for (const name of [
    'Bore, in',
    'Journal, in',
    'Clearance between its limits',
    'Upper shell',
    'Lower shell',
    'Verdict',
  ]) {
    await expect(line.getByRole('rowheader', { name, exact: true })).toHaveCount(1);
  }
  const gauge = line.getByRole('img', { name: /^M1: / });
  await expect(gauge).toHaveAttribute(
    'aria-label',
    /Selected pair \d\.\d{5}, tightest \d\.\d{5}, loosest \d\.\d{5}\./u,
  );
  // One stop of the Tab key, and the arrow keys within it.
  const verdict = (station: string) => line.getByRole('button', { name: new RegExp(`^${station}: `, 'u') });
  await verdict('M1').focus();
  await page.keyboard.press('ArrowRight');
  await expect(verdict('M2')).toBeFocused();
  await page.keyboard.press('End');
  await page.keyboard.press('Tab');
  await expect(line.locator(':focus')).toHaveCount(0);
  await page.keyboard.press('Shift+Tab');
  await expect(line.locator(':focus')).toHaveCount(1);
});

test('a selection is said aloud once when it is accepted; the focus goes on, and never to nowhere', async ({
  page,
  request,
}) => {
  await toldAlready(page);
  const id = await putOnBench(request, reedDocument('Reed 6 by keyboard'));
  for (let main = 1; main <= 3; main += 1) {
    await enter(request, id, 'mainBore', main, '64.010');
    await enter(request, id, 'mainJournal', main, '59.985');
  }
  await page.goto(`/engines/${id}/choose`);
  const hand = new Keyboard(page);
  const accept = page.getByRole('button', { name: 'Accept selection' });
  await expect(accept).toBeVisible();
  const heard = await listen(page);
  await hand.act(accept);
  await allSaved(page);
  await expect(page.getByText(/Accepted by/u)).toBeVisible();
  expect((await heard()).filter((text) => text === 'Selection accepted.')).toHaveLength(1);
  expect(await focusAt(page)).toMatch(/^button Next:/u);
  // Withdrawn, its button goes away: the focus stays where the button was.
  await hand.act(page.getByRole('button', { name: 'Withdraw' }));
  await expect(page.getByText(/Accepted by/u)).toBeHidden();
  expect(await focusAt(page)).not.toBe('nowhere');
  // Undone as far as it goes, the button cannot be used, and keeps the focus.
  const undo = page.getByRole('button', { name: /^Undo/u });
  await hand.reach(undo);
  for (let step = 0; step < 4 && (await undo.getAttribute('aria-disabled')) === null; step += 1) {
    await page.keyboard.press('Enter');
    await allSaved(page);
  }
  await expect(undo).toHaveAttribute('aria-disabled', 'true');
  await expect(undo).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(undo).toBeFocused();

  // A question that is put off, and a sheet that is signed.
  await toStage(page, 'Build sheet');
  const sign = page.getByRole('button', { name: 'Sign', exact: true });
  await hand.act(sign);
  await hand.act(page.getByRole('group', { name: 'Sign build sheet' }).getByRole('button', { name: 'Cancel' }));
  expect(await focusAt(page)).not.toBe('nowhere');
  await hand.act(sign);
  const asked = page.getByRole('group', { name: 'Sign build sheet' });
  await hand.reach(asked.getByLabel('Signed by'));
  await page.keyboard.type('Wren');
  await hand.act(asked.getByRole('button', { name: 'Sign build sheet' }));
  const first = page.getByRole('button', { name: /^Revision 1/u });
  await expect(first).toBeVisible();
  expect(await focusAt(page)).not.toBe('nowhere');
  await hand.act(first);
  await expect(page).toHaveTitle(/^Reed 6 by keyboard · Build sheet, revision 1/u);

  // An engine that is closed leaves its list, and the focus stays in it.
  await page.goto('/?words=Reed%206%20by%20keyboard');
  await hand.act(page.getByRole('button', { name: 'Close Reed 6 by keyboard' }));
  await expect(page.getByText('Reed 6 by keyboard closed.')).toBeVisible();
  expect(await focusAt(page)).not.toBe('nowhere');
});
