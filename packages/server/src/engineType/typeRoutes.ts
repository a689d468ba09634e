import { typeArchiveSchema, typePutSchema } from '@fettle/core';
import { Router } from 'express';
import { z } from 'zod';
import { readBody, readWith } from '../problem/readBody.js';
import type { TypeService } from './typeService.js';

export const typePathSchema = z.object({ id: z.uuid('an engine type’s id is a UUID') });
export const typeListQuerySchema = z.object({
  archived: z.enum(['true', 'false']).default('false'),
  words: z.string().max(200).default(''),
});

/** `/api/types`: the library of engine types. */
export function typeRoutes(types: TypeService): Router {
  const routes = Router();
  routes.get('/', async (request, response) => {
    const { archived, words } = readWith(typeListQuerySchema, request.query);
    response.json(await types.list(archived === 'true', words));
  });
  routes.get('/:id', async (request, response) => {
    response.json(await types.get(readWith(typePathSchema, request.params).id));
  });
  routes.get('/:id/revisions', async (request, response) => {
    response.json(await types.revisions(readWith(typePathSchema, request.params).id));
  });
  routes.put('/:id', async (request, response) => {
    const { id } = readWith(typePathSchema, request.params);
    const { revision, by, type } = readBody(typePutSchema, request.body);
    response.status(revision === 0 ? 201 : 200).json(await types.put(id, revision, by, type));
  });
  routes.post('/:id/archive', async (request, response) => {
    const { id } = readWith(typePathSchema, request.params);
    response.json(await types.setArchived(id, readBody(typeArchiveSchema, request.body).archived));
  });
  return routes;
}
