import { groupOf, STAGES, type Stage, stageName } from '@fettle/core';
import { expect, type Page } from '@playwright/test';

/** Goes to a stage of the engine in view, by its group where another one is open. */
export async function toStage(page: Page, name: ReturnType<typeof stageName>): Promise<void> {
  const stage = STAGES.find((one) => stageName(one) === name) as Stage;
  const bar = page.getByRole('navigation', { name: 'Stages' });
  const group = bar.getByRole('link', { name: new RegExp(`^${groupOf(stage)} \\d`, 'u') });
  if ((await group.getAttribute('aria-current')) === null) await group.click();
  await bar.getByRole('link', { name: new RegExp(`^${name},`, 'u') }).click();
  await expect(bar.getByRole('link', { name: new RegExp(`^${name},`, 'u') })).toHaveAttribute('aria-current', 'page');
}
