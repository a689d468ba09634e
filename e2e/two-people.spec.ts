import { expect, type Page, test } from '@playwright/test';
import { choiceOf, choose } from './choices.js';
import { allSaved, putOnBench, reedDocument } from './engines.js';
import { toStage } from './stages.js';

test('two people at one engine: readings and changes merge, clashes are asked about', async ({
  browser,
  request,
  baseURL,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 for two'));
  const open = async (name: string, path: string) => {
    const context = await browser.newContext({ baseURL: baseURL! });
    await context.addInitScript((person) => localStorage.setItem('fettle.person', person), name);
    const page = await context.newPage();
    await page.goto(`/engines/${id}/${path}`);
    return page;
  };
  const vise = await open('Wren', 'bores');
  const block = await open('Teasel', 'bores');

  // One reads, the other sees it without doing anything.
  await vise.getByLabel('M1 main bore front plane, mm').fill('64.010');
  await vise.keyboard.press('Enter');
  await expect(block.getByLabel('M1 main bore front plane, mm')).toHaveValue('64.010', { timeout: 15_000 });

  // Both type at the same place before either has heard of the other.
  await block.context().setOffline(true);
  await block.getByLabel('M2 main bore front plane, mm').fill('64.011');
  await block.keyboard.press('Enter');
  await vise.getByLabel('M2 main bore front plane, mm').fill('64.012');
  await vise.keyboard.press('Enter');
  await allSaved(vise);
  await block.context().setOffline(false);
  await expect(
    block.getByText(
      /^M2 main bore, front plane: you typed “64\.011”, meanwhile Wren entered “64\.012” \(\w+ \d+, \d{4}, \d+:\d\d.[AP]M\)\.$/,
    ),
  ).toBeVisible({
    timeout: 20_000,
  });
  // The question survives a reload.
  await block.reload();
  await block.getByRole('button', { name: 'Keep mine' }).click();
  await allSaved(block);
  // Who typed first is told, and asked as well.
  await vise.getByRole('button', { name: 'Keep theirs' }).click();
  await expect(vise.getByLabel('M2 main bore front plane, mm')).toHaveValue('64.011', { timeout: 15_000 });

  // Different places of the data sheet merge without a word; the same place is asked about.
  for (const page of [vise, block]) await toStage(page, 'Data sheet');
  await block.context().setOffline(true);
  await choose(block, 'Block of', 'aluminium');
  await choose(block, 'Caps of', 'steel');
  await choose(vise, 'Thrust at', '3');
  await choose(vise, 'Caps of', 'aluminium');
  await allSaved(vise);
  await block.context().setOffline(false);
  await expect(block.getByText('Material of the caps: you set “steel”, someone else set “aluminium”.')).toBeVisible({
    timeout: 20_000,
  });
  await expect(choiceOf(block, 'Thrust at')).toHaveAttribute('data-value', '3');
  await block.getByRole('button', { name: 'Keep theirs' }).click();
  await allSaved(block);
  await expect(choiceOf(vise, 'Block of')).toHaveAttribute('data-value', 'aluminium', { timeout: 15_000 });
  await expect(choiceOf(block, 'Caps of')).toHaveAttribute('data-value', 'aluminium');
  await vise.context().close();
  await block.context().close();
});

test('an engine taken off the bench comes back with everything in it', async ({ page, request }) => {
  await putOnBench(request, reedDocument('Reed 6 to and fro'));
  await page.goto('/');
  await page.getByRole('button', { name: 'Close Reed 6 to and fro' }).click();
  await expect(page.getByRole('list', { name: 'Engines' })).not.toContainText('Reed 6 to and fro');
  await page.getByRole('button', { name: 'Reopen Reed 6 to and fro' }).click();
  await expect(page.getByRole('list', { name: 'Engines' })).toContainText('Reed 6 to and fro');
});

test('two windows of one browser, and two browsers, type in one empty box: neither figure is lost, both are asked', async ({
  browser,
  request,
  baseURL,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 in two windows'));
  const context = await browser.newContext({ baseURL: baseURL! });
  await context.addInitScript(() => localStorage.setItem('fettle.person', 'Wren'));
  const box = (page: Page, main = 1) => page.getByLabel(`M${main} main bore front plane, mm`);
  const [one, other] = [await context.newPage(), await context.newPage()];
  for (const page of [one, other]) await page.goto(`/engines/${id}/bores`);
  await box(one).fill('64.011');
  await box(other).fill('64.012');
  await box(one).press('Enter');
  await allSaved(one);
  // The other window's figure stands while the first one's arrives, after a reload too.
  await other.waitForTimeout(2500);
  await expect(box(other)).toHaveValue('64.012');
  await box(other).press('Enter');
  const question = /you typed “64\.012”, meanwhile Wren entered “64\.011”/;
  await expect(other.getByText(question)).toBeVisible({ timeout: 20_000 });
  await other.getByRole('button', { name: 'Keep mine' }).click();
  await allSaved(other);
  await expect(one.getByText(/you typed “64\.011”, meanwhile Wren entered “64\.012”/)).toBeVisible({ timeout: 20_000 });
  await one.getByRole('button', { name: 'Keep theirs' }).click();
  await expect(box(one)).toHaveValue('64.012');

  const second = await browser.newContext({ baseURL: baseURL! });
  await second.addInitScript(() => localStorage.setItem('fettle.person', 'Teasel'));
  const far = await second.newPage();
  await far.goto(`/engines/${id}/bores`);
  await box(one, 2).fill('64.013');
  await box(far, 2).fill('64.014');
  await box(one, 2).press('Enter');
  await allSaved(one);
  await far.waitForTimeout(2500);
  await expect(box(far, 2)).toHaveValue('64.014');
  await box(far, 2).press('Enter');
  await expect(far.getByText(/you typed “64\.014”, meanwhile Wren entered “64\.013”/)).toBeVisible({ timeout: 20_000 });
  await far.getByRole('button', { name: 'Keep mine' }).click();
  await expect(one.getByText(/you typed “64\.013”, meanwhile Teasel entered “64\.014”/)).toBeVisible({
    timeout: 20_000,
  });
  await context.close();
  await second.close();
});
