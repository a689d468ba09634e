import { z } from 'zod';
import { ACCESS_ENDPOINTS } from './accessWire.js';
import { DRAWER_ENDPOINTS } from './drawerWire.js';
import { type Endpoint, endpoint } from './endpoint.js';
import { HISTORY_ENDPOINTS } from './historyWire.js';
import { INSTRUMENT_ENDPOINTS } from './instrumentWire.js';
import { JOB_ENDPOINTS } from './jobWire.js';
import { LIVE_ENDPOINTS } from './liveWire.js';
import { SAMPLE_ENDPOINTS } from './sampleWire.js';
import { SHEET_ENDPOINTS } from './sheetWire.js';
import { TYPE_ENDPOINTS } from './typeWire.js';
import { UNSENT_ENDPOINTS } from './unsentWire.js';

/** What the pages ask of the server. Searches are not among it: a page searches in workers of its own, and need not load their formats. */
export const PAGE_ENDPOINTS = {
  health: endpoint({
    method: 'get',
    at: '/api/health',
    needs: 'anyone',
    summary: 'Check that server and database answer',
    answer: z.strictObject({ status: z.literal('ok') }),
    problems: ['not-ready'],
  }),
  ...ACCESS_ENDPOINTS,
  ...LIVE_ENDPOINTS,
  ...JOB_ENDPOINTS,
  ...DRAWER_ENDPOINTS,
  ...TYPE_ENDPOINTS,
  ...INSTRUMENT_ENDPOINTS,
  ...HISTORY_ENDPOINTS,
  ...SHEET_ENDPOINTS,
  ...UNSENT_ENDPOINTS,
  ...SAMPLE_ENDPOINTS,
} as const;
export type PageEndpointName = keyof typeof PAGE_ENDPOINTS;

/** One endpoint that pages ask, by its name. */
export function pageEndpointOf(name: PageEndpointName): Endpoint {
  return PAGE_ENDPOINTS[name] as unknown as Endpoint;
}
