import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { calibrationDraftSchema, calibrationSchema } from '../instrument/calibration.js';
import { instrumentDraftSchema, registeredInstrumentSchema } from '../instrument/registeredInstrument.js';
import { studyEntrySchema, studyPlanSchema } from '../instrument/studyPlan.js';
import { zeroCheckSchema } from '../instrument/zeroCheck.js';
import { daySchema, momentSchema } from '../measure/moment.js';
import { unitSchema } from '../measure/unit.js';
import { jobIdSchema } from './benchWire.js';
import { endpoint } from './endpoint.js';

const idSchema = z.uuid('the id of an instrument is a UUID').toLowerCase();
const byId = z.object({ id: idSchema });
const calibrationId = z.uuid('the id of a calibration is a UUID made by the client').toLowerCase();
const byCalibration = z.object({ id: idSchema, calibration: calibrationId });
const stamp = { updatedAt: momentSchema, updatedBy: z.string() };

/** Files that a certificate may be, and how large, bytes. */
export const CERTIFICATE_TYPES = ['application/pdf', 'image/png', 'image/jpeg'] as const;
export const LARGEST_CERTIFICATE = 5_000_000;

const instrumentViewSchema = z.strictObject({
  id: idSchema,
  revision: z.int().min(1).describe('Goes up with every change of the instrument or its calibrations.'),
  instrument: registeredInstrumentSchema,
  calibrations: z.array(calibrationSchema),
  checks: z.array(zeroCheckSchema).describe('The last zero checks, the oldest of them first.'),
  ...stamp,
});
export type InstrumentView = z.output<typeof instrumentViewSchema>;

const instrumentSummarySchema = z.strictObject({
  id: idSchema,
  revision: z.int().min(1),
  instrument: registeredInstrumentSchema,
  calibratedOn: daySchema.nullable().describe('Day of the last calibration; null: none.'),
  due: daySchema.nullable().describe('Day of the next calibration; null: none required.'),
  isWrong: z.boolean().describe('True if the last calibration was found wrong.'),
  lastCheck: zeroCheckSchema.nullable(),
  readings: z.int().min(0).describe('Current readings taken with it, in all engines.'),
  ...stamp,
});
export type InstrumentSummary = z.output<typeof instrumentSummarySchema>;

const touchedEngineSchema = z.strictObject({
  id: jobIdSchema,
  name: z.string(),
  unit: unitSchema,
  isClosed: z.boolean(),
  readings: z.int().min(1).describe('Its current readings that were taken with the instrument.'),
  first: momentSchema,
  last: momentSchema,
  overdue: z.int().min(0).describe('Those taken after the calibration of then had run out.'),
  wrong: z.int().min(0).describe('Those taken under a calibration that was found wrong.'),
  adrift: z.int().min(0).describe('Those taken between two zero checks that differ by more than is allowed.'),
});
export type TouchedEngine = z.output<typeof touchedEngineSchema>;

const studyId = z.uuid('the id of a study is a UUID made by the client').toLowerCase();
const byStudy = z.object({ id: idSchema, study: studyId });

const studyHeadSchema = z.strictObject({
  id: studyId,
  plan: studyPlanSchema,
  read: z.int().min(0).describe('Readings entered so far.'),
  by: personSchema,
  at: momentSchema,
  takenAt: momentSchema.nullable().describe('When its result went into the instrument; null: it did not.'),
});
export type StudyHead = z.output<typeof studyHeadSchema>;

const studyViewSchema = z.strictObject({
  ...studyHeadSchema.shape,
  done: z.record(z.string(), z.int()).describe('Readings entered, by person.'),
  readsAs: z.array(z.string()).describe('Names in which the person signed in may read; all of them without accounts.'),
  entries: z
    .array(studyEntrySchema)
    .describe('Readings: those of the person who asks, until all are entered; then all of them.'),
});
export type StudyView = z.output<typeof studyViewSchema>;

export const INSTRUMENT_ENDPOINTS = {
  listInstruments: endpoint({
    method: 'get',
    at: '/api/instruments',
    needs: 'read',
    summary: 'Instruments of the workshop, by number',
    answer: z.strictObject({ instruments: z.array(instrumentSummarySchema) }),
    topics: ['instruments'],
    isTagged: true,
  }),
  getInstrument: endpoint({
    method: 'get',
    at: '/api/instruments/{id}',
    needs: 'read',
    summary: 'One instrument with its calibrations and its last zero checks',
    path: byId,
    answer: instrumentViewSchema,
    problems: ['invalid-request', 'not-found'],
    topics: ['instruments'],
    isTagged: true,
  }),
  putInstrument: endpoint({
    method: 'put',
    at: '/api/instruments/{id}',
    needs: 'instruments',
    summary: 'Register an instrument (revision 0), or change one',
    path: byId,
    body: z.strictObject({
      revision: z.int().min(0).describe('The revision the change was made from; 0 for a new instrument.'),
      by: personSchema,
      instrument: instrumentDraftSchema,
    }),
    answer: instrumentViewSchema,
    statuses: { 201: 'A new one', 200: 'Changed' },
    problems: ['invalid-request', 'stale-version'],
    topics: ['instruments'],
  }),
  putCalibration: endpoint({
    method: 'put',
    at: '/api/instruments/{id}/calibrations/{calibration}',
    needs: 'instruments',
    summary: 'Add calibration; sending it again changes nothing',
    path: byCalibration,
    body: z.strictObject({
      by: personSchema,
      calibration: calibrationDraftSchema,
      file: z
        .strictObject({
          name: z.string().trim().min(1).max(120),
          type: z.enum(CERTIFICATE_TYPES),
          data: z
            .base64('bytes of the certificate in base64')
            .min(4, 'the file is empty')
            .max(Math.ceil(LARGEST_CERTIFICATE / 3) * 4, 'a certificate has at most 5 MB'),
        })
        .nullable()
        .describe('The certificate; null: none.'),
    }),
    answer: instrumentViewSchema,
    statuses: { 201: 'Entered', 200: 'Already there' },
    problems: ['invalid-request', 'not-found', 'id-in-use'],
    topics: ['instruments'],
    largestMb: 8,
  }),
  doubtCalibration: endpoint({
    method: 'post',
    at: '/api/instruments/{id}/calibrations/{calibration}/wrong',
    needs: 'instruments',
    summary: 'Mark a calibration as wrong, or undo that',
    path: byCalibration,
    body: z.strictObject({
      by: personSchema,
      reason: z.string().trim().min(1, 'enter the reason').max(200).nullable().describe('Null: it holds after all.'),
    }),
    answer: instrumentViewSchema,
    problems: ['invalid-request', 'not-found'],
    topics: ['instruments'],
  }),
  putZeroCheck: endpoint({
    method: 'put',
    at: '/api/instruments/{id}/checks/{check}',
    needs: 'instruments',
    summary: 'Record a zero check; sending it again changes nothing',
    path: z.object({
      id: idSchema,
      check: z.uuid('the id of a zero check is a UUID made by the client').toLowerCase(),
    }),
    body: zeroCheckSchema.omit({ id: true }),
    answer: instrumentViewSchema,
    statuses: { 201: 'Recorded', 200: 'Already there' },
    problems: ['invalid-request', 'not-found', 'id-in-use'],
    topics: ['instruments'],
  }),
  listStudies: endpoint({
    method: 'get',
    at: '/api/instruments/{id}/studies',
    needs: 'read',
    summary: 'Gauge studies of an instrument, newest first',
    path: byId,
    answer: z.strictObject({ studies: z.array(studyHeadSchema) }),
    problems: ['invalid-request', 'not-found'],
    topics: ['instruments'],
    isTagged: true,
  }),
  putStudy: endpoint({
    method: 'put',
    at: '/api/instruments/{id}/studies/{study}',
    needs: 'instruments',
    summary: 'Begin a gauge study; sending it again changes nothing',
    path: byStudy,
    body: z.strictObject({ by: personSchema, plan: studyPlanSchema }),
    answer: studyViewSchema,
    statuses: { 201: 'Begun', 200: 'Already there' },
    problems: ['invalid-request', 'not-found', 'id-in-use'],
    topics: ['instruments'],
  }),
  getStudy: endpoint({
    method: 'get',
    at: '/api/instruments/{id}/studies/{study}',
    needs: 'read',
    summary: 'A gauge study; nobody sees the readings of others before all are entered',
    path: byStudy,
    query: z.object({ person: z.string().max(40).default('').describe('Person measuring; empty: nobody.') }),
    answer: studyViewSchema,
    problems: ['invalid-request', 'not-found'],
    topics: ['instruments'],
    isTagged: true,
  }),
  enterStudy: endpoint({
    method: 'post',
    at: '/api/instruments/{id}/studies/{study}/entries',
    needs: 'instruments',
    summary: 'Enter one reading of a gauge study, or correct it before all are entered',
    path: byStudy,
    body: studyEntrySchema,
    answer: studyViewSchema,
    problems: ['invalid-request', 'not-found', 'not-allowed'],
    topics: ['instruments'],
  }),
  takeStudy: endpoint({
    method: 'post',
    at: '/api/instruments/{id}/studies/{study}/take',
    needs: 'instruments',
    summary: 'Take the result of a whole study over as the uncertainties of its instrument',
    path: byStudy,
    body: z.strictObject({ by: personSchema }),
    answer: instrumentViewSchema,
    problems: ['invalid-request', 'not-found', 'stale-version'],
    topics: ['instruments'],
  }),
  instrumentRepeats: endpoint({
    method: 'get',
    at: '/api/instruments/{id}/repeats',
    needs: 'read',
    summary: 'How readings that were taken again with an instrument repeat, over all engines',
    path: byId,
    answer: z.strictObject({
      repeats: z
        .strictObject({
          pairs: z.int().min(1),
          slips: z.int().min(0).describe('Pairs too far apart to be repeats.'),
          sd: z.number().describe('Standard deviation of one reading, nm.'),
          low: z.number().describe('Its 95 % interval, nm.'),
          high: z.number(),
        })
        .nullable()
        .describe('Null: no reading was taken again.'),
    }),
    problems: ['invalid-request', 'not-found'],
    topics: ['instruments', 'engine'],
    isTagged: true,
  }),
  instrumentEngines: endpoint({
    method: 'get',
    at: '/api/instruments/{id}/engines',
    needs: 'read',
    summary: 'Engines with readings taken with an instrument, and how many of those are suspect',
    path: byId,
    answer: z.strictObject({ engines: z.array(touchedEngineSchema) }),
    problems: ['invalid-request', 'not-found'],
    topics: ['instruments', 'benches'],
    isTagged: true,
  }),
} as const;

/** Files: read by their address, never by the pages' own queries. */
export const INSTRUMENT_FILES = {
  getCertificate: endpoint({
    method: 'get',
    at: '/api/instruments/{id}/calibrations/{calibration}/file',
    needs: 'read',
    summary: 'Certificate of a calibration',
    path: byCalibration,
    answer: z.unknown(),
    files: CERTIFICATE_TYPES,
    problems: ['invalid-request', 'not-found'],
  }),
} as const;
