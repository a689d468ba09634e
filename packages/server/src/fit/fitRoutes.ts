import { fitRequestSchema } from '@fettle/core';
import { Router } from 'express';
import { readBody } from '../problem/readBody.js';
import type { FitPool } from './fitPool.js';

/** `/api/fit`: a fit request in, its plan out. */
export function fitRoutes(pool: FitPool): Router {
  const routes = Router();
  routes.post('/', async (request, response) => {
    response.json(await pool.solve(readBody(fitRequestSchema, request.body)));
  });
  return routes;
}
