import { type ChildProcess, spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { join } from 'node:path';
import type { JobDocument } from '@fettle/core';
import { expect, type Page } from '@playwright/test';
import { freePort } from '../scripts/postgres.mjs';
import { choose } from './choices.js';

export const PASSWORD = 'three shells and a shim';

export interface OwnServer {
  readonly origin: string;
  readonly port: string;
  /** The code that the owner's account is made with. */
  readonly code: string;
  /** What was said when it started. */
  readonly said: string;
  readonly data: string;
  readonly child: ChildProcess;
  stop(): Promise<void>;
}

/** As a workshop starts it that opens it to its network: on all addresses, over TLS, with accounts. */
export const BEYOND = { FETTLE_HOST: '0.0.0.0', FETTLE_HOSTS: '127.0.0.1' };

/**
 * Starts Fettle with a folder of its own.
 *
 * @param env what it is started with beside; `FETTLE_PORT` where it is to be the same again
 */
export async function ownServer(name: string, env: Record<string, string> = {}): Promise<OwnServer> {
  const port = env.FETTLE_PORT ?? String(await freePort());
  const data = join(process.env.FETTLE_E2E_DATA!, name);
  const child = spawn(process.execPath, ['scripts/start.mjs'], {
    cwd: join(import.meta.dirname, '..'),
    env: {
      ...process.env,
      FETTLE_DATA: data,
      DATABASE_URL: '',
      ...env,
      FETTLE_PORT: port,
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let said = '';
  await new Promise<void>((resolve, reject) => {
    child.stdout!.on('data', (chunk) => {
      said += chunk;
      if (said.includes('Fettle is ready')) resolve();
    });
    child.on('exit', (code) => reject(new Error(`start ended with ${code}: ${said}`)));
  });
  return {
    origin: `${env.FETTLE_HOST ? 'https' : 'http'}://127.0.0.1:${port}`,
    port,
    code: /enter the code (\S+)/u.exec(said)?.[1] ?? '',
    said,
    data,
    child,
    async stop() {
      child.removeAllListeners('exit');
      if (child.exitCode !== null || child.signalCode !== null) return;
      const ended = once(child, 'exit');
      child.kill('SIGTERM');
      await ended;
    },
  };
}

async function twice(page: Page, password: string): Promise<void> {
  await page.getByLabel('New password').fill(password);
  await page.getByLabel('Repeat password').fill(password);
}

/** Makes the owner's account, on a page that was opened anywhere. */
export async function makeOwner(page: Page, code: string, name: string): Promise<void> {
  await page.getByLabel('Code').fill(code);
  await page.getByLabel('Name', { exact: true }).fill(name);
  await twice(page, PASSWORD);
  await page.getByRole('button', { name: 'Create and sign in' }).click();
  // On a phone it stands in the menu.
  const menu = page.getByRole('button', { name: 'Menu' });
  const isFolded = await menu.isVisible();
  if (isFolded) await menu.click();
  await expect(page.getByRole('link', { name: `Signed in as ${name}` })).toBeVisible();
  if (isFolded) await menu.click();
}

/** Makes an account on the owner's page. @returns the password for the first time */
export async function makeAccount(owner: Page, name: string, role = 'fitter'): Promise<string> {
  await owner.getByRole('link', { name: 'Users and devices' }).click();
  await owner.getByLabel('New person').fill(name);
  if (role !== 'fitter') await choose(owner, 'Account role', role);
  await owner.getByRole('button', { name: 'Create account' }).click();
  const told = owner.getByRole('alert').filter({ hasText: `${name} signs in with` });
  const password = await told.locator('strong').textContent();
  await owner.getByRole('button', { name: 'Done' }).click();
  return password!;
}

/** Signs in for the first time, and sets a password of their own. */
export async function signInFirst(page: Page, name: string, password: string): Promise<void> {
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await page.getByLabel('Password you were given').fill(password);
  await twice(page, PASSWORD);
  await page.getByRole('button', { name: 'Set password' }).click();
  await expect(page.getByRole('heading', { name: 'Set your own password' })).toBeHidden();
  // On a phone it stands in the menu.
  const menu = page.getByRole('button', { name: 'Menu' });
  const isFolded = await menu.isVisible();
  if (isFolded) await menu.click();
  await expect(page.getByRole('link', { name: `Signed in as ${name}` })).toBeVisible();
  if (isFolded) await menu.click();
}

/** Puts an engine on the bench as whoever is signed in on a page. */
export async function putAs(page: Page, document: JobDocument): Promise<string> {
  const id = randomUUID();
  const status = await page.evaluate(
    async ([body]) => {
      const { token } = await (await fetch('/api/session')).json();
      const headers = { 'content-type': 'application/json', 'x-fettle-token': token };
      return (await fetch('/api/jobs', { method: 'POST', headers, body: JSON.stringify(body) })).status;
    },
    [{ id, document }] as const,
  );
  expect(status).toBe(201);
  return id;
}
