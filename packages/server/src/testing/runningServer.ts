import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { DataSource } from 'typeorm';
import { inject } from 'vitest';
import { createApp } from '../createApp.js';
import { openDatabase } from '../database/openDatabase.js';
import { FitPool } from '../fit/fitPool.js';

export interface Answer {
  readonly status: number;
  readonly headers: Headers;
  // biome-ignore lint/suspicious/noExplicitAny: a test looks into whatever came back
  readonly body: any;
}

/** The real server on a database of its own in the throw-away cluster. */
export async function runningServer(webFolder: string | null = null) {
  const name = `test_${Math.random().toString(36).slice(2)}`;
  const base = inject('databaseUrl');
  const admin = await new DataSource({ type: 'postgres', url: base }).initialize();
  await admin.query(`CREATE DATABASE ${name}`);
  await admin.destroy();
  const database = await openDatabase(base.replace(/\/[^/]*$/u, `/${name}`));
  const log = pino({ level: 'silent' });
  const fits = new FitPool();
  const app = createApp({ database, fits, log, webFolder });
  const server = await new Promise<ReturnType<typeof app.listen>>((resolve) => {
    const listening = app.listen(0, '127.0.0.1', () => resolve(listening));
  });
  const origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return {
    database,
    log,
    origin,
    async call(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Answer> {
      const text = typeof body === 'string' ? body : JSON.stringify(body);
      const response = await fetch(origin + path, {
        method,
        headers: { ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
        ...(body === undefined ? {} : { body: text }),
      });
      const answered = await response.text();
      const isJson = response.headers.get('content-type')?.includes('json');
      return { status: response.status, headers: response.headers, body: isJson ? JSON.parse(answered) : answered };
    },
    async close() {
      await new Promise((done) => server.close(done));
      await fits.close();
      await database.destroy();
    },
  };
}
