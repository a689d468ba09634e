import { gunzipSync } from 'node:zlib';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { runningServer } from '../testing/runningServer.js';
import { startedEngine } from '../testing/samples.js';

let server: Awaited<ReturnType<typeof runningServer>>;
beforeAll(async () => {
  server = await runningServer();
  for (let at = 0; at < 8; at += 1) {
    const id = crypto.randomUUID();
    await server.call('POST', '/api/jobs', { id, by: 'Reed', document: startedEngine(`Reed ${at}`) });
  }
}, 60_000);
afterAll(() => server.close());

it('a list that many ask for at once is the same for each, compressed or not', async () => {
  const { request } = await import('node:http');
  const asked = (encoding: string) =>
    new Promise<{ encoding: string | undefined; text: string }>((resolve, reject) => {
      const url = new URL('/api/jobs', server.origin);
      request(url, { headers: { 'accept-encoding': encoding } }, (response) => {
        const chunks: Buffer[] = [];
        response.on('data', (chunk: Buffer) => chunks.push(chunk));
        response.on('end', () => {
          const body = Buffer.concat(chunks);
          const kind = response.headers['content-encoding'];
          resolve({ encoding: kind, text: (kind === 'gzip' ? gunzipSync(body) : body).toString('utf8') });
        });
      })
        .on('error', reject)
        .end();
    });
  const answers = await Promise.all(
    Array.from({ length: 30 }, (_, at) => asked(at % 3 === 0 ? 'identity' : 'gzip, br')),
  );
  expect(answers.map(({ encoding }) => encoding)).toEqual(
    Array.from({ length: 30 }, (_, at) => (at % 3 === 0 ? undefined : 'gzip')),
  );
  expect(new Set(answers.map(({ text }) => text)).size).toBe(1);
  expect(JSON.parse(answers[0]!.text).jobs).toHaveLength(8);
});
