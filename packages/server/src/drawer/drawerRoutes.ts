import { acceptTogetherSchema, drawerPutSchema, fittedSchema } from '@fettle/core';
import { Router } from 'express';
import { z } from 'zod';
import { jobPathSchema } from '../job/jobRoutes.js';
import type { JobService } from '../job/jobService.js';
import { readBody, readWith } from '../problem/readBody.js';
import type { DrawerService } from './drawerService.js';

export const drawerPathSchema = z.object({ id: z.uuid('a half’s id is a UUID') });
export const drawerVersionSchema = z.object({ version: z.coerce.number().int().min(1) });

/** `/api/drawer`: the workshop's halves, shared by the engines on the benches. */
export function drawerRoutes(drawer: DrawerService, jobs: JobService): Router {
  const routes = Router();
  routes.get('/', async (_request, response) => {
    response.json(await drawer.list());
  });
  routes.put('/halves/:id', async (request, response) => {
    const { id } = readWith(drawerPathSchema, request.params);
    const { version, by, half } = readBody(drawerPutSchema, request.body);
    response.status(version === 0 ? 201 : 200).json(await drawer.put(id, version, by, half));
  });
  routes.delete('/halves/:id', async (request, response) => {
    const { id } = readWith(drawerPathSchema, request.params);
    await drawer.remove(id, readWith(drawerVersionSchema, request.query).version);
    response.json(await drawer.list());
  });
  routes.post('/accept', async (request, response) => {
    const { by, jobs: choices } = readBody(acceptTogetherSchema, request.body);
    response.json(await jobs.acceptTogether(by, choices));
  });
  routes.post('/fitted/:id', async (request, response) => {
    const { id } = readWith(jobPathSchema, request.params);
    const { by, fitted } = readBody(fittedSchema, request.body);
    response.json(await drawer.setFitted(id, fitted, by));
  });
  return routes;
}
