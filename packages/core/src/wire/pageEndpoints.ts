import { DRAWER_ENDPOINTS } from './drawerWire.js';
import { FIRST_ENDPOINTS } from './firstEndpoints.js';
import { HISTORY_ENDPOINTS } from './historyWire.js';
import { INSTRUMENT_ENDPOINTS } from './instrumentWire.js';
import { JOB_ENDPOINTS } from './jobWire.js';
import { SHEET_ENDPOINTS } from './sheetWire.js';
import { TYPE_ENDPOINTS } from './typeWire.js';

/** What the pages ask of the server. Searches are not among it: a page searches in workers of its own, and need not load their formats. */
export const PAGE_ENDPOINTS = {
  ...FIRST_ENDPOINTS,
  ...JOB_ENDPOINTS,
  ...DRAWER_ENDPOINTS,
  ...TYPE_ENDPOINTS,
  ...INSTRUMENT_ENDPOINTS,
  ...HISTORY_ENDPOINTS,
  ...SHEET_ENDPOINTS,
} as const;
export type PageEndpointName = keyof typeof PAGE_ENDPOINTS;
