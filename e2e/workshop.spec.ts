import { readFileSync } from 'node:fs';
import { get } from 'node:https';
import { join } from 'node:path';
import { type BrowserContext, expect, type Page, test } from '@playwright/test';
import jsQrModule from 'jsqr';
import { allSaved, reedDocument } from './engines.js';
import { seriousFaults, tooWide } from './looks.js';
import { BEYOND, makeAccount, makeOwner, type OwnServer, ownServer, putAs, signInFirst } from './ownServer.js';

const jsQR = jsQrModule as unknown as typeof jsQrModule.default;

/** What another bench has typed is here within a second; a machine with much else to do takes longer. */
const SOON = { timeout: 5000 };

let server: OwnServer;
test.beforeAll(async () => {
  test.setTimeout(120_000);
  server = await ownServer('workshop', BEYOND);
});
test.afterAll(() => server.stop());

/** What a code on the page says, as a camera reads it. */
async function qrOf(page: Page): Promise<string> {
  const picture = page.getByRole('img', { name: /^QR code/u });
  await expect(picture).toBeVisible();
  const { data, width } = await picture.evaluate(async (shown) => {
    const image = shown as HTMLImageElement;
    await image.decode();
    const canvas = document.createElement('canvas');
    // With the quiet margin that a camera sees around it.
    const [size, margin] = [400, 40];
    canvas.width = canvas.height = size + 2 * margin;
    const context = canvas.getContext('2d')!;
    context.fillStyle = '#fff';
    context.fillRect(0, 0, canvas.width, canvas.height);
    context.drawImage(image, margin, margin, size, size);
    return { data: [...context.getImageData(0, 0, canvas.width, canvas.height).data], width: canvas.width };
  });
  return jsQR(Uint8ClampedArray.from(data), width, width)!.data;
}

const bore = (main: string) => `${main} main bore front plane, mm`;

async function type(page: Page, main: string, text: string): Promise<void> {
  await page.getByLabel(bore(main)).fill(text);
  await page.keyboard.press('Enter');
}

/** On a phone there is one large box at a time. */
async function boxOf(phone: Page, main: string) {
  const inHand = phone.getByRole('region', { name: 'Current field' });
  await expect(inHand).toBeVisible();
  for (const way of ['Previous field', 'Next field']) {
    const go = inHand.getByRole('button', { name: way });
    while (!(await inHand.textContent())!.includes(`${main} `) && (await go.isEnabled())) await go.click();
  }
  await expect(inHand).toContainText(`${main} bore`);
  return inHand.getByRole('textbox');
}

test('two benches and a phone at one engine: let in by a code, signed in, live, and one of them offline and back', async ({
  browser,
}) => {
  test.setTimeout(240_000);
  const open = (options: Parameters<typeof browser.newContext>[0] = {}): Promise<BrowserContext> =>
    browser.newContext({ baseURL: server.origin, ignoreHTTPSErrors: true, ...options });
  const owner = await (await open()).newPage();
  // The place that was asked for is there once one has signed in.
  await owner.goto('/types');
  await makeOwner(owner, server.code, 'Wren');
  await expect(owner).toHaveTitle(/Engine types/u);
  const first = await makeAccount(owner, 'Finch');
  const second = await makeAccount(owner, 'Teasel');
  const id = await putAs(owner, reedDocument('Reed 6 for three', 5));
  await owner.goto(`/engines/${id}/bores`);

  const block = await (await open()).newPage();
  await block.goto(`/engines/${id}/bores`);
  await signInFirst(block, 'Teasel', second);
  await expect(block.getByLabel(bore('M1'))).toBeVisible();

  // The phone is led to the very place by the code.
  await owner.getByRole('button', { name: 'Open on phone' }).click();
  const phoneContext = await open({ viewport: { width: 390, height: 780 }, hasTouch: true });
  const phone = await phoneContext.newPage();
  const address = await qrOf(owner);
  expect(new URL(address).pathname).toBe('/let-in');
  await phone.goto(address.replace(new URL(address).origin, server.origin));
  await phone.getByLabel('Device name').fill('Phone at the vise');
  await phone.getByRole('button', { name: 'Add device' }).click();
  await signInFirst(phone, 'Finch', first);
  await expect(phone).toHaveURL(`${server.origin}/engines/${id}/bores`);
  // The same code lets nobody else in.
  const late = await (await open()).newPage();
  await late.goto(address.replace(new URL(address).origin, server.origin));
  await late.getByRole('button', { name: 'Add device' }).click();
  await expect(late.getByRole('alert')).toContainText('used or expired');
  await late.context().close();

  // All three at once.
  await type(owner, 'M1', '64.010');
  await type(block, 'M2', '64.011');
  await (await boxOf(phone, 'M3')).fill('64.012');
  await phone.keyboard.press('Enter');
  for (const page of [owner, block]) {
    await expect(page.getByLabel(bore('M1'))).toHaveValue('64.010', SOON);
    await expect(page.getByLabel(bore('M2'))).toHaveValue('64.011', SOON);
    await expect(page.getByLabel(bore('M3'))).toHaveValue('64.012', SOON);
  }
  // Who is where on the shaft is seen.
  await block.getByLabel(bore('M5')).focus();
  await expect(owner.getByRole('note', { name: 'At M5: Teasel' })).toBeVisible(SOON);
  await expect(owner.getByRole('status', { name: /Also here:.*Teasel: Main bores M5/u })).toBeVisible();

  // One is out of reach for a while; what is typed there arrives once.
  await phoneContext.setOffline(true);
  await (await boxOf(phone, 'M4')).fill('64.013');
  await phone.keyboard.press('Enter');
  await type(owner, 'M5', '64.014');
  await phoneContext.setOffline(false);
  await allSaved(phone);
  await expect(owner.getByLabel(bore('M4'))).toHaveValue('64.013', { timeout: 15_000 });
  await expect(await boxOf(phone, 'M5')).toHaveValue('64.014', { timeout: 20_000 });
  const { readings } = await owner.evaluate(async (job) => (await fetch(`/api/jobs/${job}`)).json(), id);
  const told = readings.map(({ station, text, by }: { station: number; text: string; by: string }) => [
    station,
    text,
    by,
  ]);
  expect(told.sort()).toEqual([
    [1, '64.010', 'Wren'],
    [2, '64.011', 'Teasel'],
    [3, '64.012', 'Finch'],
    [4, '64.013', 'Finch'],
    [5, '64.014', 'Wren'],
  ]);

  // What was done stands with the device, and the device is let out again.
  await owner.getByRole('link', { name: 'Users and devices' }).click();
  await owner.getByRole('link', { name: 'Activity log' }).click();
  const line = owner.getByRole('row').filter({ hasText: /Reed 6 for three.*M4 bore/u });
  await expect(line).toContainText('Finch');
  await expect(line).toContainText('Phone at the vise');
  await owner.getByRole('link', { name: 'Users and devices' }).click();
  await owner.getByRole('button', { name: 'Remove Phone at the vise' }).click();
  await expect(owner.getByText(/^removed/u)).toBeVisible();
  await phone.reload();
  await expect(phone.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  // The pages for it hold, as all others do, in every look and on every screen.
  await expect(owner).toHaveURL(/\/people$/u);
  for (const path of ['/people', '/people/audit', '/me', `/engines/${id}/bores`]) {
    await owner.goto(path);
    if (path.startsWith('/engines')) {
      await owner.getByRole('button', { name: 'Open on phone' }).click();
      await expect(owner.getByRole('img', { name: /^QR code/u })).toBeVisible();
    } else await expect(owner.getByRole('heading', { level: 1 })).toBeVisible();
    expect([path, await seriousFaults(owner), await tooWide(owner)]).toEqual([path, [], []]);
  }
  expect(await seriousFaults(phone)).toEqual([]);
  for (const page of [owner, block, phone]) await page.context().close();
});

test('over TLS only, with a certificate of the workshop’s own that can be trusted and is kept to itself', async () => {
  const ca = readFileSync(join(server.data, 'tls/authority.crt'), 'utf8');
  const status = await new Promise((resolve, reject) => {
    get(`${server.origin}/api/health`, { ca }, (answer) => resolve(answer.resume().statusCode)).on('error', reject);
  });
  expect(status).toBe(200);
  await expect(fetch(server.origin.replace('https', 'http'))).rejects.toThrow();
  expect(server.said).toContain('/workshop.crt');
});
