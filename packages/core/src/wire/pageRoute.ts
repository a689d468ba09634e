import type { Endpoint } from './endpoint.js';
import { FIRST_ENDPOINTS } from './firstEndpoints.js';
import { PAGE_ENDPOINTS, type PageEndpointName } from './pageEndpoints.js';
import type { Topic } from './topics.js';

/** What a page has to know of an endpoint to ask it; what comes back is read by its schema, which is loaded beside. */
export interface PageRoute {
  readonly method: Endpoint['method'];
  readonly at: string;
  /** Names in the path, and names behind it; omitted: none. */
  readonly path?: readonly string[];
  readonly query?: readonly string[];
  readonly topics?: readonly Topic[];
  readonly isTagged?: true;
  /** True if it is one of the first page's. */
  readonly isFirst?: true;
}

/** The names, if there are any. */
const named = <Key extends string, Name>(key: Key, names: readonly Name[]) =>
  (names.length === 0 ? {} : { [key]: names }) as Partial<Record<Key, readonly Name[]>>;

/** The routes of all that pages ask, made from its descriptions. `npm run formats` writes them down for the page. */
export function pageRoutes(): Record<PageEndpointName, PageRoute> {
  const names = Object.keys(PAGE_ENDPOINTS) as PageEndpointName[];
  return Object.fromEntries(
    names.map((name): [string, PageRoute] => {
      const { method, at, path, query, topics, isTagged } = PAGE_ENDPOINTS[name] as unknown as Endpoint;
      return [
        name,
        {
          method,
          at,
          ...named('path', Object.keys(path.shape)),
          ...named('query', Object.keys(query.shape)),
          ...named('topics', topics),
          ...(isTagged ? { isTagged } : {}),
          ...(name in FIRST_ENDPOINTS ? { isFirst: true } : {}),
        },
      ];
    }),
  ) as Record<PageEndpointName, PageRoute>;
}
