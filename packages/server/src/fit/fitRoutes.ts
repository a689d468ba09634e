import { fitRequestSchema } from '@fettle/core';
import { Router } from 'express';
import { readBody } from '../problem/readBody.js';
import type { FitPool } from './fitPool.js';

/** `/api/fit`: a fit request in, its plan out. A caller that hangs up cancels its search. */
export function fitRoutes(pool: FitPool): Router {
  const routes = Router();
  routes.post('/', async (request, response) => {
    const asked = readBody(fitRequestSchema, request.body);
    const gone = new AbortController();
    response.on('close', () => gone.abort());
    response.json(await pool.solve(asked, gone.signal));
  });
  return routes;
}
