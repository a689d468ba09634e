import { request as ask, createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { expect, test } from '@playwright/test';
import { allSaved, putOnBench, reedDocument } from './engines.js';

/** Passes everything on to a server, and brings out a new version of the page when told. */
class Front {
  private readonly server: Server;
  private isNew = false;
  /** True if the server behind it is away. */
  isAway = false;

  constructor(behind: string) {
    this.server = createServer((asked, answered) => {
      const { method, headers, url } = asked;
      if (this.isAway) {
        answered.destroy();
        return;
      }
      const isWorker = url === '/sw.js' && this.isNew;
      // Asked for anew as a whole: it is not what the browser has.
      const { 'if-none-match': _, 'if-modified-since': __, ...unconditional } = headers;
      const plain = isWorker ? { ...unconditional, 'accept-encoding': 'identity' } : headers;
      const onward = ask(new URL(url!, behind), { method, headers: plain }, (answer) => {
        const { 'content-length': ___, etag: ____, ...rest } = answer.headers;
        answered.writeHead(answer.statusCode!, isWorker ? rest : answer.headers);
        answer.pipe(answered, { end: !isWorker });
        if (isWorker) answer.on('end', () => answered.end('\n// another build'));
      });
      onward.on('error', () => answered.destroy());
      asked.pipe(onward);
    });
  }

  async open(): Promise<string> {
    await new Promise<void>((done) => this.server.listen(0, '127.0.0.1', done));
    return `http://127.0.0.1:${(this.server.address() as AddressInfo).port}`;
  }

  bringOut(): void {
    this.isNew = true;
  }

  close(): void {
    this.server.closeAllConnections();
    this.server.close();
  }
}

test('a new version of the page asks, waits for what was typed, and takes nothing along', async ({
  browser,
  baseURL,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 anew'));
  const front = new Front(baseURL!);
  const context = await browser.newContext({ baseURL: await front.open(), serviceWorkers: 'allow' });
  const page = await context.newPage();
  await page.goto(`/engines/${id}/bores`);
  await page.evaluate(async () => void (await navigator.serviceWorker.ready));
  await page.reload();
  await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
  await allSaved(page);
  await expect(page.getByText('There is a new version of this page.')).toBeHidden();

  front.bringOut();
  await page.evaluate(async () => void (await (await navigator.serviceWorker.ready).update()));
  await expect(page.getByText('There is a new version of this page.')).toBeVisible();
  const load = page.getByRole('button', { name: 'Reload' });
  // What is not sent yet keeps it waiting; what is half typed goes as well, for its box is left.
  front.isAway = true;
  await page.getByLabel('M1 main bore front plane, mm').fill('64.010');
  await page.keyboard.press('Enter');
  await expect(page.getByText('once one change is sent')).toBeVisible();
  await page.keyboard.type('64.011');
  await load.click();
  await expect(page.getByText('It loads once 2 changes are sent or resolved.')).toBeVisible();
  const loaded = page.waitForEvent('load');
  front.isAway = false;
  await loaded;
  await expect(page.getByLabel('M1 main bore front plane, mm')).toHaveValue('64.010');
  await expect(page.getByLabel('M2 main bore front plane, mm')).toHaveValue('64.011');
  await expect(page.getByText('There is a new version of this page.')).toBeHidden();
  await context.close();
  front.close();
});
