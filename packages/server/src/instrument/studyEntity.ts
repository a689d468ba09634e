import type { StudyPlan } from '@fettle/core';
import { EntitySchema } from 'typeorm';

/** A gauge study: who reads which parts, and how often. The plan is never changed. */
export interface StudyRow {
  id: string;
  instrumentId: string;
  plan: StudyPlan;
  by: string;
  at: Date;
  /** When its result went into the instrument; null: it did not. */
  takenAt: Date | null;
}

export const studyEntity = new EntitySchema<StudyRow>({
  name: 'gauge_study',
  columns: {
    id: { type: 'uuid', primary: true },
    instrumentId: { name: 'instrument_id', type: 'uuid' },
    plan: { type: 'jsonb' },
    by: { type: 'text' },
    at: { type: 'timestamptz' },
    takenAt: { name: 'taken_at', type: 'timestamptz', nullable: true },
  },
});

/** One reading of a study; corrected in its place while the study is not whole. */
export interface StudyEntryRow {
  studyId: string;
  part: string;
  person: string;
  trial: number;
  text: string;
  nm: number;
  by: string;
  at: Date;
}

export const studyEntryEntity = new EntitySchema<StudyEntryRow>({
  name: 'study_entry',
  columns: {
    studyId: { name: 'study_id', type: 'uuid', primary: true },
    part: { type: 'text', primary: true },
    person: { type: 'text', primary: true },
    trial: { type: 'int', primary: true },
    text: { type: 'text' },
    nm: { type: 'int8', transformer: { from: Number, to: (value: number) => value } },
    by: { type: 'text' },
    at: { type: 'timestamptz' },
  },
});
