import type { Endpoint } from './endpoint.js';
import { FIRST_ENDPOINTS } from './firstEndpoints.js';
import { PAGE_ENDPOINTS, type PageEndpointName } from './pageEndpoints.js';
import type { Topic } from './topics.js';

/** What a page has to know of an endpoint to ask it; what comes back is read by its schema, which is loaded beside. */
export interface PageRoute {
  readonly method: Endpoint['method'];
  readonly at: string;
  /** Names in the path, and names behind it. */
  readonly path: readonly string[];
  readonly query: readonly string[];
  readonly topics: readonly Topic[];
  readonly isTagged: boolean;
  /** True if it is one of the first page's. */
  readonly isFirst: boolean;
}

/** The routes of all that pages ask, made from its descriptions. `npm run formats` writes them down for the page. */
export function pageRoutes(): Record<PageEndpointName, PageRoute> {
  const names = Object.keys(PAGE_ENDPOINTS) as PageEndpointName[];
  return Object.fromEntries(
    names.map((name): [string, PageRoute] => {
      const { method, at, path, query, topics, isTagged } = PAGE_ENDPOINTS[name] as unknown as Endpoint;
      const isFirst = name in FIRST_ENDPOINTS;
      return [
        name,
        { method, at, path: Object.keys(path.shape), query: Object.keys(query.shape), topics, isTagged, isFirst },
      ];
    }),
  ) as Record<PageEndpointName, PageRoute>;
}
