import { z } from 'zod';
import { type DocumentFault, faultsOf } from '../document/fault.js';
import { type Study, type StudyFault, type StudyReading, studyOf } from './gaugeStudy.js';

const nameSchema = z
  .union([z.string().trim().min(1, 'enter which').max(200), z.number()])
  .transform((name) => String(name));

const studyReadingSchema = z.strictObject({
  part: nameSchema.describe('Which part was read.'),
  person: nameSchema.describe('Who read it.'),
  trial: nameSchema.describe('Which of the readings by this person of this part.'),
  value: z.number('a number, such as 0.41').describe('The reading, in the unit of the file.'),
});

/** Maximum readings of a study: a hundred parts, ten people, ten readings each. */
const MOST_READINGS = 10_000;

const readingsSchema = z.array(studyReadingSchema).max(MOST_READINGS);

/** Readings of a crossed gauge study: every person reads every part equally often. A list alone will do. */
export const studyFileSchema = z.union([
  readingsSchema,
  z.strictObject({
    format: z.literal('fettle.gauge-study/1').optional().describe('May be left out.'),
    readings: readingsSchema,
  }),
]);

/** Maximum faults listed one by one. */
const MOST_FAULTS = 20;

const FEW: Readonly<Record<'few-parts' | 'few-people' | 'few-trials', string>> = {
  'few-parts': 'needs readings of at least two parts',
  'few-people': 'needs readings by at least two people: one alone shows repeats, not how people differ',
  'few-trials': 'needs at least two readings of each part by each person: one alone shows no repeats',
};

/** What keeps a study from being worked out, in words. */
function studyFaultWords(fault: StudyFault): string {
  if (fault.kind === 'missing') return `${fault.person} has no reading ${fault.trial} of part ${fault.part}`;
  if (fault.kind === 'twice') return `${fault.person} has reading ${fault.trial} of part ${fault.part} twice`;
  return FEW[fault.kind];
}

export type ReadStudyFile =
  | { readonly ok: true; readonly study: Study }
  | { readonly ok: false; readonly faults: readonly DocumentFault[] };

/** Puts readings together to a study. @returns the study, or in words what it lacks; more than twenty faults are counted */
export function studyOfReadings(readings: readonly StudyReading[]): ReadStudyFile {
  const read = studyOf(readings);
  if (read.ok) return read;
  const listed = read.faults.slice(0, MOST_FAULTS);
  const left = read.faults.length - listed.length;
  const faults = listed.map((fault): DocumentFault => ({ path: '', message: studyFaultWords(fault) }));
  return { ok: false, faults: left > 0 ? [...faults, { path: '', message: `and ${left} more` }] : faults };
}

/** Reads a study from parsed JSON. @returns the study, or every fault with its path */
export function readStudyFile(json: unknown): ReadStudyFile {
  const readings = Array.isArray(json) ? readingsSchema : studyFileSchema.options[1];
  const parsed = readings.safeParse(json);
  if (!parsed.success) return { ok: false, faults: faultsOf(parsed.error) };
  return studyOfReadings(Array.isArray(parsed.data) ? parsed.data : parsed.data.readings);
}
