import { vi } from 'vitest';

/** A request of the page, as the server would get it. */
export interface Asked {
  readonly method: string;
  /** Path with its query, without the host. */
  readonly path: string;
  // biome-ignore lint/suspicious/noExplicitAny: whatever the page sends
  readonly body: any;
}

/** A status with its body; a body with a `type` is a refusal. */
export type Given = readonly [status: number, body: unknown];

/** A refusal as the server words it. */
export const refusal = (status: number, type: string, detail: string): Given => [
  status,
  { type, title: type, status, detail },
];

/**
 * Answers the page's requests in the server's place; tests of the server hold that it answers so.
 *
 * @param answer - called with each request
 * @returns what was asked, the first one first
 */
export function serverAnswers(answer: (asked: Asked) => Given): Asked[] {
  const all: Asked[] = [];
  vi.stubGlobal('fetch', async (asked: Request | string, init?: RequestInit) => {
    const request = typeof asked === 'string' ? null : asked;
    const text = request ? await request.text() : String(init?.body ?? '');
    const url = new URL(request?.url ?? String(asked), 'http://localhost');
    const one: Asked = {
      method: request?.method ?? init?.method ?? 'GET',
      path: url.pathname + url.search,
      body: text === '' ? undefined : JSON.parse(text),
    };
    all.push(one);
    const [status, body] = answer(one);
    const kind = status >= 400 ? 'application/problem+json' : 'application/json';
    return new Response(status === 204 ? null : JSON.stringify(body), { status, headers: { 'content-type': kind } });
  });
  return all;
}
