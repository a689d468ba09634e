import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { connect } from 'node:tls';
import { expect, type Page, test } from '@playwright/test';
import { reedDocument } from './engines.js';
import { seriousFaults, tooWide } from './looks.js';
import {
  BEYOND,
  makeAccount,
  makeOwner,
  type OwnServer,
  ownServer,
  PASSWORD,
  putAs,
  signInFirst,
} from './ownServer.js';

let server: OwnServer;
test.beforeAll(async () => {
  test.setTimeout(120_000);
  server = await ownServer('accounts', BEYOND);
});
test.afterAll(() => server.stop());

/** Addresses of what a page keeps of the workshop on its device. */
function keptOn(page: Page): Promise<string[]> {
  return page.evaluate(
    () =>
      new Promise<string[]>((done) => {
        const opening = indexedDB.open('fettle-answers');
        opening.onsuccess = () => {
          const keys = opening.result.transaction('answers').objectStore('answers').getAllKeys();
          keys.onsuccess = () => {
            opening.result.close();
            done(keys.result as string[]);
          };
        };
      }),
  );
}

const pinOf = (page: Page) => page.locator('input').and(page.getByLabel('PIN', { exact: true }));

async function enterPin(page: Page, pin: string): Promise<void> {
  await pinOf(page).fill(pin);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
}

test('a tablet that was let in is shared by PIN; who signs out leaves nothing of the workshop on it', async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const open = async (width = 1280) =>
    (
      await browser.newContext({ baseURL: server.origin, ignoreHTTPSErrors: true, viewport: { width, height: 800 } })
    ).newPage();
  const owner = await open();
  await owner.goto('/');
  await expect(owner.getByRole('heading', { name: 'The owner’s account' })).toBeVisible();
  expect(await seriousFaults(owner)).toEqual([]);
  await makeOwner(owner, server.code, 'Wren');
  const given = await makeAccount(owner, 'Teasel of the long bench at the window');
  const id = await putAs(owner, reedDocument('Reed 6 on the tablet', 5));
  await owner.goto(`/engines/${id}/bores`);
  await owner.getByRole('button', { name: 'Open on phone' }).click();
  const shown = await owner.getByRole('img', { name: /^QR code of/u }).getAttribute('alt');

  const tablet = await open(820);
  await tablet.goto(shown!.replace(/^.*(?=\/let-in#)/u, ''));
  await tablet.getByLabel('Device name').fill('Tablet at the vise');
  await tablet.getByRole('button', { name: 'Add device' }).click();
  const name = 'Teasel of the long bench at the window';
  await signInFirst(tablet, name, given);
  await tablet.goto('/me');
  await tablet.getByLabel('Your password, to set or remove it').fill(PASSWORD);
  await pinOf(tablet).fill('12');
  await expect(tablet.getByText('Four to eight digits.').first()).toBeVisible();
  await expect(tablet.getByRole('button', { name: 'Set PIN' })).toBeDisabled();
  await pinOf(tablet).fill('1234');
  await expect(tablet.getByText('Not this one: the digits follow each other.')).toBeVisible();
  await expect(tablet.getByRole('button', { name: 'Set PIN' })).toBeDisabled();
  await pinOf(tablet).fill('2468');
  await tablet.getByRole('button', { name: 'Set PIN' }).click();
  await expect(tablet.getByText('You have one: it works on registered devices.')).toBeVisible();
  await tablet.goto(`/engines/${id}/bores`);
  await expect(tablet.getByLabel('M1 main bore front plane, mm')).toBeVisible();
  await expect.poll(async () => (await keptOn(tablet)).join(' ')).toContain(`/api/jobs/${id}`);

  const bore = tablet.getByLabel('M1 main bore front plane, mm');
  await bore.pressSequentially('64.0');
  await tablet.goto('/me');
  await tablet.getByRole('button', { name: 'Sign out' }).click();
  await expect(tablet.getByRole('button', { name: 'Sign in by name and password' })).toBeVisible();
  await expect(tablet.getByRole('heading', { name })).toBeVisible();
  // Signing out opens the page anew.
  await expect(async () => expect(await keptOn(tablet)).toEqual([])).toPass({ timeout: 20_000 });
  expect(await seriousFaults(tablet)).toEqual([]);
  expect(await tooWide(tablet)).toEqual([]);

  // The wrong PIN says no more than that; the right one leads back to the place that was asked for.
  await tablet.goto(`/engines/${id}/bores`);
  await enterPin(tablet, '1357');
  await expect(tablet.getByRole('alert')).toBeVisible();
  await expect(pinOf(tablet)).toBeFocused();
  await enterPin(tablet, '2468');
  await expect(tablet.getByLabel('M1 main bore front plane, mm')).toBeVisible();
  await expect(tablet).toHaveURL(`${server.origin}/engines/${id}/bores`);

  // A sheet is signed by the account: nobody types another name.
  await owner.goto(`/engines/${id}/sheet`);
  await owner.getByRole('button', { name: 'Sign', exact: true }).click();
  const signing = owner.getByLabel('Sign build sheet', { exact: true }).first();
  await expect(signing).toContainText('Signed by Wren');
  await expect(owner.getByRole('textbox', { name: 'Signed by' })).toBeHidden();
  await signing.getByRole('button', { name: 'Sign build sheet' }).click();
  await expect(owner.getByRole('button', { name: /^Revision 1, Wren/u })).toBeVisible();

  // With two of them, one touch says who it is.
  await owner.goto('/me');
  await owner.getByLabel('Your password, to set or remove it').fill(PASSWORD);
  await pinOf(owner).fill('97531');
  await owner.getByRole('button', { name: 'Set PIN' }).click();
  await expect(owner.getByText('You have one: it works on registered devices by an owner')).toBeVisible();
  await owner.getByRole('button', { name: 'Sign out' }).click();
  // Where the device was not let in, there is no PIN.
  await expect(owner.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await expect(owner.getByRole('button', { name: 'Sign in by PIN' })).toBeHidden();
  await tablet.goto('/me');
  await tablet.getByRole('button', { name: 'Sign out' }).click();
  await expect(tablet.getByRole('heading', { name: 'Who is it?' })).toBeVisible();
  await tablet.getByRole('button', { name: 'Wren' }).click();
  await enterPin(tablet, '97531');
  await expect(tablet.getByRole('link', { name: 'Signed in as Wren' })).toBeVisible();
  // By PIN alone nobody gets at what is the owner's.
  await tablet.goto('/people');
  await expect(tablet.getByRole('heading', { name: 'Enter your password again' })).toBeVisible();
  await expect(tablet.getByRole('region', { name: 'Devices' })).toBeHidden();
  expect(await seriousFaults(tablet)).toEqual([]);
  await tablet.getByLabel('Password', { exact: true }).fill(PASSWORD);
  await tablet.getByRole('button', { name: 'Go on' }).click();
  await expect(tablet.getByText('Tablet at the vise (this one)')).toBeVisible();
  // What Teasel had half typed here is not Wren's to finish.
  await tablet.goto(`/engines/${id}/bores`);
  await expect(bore).toHaveValue('');
  await tablet.goto('/me');
  await tablet.getByRole('button', { name: 'Sign out' }).click();
  await tablet.getByRole('button', { name }).click();
  await enterPin(tablet, '2468');
  await expect(tablet.getByRole('link', { name: `Signed in as ${name}` })).toBeVisible();
  await tablet.goto(`/engines/${id}/bores`);
  await expect(bore).toHaveValue('64.0');
  for (const page of [owner, tablet]) await page.context().close();
});

test('what one has typed and could not send waits for them, and is sent by another one only when told', async ({
  browser,
}) => {
  const page = await (await browser.newContext({ baseURL: server.origin, ignoreHTTPSErrors: true })).newPage();
  await page.goto('/');
  await page.getByLabel('Name', { exact: true }).fill('Wren');
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  const reader = await makeAccount(page, 'Finch', 'reader');
  const id = await putAs(page, reedDocument('Reed 6 held back', 5));
  await page.goto(`/engines/${id}/bores`);
  await page.route(/\/readings\//u, (route) => route.abort());
  await page.getByLabel('M1 main bore front plane, mm').fill('64.010');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/saved on this device/u)).toBeVisible();
  await page.getByRole('link', { name: 'Signed in as Wren' }).click();
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await page.goto(`/engines/${id}/bores`);
  await signInFirst(page, 'Finch', reader);
  await page.unroute(/\/readings\//u);
  await expect(page.getByText('1 change typed here by Wren waits until they sign in on this device.')).toBeVisible();
  await expect(page.getByText('Signed in as viewer')).toBeVisible();
  const texts = () =>
    page.evaluate(
      async (job) =>
        ((await (await fetch(`/api/jobs/${job}`)).json()).readings ?? []).map((one: { text: string }) => one.text),
      id,
    );
  expect(await texts()).toEqual([]);
  // It is not lost: it goes once its typist is back.
  await page.getByRole('link', { name: 'Signed in as Finch' }).click();
  await page.getByRole('button', { name: 'Sign out' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Wren');
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect.poll(texts).toEqual(['64.010']);
  await page.context().close();
});

/** The certificate that is shown at a port. */
function fingerprintAt(port: string): Promise<string> {
  return new Promise((done, failed) => {
    const socket = connect({ port: Number(port), host: '127.0.0.1', rejectUnauthorized: false }, () => {
      done(socket.getPeerCertificate().fingerprint256);
      socket.end();
    }).on('error', failed);
  });
}

test('a certificate that the workshop has already is shown; half of one, or two that do not belong together, are told', async () => {
  test.setTimeout(120_000);
  const tls = join(server.data, 'tls');
  const names = { cert: join(tls, 'server.crt'), key: join(tls, 'server.key') };
  expect(readFileSync(names.cert, 'utf8')).toContain('BEGIN CERTIFICATE');
  const given = await ownServer('certificate', {
    ...BEYOND,
    FETTLE_TLS_CERT: names.cert,
    FETTLE_TLS_KEY: names.key,
  });
  expect(await fingerprintAt(given.port)).toBe(await fingerprintAt(server.port));
  expect(given.said).not.toContain('/workshop.crt');
  await given.stop();
  const refused = (env: Record<string, string>) =>
    expect(ownServer('certificate', { ...BEYOND, ...env })).rejects.toThrow(/start ended with 1/u);
  await refused({ FETTLE_TLS_CERT: names.cert });
  await refused({ FETTLE_TLS_CERT: names.cert, FETTLE_TLS_KEY: join(tls, 'authority.key') });
});
