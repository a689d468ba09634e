import { readingDraftSchema } from '@fettle/core';
import { Router } from 'express';
import { z } from 'zod';
import { readBody, readWith } from '../problem/readBody.js';
import type { ReadingService } from './readingService.js';

export const readingPathSchema = z.object({
  id: z.uuid('an engine id is a UUID'),
  reading: z.uuid('a reading id is a UUID made by the client'),
});

/** `/api/jobs/:id/readings/:reading`: one reading under its client-made id. */
export function readingRoutes(readings: ReadingService): Router {
  const routes = Router();
  routes.put('/:id/readings/:reading', async (request, response) => {
    const path = readWith(readingPathSchema, request.params);
    const draft = readBody(readingDraftSchema, request.body);
    const { reading, made } = await readings.save(path.id, path.reading, draft);
    response.status(made ? 201 : 200).json(reading);
  });
  return routes;
}
