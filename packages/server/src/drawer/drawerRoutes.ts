import { acceptTogetherSchema, drawerMoveSchema, fittedSchema, kitPutSchema, undoSchema } from '@fettle/core';
import { Router } from 'express';
import { z } from 'zod';
import { jobPathSchema, stampQuerySchema } from '../job/jobRoutes.js';
import type { JobService } from '../job/jobService.js';
import { readBody, readWith } from '../problem/readBody.js';
import type { DrawerService } from './drawerService.js';

export const drawerPathSchema = z.object({ id: z.uuid('an id in the drawer is a UUID') });

/** `/api/drawer`: the workshop's halves, shared by the engines on the benches. */
export function drawerRoutes(drawer: DrawerService, jobs: JobService): Router {
  const routes = Router();
  routes.get('/', async (_request, response) => {
    response.json(await drawer.list());
  });
  routes.post('/move', async (request, response) => {
    response.json(await drawer.move(readBody(drawerMoveSchema, request.body)));
  });
  routes.get('/history', async (_request, response) => {
    response.json(await drawer.history());
  });
  routes.post('/undo/:id', async (request, response) => {
    const { id } = readWith(drawerPathSchema, request.params);
    response.json(await drawer.undo(id, readBody(undoSchema, request.body).by));
  });
  routes.get('/kits', async (_request, response) => {
    response.json(await drawer.kits());
  });
  routes.put('/kits/:id', async (request, response) => {
    const { id } = readWith(drawerPathSchema, request.params);
    const { version, by, kit } = readBody(kitPutSchema, request.body);
    response.status(version === 0 ? 201 : 200).json(await drawer.putKit(id, version, by, kit));
  });
  routes.delete('/kits/:id', async (request, response) => {
    const { id } = readWith(drawerPathSchema, request.params);
    const { version, by } = readWith(stampQuerySchema, request.query);
    response.json(await drawer.putKit(id, version, by, null));
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
