import { PROBLEM_KINDS } from '@fettle/core';
import { type Response, Router } from 'express';
import { nonceOf } from '../web/webPage.js';
import { allEndpoints, openApi, problemsOf } from './openApi.js';

const ESCAPES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const escaped = (text: string) => text.replace(/[&<>"]/gu, (sign) => ESCAPES[sign]!);

function page(response: Response): string {
  const description = openApi() as {
    paths: Record<string, Record<string, { requestBody?: unknown; responses: unknown; parameters: unknown[] }>>;
  };
  const part = (title: string, value: unknown) =>
    `<details><summary>${title}</summary><pre tabindex="0">${escaped(JSON.stringify(value, null, 2))}</pre></details>`;
  const operations = allEndpoints().map((endpoint) => {
    const { method, at, summary } = endpoint;
    const { parameters, requestBody, responses } = description.paths[at]![method]!;
    return `<section><h2><code>${method.toUpperCase()} ${escaped(at)}</code></h2><p>${escaped(summary)}</p>
${parameters.length > 0 ? part('Parameters', parameters) : ''}${requestBody ? part('Body', requestBody) : ''}${part('Answers', responses)}
<p>Problems: ${problemsOf(endpoint)
      .map((kind) => `<a href="#${kind}">${kind}</a>`)
      .join(', ')}</p></section>`;
  });
  const kinds = Object.entries(PROBLEM_KINDS).map(
    ([kind, { status, title }]) => `<dt id="${kind}"><code>${kind}</code></dt><dd>${status}: ${title}.</dd>`,
  );
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Fettle API</title>
<meta name="viewport" content="width=device-width">
<style nonce="${nonceOf(response)}">body{font:16px/1.5 system-ui,sans-serif;max-width:60rem;margin:2rem auto;padding:0 1rem;color:#16202c;background:#fbfaf7}
h2{font-size:1.1rem;margin:2rem 0 .25rem}pre{background:#efede6;padding:1rem;overflow:auto;max-height:24rem}summary{cursor:pointer;padding:.4rem 0}a{color:#1d4382}</style>
</head><body><main><h1>Fettle API</h1>
<p>Made from the schemas that the server validates with. The same as <a href="/api/docs/openapi.json">OpenAPI 3.1</a>.
Lengths in job documents and readings are whole nanometres; a fit request names its own unit.</p>
${operations.join('\n')}
<h2>Problems</h2><p>Answered as <code>application/problem+json</code> (RFC 9457); <code>errors</code> lists each bad field by JSON Pointer.</p>
<dl>${kinds.join('')}</dl></main></body></html>`;
}

/** `/api/docs`: the API for people, `/api/docs/openapi.json` for programs. */
export function docsRoutes(): Router {
  const routes = Router();
  routes.get('/openapi.json', (_request, response) => {
    response.json(openApi());
  });
  routes.get('/', (_request, response) => {
    response.type('html').send(page(response));
  });
  return routes;
}
