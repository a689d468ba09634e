import { jobCreateSchema, jobPatchSchema, jobStampSchema } from '@fettle/core';
import { Router } from 'express';
import { z } from 'zod';
import { readBody, readWith } from '../problem/readBody.js';
import type { JobService } from './jobService.js';

export const jobPathSchema = z.object({ id: z.uuid('an engine id is a UUID') });
export const jobListQuerySchema = z.object({ deleted: z.enum(['true', 'false']).default('false') });
/** Version and name travel in the query where a method has no body. */
export const stampQuerySchema = z.object({
  version: z.coerce.number().int().min(1),
  by: z.string().trim().min(1).max(60),
});

/** `/api/jobs`: the engines on the benches. */
export function jobRoutes(jobs: JobService): Router {
  const routes = Router();
  routes.get('/', async (request, response) => {
    const { deleted } = readWith(jobListQuerySchema, request.query);
    response.json(await jobs.list(deleted === 'true'));
  });
  routes.post('/', async (request, response) => {
    const { id, by, document } = readBody(jobCreateSchema, request.body);
    const { job, made } = await jobs.create(id, by, document);
    response
      .status(made ? 201 : 200)
      .location(`/api/jobs/${id}`)
      .json(job);
  });
  routes.get('/:id', async (request, response) => {
    const { id } = readWith(jobPathSchema, request.params);
    const etag = `"${await jobs.revision(id)}"`;
    if (request.get('if-none-match') === etag) {
      response.status(304).end();
      return;
    }
    const job = await jobs.get(id);
    response.set('etag', `"${job.revision}"`).json(job);
  });
  routes.patch('/:id', async (request, response) => {
    const { id } = readWith(jobPathSchema, request.params);
    const { steps, ...stamp } = readBody(jobPatchSchema, request.body);
    response.json(await jobs.patch(id, stamp, steps));
  });
  routes.delete('/:id', async (request, response) => {
    const { id } = readWith(jobPathSchema, request.params);
    response.json(await jobs.remove(id, readWith(stampQuerySchema, request.query)));
  });
  routes.post('/:id/restore', async (request, response) => {
    const { id } = readWith(jobPathSchema, request.params);
    response.json(await jobs.restore(id, readBody(jobStampSchema, request.body)));
  });
  routes.get('/:id/history', async (request, response) => {
    const { id } = readWith(jobPathSchema, request.params);
    response.json(await jobs.history(id));
  });
  return routes;
}
