import { z } from 'zod';
import { personSchema } from '../document/person.js';
import { nanometresSchema } from '../measure/lengthSchema.js';
import { momentSchema } from '../measure/moment.js';
import { seeded } from '../measure/seeded.js';
import { unitSchema } from '../measure/unit.js';

const nameSchema = z.string().trim().min(1, 'enter a name').max(40, 'at most 40 characters');

/** People, parts and repeats at most: what one workshop reads in a day. */
const MOST_PEOPLE = 12;
const MOST_PARTS = 50;
const MOST_TRIALS = 10;

function twice(names: readonly string[]): string | null {
  return (
    names.find((name, at) => names.findIndex((other) => other.toLowerCase() === name.toLowerCase()) !== at) ?? null
  );
}

/** A crossed gauge study before it is read: who reads which parts, and how often. */
export const studyPlanSchema = z
  .strictObject({
    name: z.string().trim().min(1, 'enter the subject').max(80, 'at most 80 characters'),
    unit: unitSchema,
    parts: z.array(nameSchema).min(2, 'two parts at least').max(MOST_PARTS, `at most ${MOST_PARTS} parts`),
    people: z.array(nameSchema).min(2, 'two people at least').max(MOST_PEOPLE, `at most ${MOST_PEOPLE} people`),
    trials: z.int().min(2, 'two readings of each part at least').max(MOST_TRIALS, `at most ${MOST_TRIALS} readings`),
    tolerance: nanometresSchema
      .refine((value) => value > 0, 'is above zero')
      .nullable()
      .describe('Width of the limits that are to be judged with it; null: not given.'),
  })
  .superRefine(({ parts, people }, context) => {
    for (const [path, names] of [
      ['parts', parts],
      ['people', people],
    ] as const) {
      const name = twice(names);
      if (name !== null) context.addIssue({ code: 'custom', path: [path], message: `“${name}” is there twice` });
    }
  });
export type StudyPlan = z.output<typeof studyPlanSchema>;

/** One reading of a study as it was entered. */
export const studyEntrySchema = z.strictObject({
  part: nameSchema,
  person: nameSchema,
  trial: z.int().min(1).max(MOST_TRIALS).describe('Which of the person’s readings of the part it is, from 1.'),
  text: z.string().min(1, 'enter what was read').max(64, 'at most 64 characters'),
  nm: nanometresSchema.describe('The length that it means.'),
  by: personSchema,
  at: momentSchema,
});
export type StudyEntry = z.output<typeof studyEntrySchema>;

/** One reading that is to be taken. */
export interface StudyStep {
  readonly part: string;
  readonly trial: number;
}

/** Spreads a text over the numbers that start a generator (FNV-1a; public domain, cited from memory). */
function seedOf(text: string): number {
  let hash = 0x811c9dc5;
  for (const letter of text) hash = Math.imul(hash ^ letter.codePointAt(0)!, 0x01000193);
  return hash >>> 0;
}

/**
 * The order in which a person reads: all parts once, shuffled, then all again in another order, so that nobody remembers a figure. The same at each
 * look.
 *
 * @param id of the study
 */
export function studyOrder(
  id: string,
  { parts, trials }: Pick<StudyPlan, 'parts' | 'trials'>,
  person: string,
): StudyStep[] {
  return Array.from({ length: trials }, (_, at) => at + 1).flatMap((trial) => {
    const random = seeded(seedOf(`${id} ${person.toLowerCase()} ${trial}`));
    const left = [...parts];
    const order: StudyStep[] = [];
    while (left.length > 0) {
      const [part] = left.splice(Math.floor(random() * left.length), 1);
      order.push({ part: part!, trial });
    }
    return order;
  });
}

/**
 * How many readings a study needs.
 *
 * @example studySize({ parts: ['1', '2'], people: ['Wren', 'Teal'], trials: 3 }) // 12
 */
export function studySize({ parts, people, trials }: Pick<StudyPlan, 'parts' | 'people' | 'trials'>): number {
  return parts.length * people.length * trials;
}

/**
 * True if a reading belongs to a study: its part, its person and its trial.
 *
 * @example isInStudy({ parts: ['1'], people: ['Wren'], trials: 2 }, { part: '1', person: 'Wren', trial: 3 }) // false
 */
export function isInStudy(
  { parts, people, trials }: Pick<StudyPlan, 'parts' | 'people' | 'trials'>,
  { part, person, trial }: Pick<StudyEntry, 'part' | 'person' | 'trial'>,
): boolean {
  return parts.includes(part) && people.includes(person) && trial >= 1 && trial <= trials;
}
