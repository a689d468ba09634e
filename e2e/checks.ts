import { expect, type Locator, type Page } from '@playwright/test';

/** Touches a box to tick where a person does: on its words. */
export async function touch(box: Locator): Promise<void> {
  await box.locator('xpath=ancestor::label').click();
}

/** Says of every open check at a station in view that it is in order: together where that is offered, else one by one. @returns how many touches */
export async function allInOrder(page: Page, station: string): Promise<number> {
  const checks = page.getByRole('region', { name: new RegExp(`^(?:Checks at|After tightening) ${station}$`, 'u') });
  await expect(checks.first()).toBeVisible();
  let touches = 0;
  const all = checks.getByRole('button', { name: 'All in order' });
  const boxes = checks.getByRole('checkbox', { checked: false });
  for (let left = await all.count(); left > 0; left = await all.count()) {
    await all.first().click();
    touches += 1;
    await expect(all).toHaveCount(left - 1);
  }
  for (let left = await boxes.count(); left > 0; left = await boxes.count()) {
    await touch(boxes.first());
    touches += 1;
    await expect(boxes).toHaveCount(left - 1);
  }
  return touches;
}
