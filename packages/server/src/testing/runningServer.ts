import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { PROBLEM_KINDS, problemKind, problemSchema } from '@fettle/core';
import { pino } from 'pino';
import { DataSource } from 'typeorm';
import { expect, inject } from 'vitest';
import { createApp } from '../createApp.js';
import { FitPool } from '../fit/fitPool.js';
import { openWorkshop } from '../openWorkshop.js';
import { BodyPool } from '../read/BodyPool.js';
import { PdfPool } from '../sheet/pdfPool.js';
import { bounded, LOOK_EVERY } from '../wire/bounded.js';
import { allEndpoints, problemsOf } from '../wire/openApi.js';

export interface Answer {
  readonly status: number;
  readonly headers: Headers;
  // biome-ignore lint/suspicious/noExplicitAny: a test looks into whatever came back
  readonly body: any;
}

/** A request is waited for so long in tests, ms. */
const SHORT = 3000;

/** The endpoint that stands at an address; null for what is none. */
function endpointAt(method: string, path: string) {
  const [address = ''] = path.split('?');
  return (
    allEndpoints().find(
      (one) =>
        one.method === method.toLowerCase() &&
        new RegExp(`^${one.at.replaceAll(/\{\w+\}/gu, '[^/]+')}$`, 'u').test(address),
    ) ?? null
  );
}

/** Holds an answer against the description of its endpoint: its status, what it says, and which problems it may be. */
export function checkAnswer(method: string, path: string, { status, body }: Answer): void {
  const endpoint = endpointAt(method, path);
  if (!endpoint || status === 304) return;
  const where = `${method} ${path} answered ${status}`;
  if (status < 400) {
    expect(Object.keys(endpoint.statuses).map(Number), where).toContain(status);
    expect(endpoint.answer.safeParse(body).error?.message, where).toBeUndefined();
    return;
  }
  const kind = problemKind(problemSchema.parse(body));
  expect(problemsOf(endpoint), where).toContain(kind);
  expect(PROBLEM_KINDS[kind!].status, where).toBe(status);
}

/** A database of its own with nothing in it, in the throw-away cluster. @returns its address */
export async function freshDatabase(): Promise<string> {
  const name = `test_${Math.random().toString(36).slice(2)}`;
  const base = inject('databaseUrl');
  const admin = await new DataSource({ type: 'postgres', url: base }).initialize();
  await admin.query(`CREATE DATABASE ${name}`);
  await admin.destroy();
  return base.replace(/\/[^/]*$/u, `/${name}`);
}

/** The real server on a database of its own in the throw-away cluster, or on one that is there. */
export async function runningServer(
  webFolder: string | null = null,
  url: string | null = null,
  more: Partial<Parameters<typeof createApp>[0]> = {},
) {
  const database = await openWorkshop(url ?? (await freshDatabase()));
  const log = pino({ level: 'silent' });
  const fits = new FitPool();
  const reads = new BodyPool();
  const pdfs = new PdfPool();
  const { app, people, close } = await createApp({ database, fits, reads, pdfs, log, webFolder, ...more });
  const server = await new Promise<Server>((resolve) => {
    const listening = bounded(createServer(LOOK_EVERY, app), SHORT);
    listening.listen(0, '127.0.0.1', () => resolve(listening));
  });
  const origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return {
    app: { people },
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
      const answer = {
        status: response.status,
        headers: response.headers,
        body: isJson ? JSON.parse(answered) : answered,
      };
      checkAnswer(method, path, answer);
      return answer;
    },
    async close() {
      await close();
      await new Promise((done) => server.close(done));
      await fits.close();
      await reads.close();
      await pdfs.close();
      await database.destroy();
    },
  };
}
