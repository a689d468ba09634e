import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { momentSchema } from '../measure/moment.js';
import { buildSheetSchema } from '../sheet/buildSheetSchema.js';
import { jobIdSchema } from './benchWire.js';
import { endpoint } from './endpoint.js';

const byId = z.object({ id: jobIdSchema });
const revisionSchema = z.coerce.number().int().min(1).max(9999);

/** A sheet that was signed: it stays as it was, whatever is changed later. */
const signedSheetSchema = z.strictObject({
  revision: z.int().min(1).describe('1 for the first; a correction is the next.'),
  signedAt: momentSchema,
  signedBy: z.string(),
  reason: z.string().describe('Reason for replacing the one before; empty for the first.'),
  open: z.array(z.string()).describe('What was open when it was signed.'),
  hash: z
    .string()
    .regex(/^[0-9a-f]{64}$/u)
    .describe('SHA-256 of its content, as `fettle.build-sheet/1` with its sign-off in canonical JSON.'),
});
export type SignedSheet = z.output<typeof signedSheetSchema>;

const photoId = z.uuid('a photo id is a UUID made by the client').toLowerCase();

/** What a picture may be. */
export const PHOTO_TYPES = ['image/jpeg', 'image/png', 'image/webp'] as const;
/** The largest picture, bytes. */
export const LARGEST_PHOTO = 5 * 1024 * 1024;

/** How a PDF is made: paper, whose clock and way of writing dates it uses, and what its clearances are in. */
const paperQuery = z.object({
  paper: z.enum(['A4', 'Letter']).default('A4'),
  zone: z
    .string()
    .max(60)
    .default('UTC')
    .refine((zone) => {
      try {
        return new Intl.DateTimeFormat('en', { timeZone: zone }) !== null;
      } catch {
        return false;
      }
    }, 'a time zone by its name, as Europe/Lisbon')
    .describe('Time zone for the times.'),
  locale: z
    .string()
    .max(60)
    .default('en-GB')
    .refine((locale) => {
      try {
        return new Intl.DateTimeFormat(locale) !== null;
      } catch {
        return false;
      }
    }, 'a language as a browser names it, as en-US')
    .describe('Language and country the dates are written for.'),
  clearances: z
    .enum(['unit', 'thou'])
    .default('unit')
    .describe('Clearances in the unit of the engine, or in thousandths where that is inches.'),
});
export type Paper = z.output<typeof paperQuery>;

const PDF = ['application/pdf'] as const;

export const SHEET_ENDPOINTS = {
  listSheets: endpoint({
    method: 'get',
    at: '/api/jobs/{id}/sheets',
    needs: 'read',
    summary: 'Signed build sheets of an engine, newest first',
    path: byId,
    answer: z.array(signedSheetSchema),
    problems: ['invalid-request', 'not-found'],
    topics: ['sheets'],
    isTagged: true,
  }),
  signSheet: endpoint({
    method: 'post',
    at: '/api/jobs/{id}/sheets',
    needs: 'bench',
    summary: 'Sign the build sheet of an engine as it is now; a later one gives a reason',
    path: byId,
    body: z.strictObject({
      by: personSchema,
      seen: z.int().describe('Revision of the engine, readings included, that was looked at.'),
      revision: z.int().min(1).describe('Which revision this is to be: one more than the last.'),
      reason: z.string().trim().max(500).default(''),
    }),
    answer: signedSheetSchema,
    statuses: { 201: 'Signed' },
    problems: ['invalid-request', 'not-found', 'stale-version'],
    topics: ['sheets'],
  }),
  getSheet: endpoint({
    method: 'get',
    at: '/api/jobs/{id}/sheets/{revision}',
    needs: 'read',
    summary: 'One signed sheet with its content',
    path: z.object({ id: jobIdSchema, revision: revisionSchema }),
    answer: z.strictObject({ ...signedSheetSchema.shape, sheet: buildSheetSchema }),
    problems: ['invalid-request', 'not-found'],
    topics: ['sheets'],
    isTagged: true,
  }),
  putPhoto: endpoint({
    method: 'put',
    at: '/api/jobs/{id}/photos/{photo}',
    needs: 'bench',
    summary: 'Store a photo of a problem; sending it again changes nothing',
    path: z.object({ id: jobIdSchema, photo: photoId }),
    body: z.strictObject({
      by: personSchema,
      type: z.enum(PHOTO_TYPES),
      data: z
        .base64('photo bytes in base64')
        .min(4, 'the photo is empty')
        .max(Math.ceil(LARGEST_PHOTO / 3) * 4, 'a photo has at most 5 MB'),
    }),
    answer: z.strictObject({ id: photoId, bytes: z.int() }),
    statuses: { 201: 'Saved', 200: 'Already stored' },
    problems: ['invalid-request', 'not-found', 'id-in-use'],
    largestMb: 8,
  }),
} as const;

/** Files: read by their address, never by the pages' own queries. */
export const FILE_ENDPOINTS = {
  getPhoto: endpoint({
    method: 'get',
    at: '/api/jobs/{id}/photos/{photo}',
    needs: 'read',
    summary: 'Photo of a problem',
    path: z.object({ id: jobIdSchema, photo: photoId }),
    answer: z.unknown(),
    files: PHOTO_TYPES,
    problems: ['invalid-request', 'not-found'],
  }),
  sheetPdf: endpoint({
    method: 'get',
    at: '/api/jobs/{id}/sheet.pdf',
    needs: 'read',
    summary: 'Build sheet of an engine as it is now, to print',
    path: byId,
    query: paperQuery,
    answer: z.unknown(),
    files: PDF,
    problems: ['invalid-request', 'not-found', 'took-too-long', 'too-large'],
  }),
  signedPdf: endpoint({
    method: 'get',
    at: '/api/jobs/{id}/sheets/{revision}/sheet.pdf',
    needs: 'read',
    summary: 'A signed sheet, to print, with its hash on it',
    path: z.object({ id: jobIdSchema, revision: revisionSchema }),
    query: paperQuery,
    answer: z.unknown(),
    files: PDF,
    problems: ['invalid-request', 'not-found', 'took-too-long', 'too-large'],
  }),
  reportPdf: endpoint({
    method: 'get',
    at: '/api/jobs/{id}/sheets/{revision}/report.pdf',
    needs: 'read',
    summary: 'Report for the customer, of an engine that is as this sheet was signed',
    path: z.object({ id: jobIdSchema, revision: revisionSchema }),
    query: paperQuery.extend({
      names: z.enum(['yes', 'no']).default('no').describe('Whether the people who did the work are named.'),
    }),
    answer: z.unknown(),
    files: PDF,
    problems: ['invalid-request', 'not-found', 'stale-version', 'took-too-long', 'too-large'],
  }),
} as const;
