import { z } from 'zod';
import { ACCESS_ENDPOINTS } from './accessWire.js';
import { BENCH_ENDPOINTS } from './benchWire.js';
import { endpoint } from './endpoint.js';
import { LIVE_ENDPOINTS } from './liveWire.js';
import { SAMPLE_ENDPOINTS } from './sampleWire.js';
import { UNSENT_ENDPOINTS } from './unsentWire.js';

/** What the first page asks of the server: it loads the schemas of these alone. */
export const FIRST_ENDPOINTS = {
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
  ...BENCH_ENDPOINTS,
  ...UNSENT_ENDPOINTS,
  ...SAMPLE_ENDPOINTS,
} as const;
