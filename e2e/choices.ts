import { expect, type Locator, type Page } from '@playwright/test';

/** The box of a choice, by what stands over it. @param nth which of several of that name */
export function choiceOf(scope: Page | Locator, label: string, nth = 0): Locator {
  const escaped = label.replaceAll(/[.*+?^${}()|[\]\\]/gu, '\\$&');
  return scope.getByRole('button', { name: new RegExp(`(^|\\s)${escaped}(, \\S+)?$`, 'u') }).nth(nth);
}

/** Opens a choice and takes one of its options, by its value or by what it says. */
export async function choose(
  scope: Page | Locator,
  label: string,
  option: string | { readonly label: string },
  nth = 0,
): Promise<void> {
  const page = 'goto' in scope ? scope : scope.page();
  const list = page.getByRole('listbox');
  await choiceOf(scope, label, nth).click();
  const wanted =
    typeof option === 'string'
      ? list.locator(`[data-option="${option}"]`)
      : list.getByRole('option', { name: option.label, exact: true });
  await wanted.click();
  await expect(list).toHaveCount(0);
}

/** Accepts the best choice, also where something about it is doubtful and named first. */
export async function acceptBest(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Accept selection' }).click();
  const accepted = page.getByRole('button', { name: 'Accepted', exact: true });
  const anyway = page.getByRole('button', { name: 'Accept anyway' });
  await expect(accepted.or(anyway)).toBeVisible();
  if (await anyway.isVisible()) await anyway.click();
  await expect(accepted).toBeVisible();
}
