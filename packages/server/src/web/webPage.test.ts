import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { runningServer } from '../testing/runningServer.js';
import { NONCE_PLACEHOLDER, webPage } from './webPage.js';

const folder = mkdtempSync(join(tmpdir(), 'fettle-page-'));
mkdirSync(join(folder, 'assets'));
writeFileSync(join(folder, 'assets/app-1.js'), 'console.log(1)');
writeFileSync(join(folder, 'index.html'), `<meta property="csp-nonce" nonce="${NONCE_PLACEHOLDER}"><p>Fettle</p>`);

let server: Awaited<ReturnType<typeof runningServer>>;
beforeAll(async () => {
  server = await runningServer(folder);
});
afterAll(() => server.close());

describe('the built page', () => {
  it('comes for every path that is not the API, with a nonce of its own that the policy names', async () => {
    const nonces = new Set<string>();
    for (const path of ['/', '/engines/some-id/choose']) {
      const answer = await server.call('GET', path);
      const nonce = /nonce="([^"]+)"/u.exec(answer.body)?.[1] ?? '';
      expect(answer.headers.get('content-security-policy')).toContain(`'nonce-${nonce}'`);
      expect(answer.headers.get('cache-control')).toBe('no-store');
      nonces.add(nonce);
    }
    expect(nonces.size).toBe(2);
    expect(nonces).not.toContain(NONCE_PLACEHOLDER);
  });

  it('keeps assets for a year and says when one is not there', async () => {
    const asset = await server.call('GET', '/assets/app-1.js');
    expect(asset.headers.get('cache-control')).toContain('immutable');
    expect(await server.call('GET', '/assets/app-2.js')).toMatchObject({
      status: 404,
      body: { type: '/api/docs#not-found' },
    });
    expect(await server.call('GET', '/api/nowhere')).toMatchObject({ status: 404 });
  });

  it('is not served when it was never built', () => {
    expect(() => webPage(join(folder, 'nothing'), async () => false)).toThrow('index.html');
  });
});
