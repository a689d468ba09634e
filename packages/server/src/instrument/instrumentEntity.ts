import type { CalibrationDraft, RegisteredInstrument } from '@fettle/core';
import { EntitySchema } from 'typeorm';

const wholeNumber = {
  from: (value: string | null) => (value === null ? null : Number(value)),
  to: (value: number | null) => value,
};

/** An instrument of the workshop as it is now. */
export interface InstrumentRow {
  id: string;
  /** Goes up with every change of it or of its calibrations. */
  revision: number;
  /** Its number; no other has it, however it is written. */
  number: string;
  document: RegisteredInstrument;
  updatedAt: Date;
  updatedBy: string;
}

export const instrumentEntity = new EntitySchema<InstrumentRow>({
  name: 'instrument',
  columns: {
    id: { type: 'uuid', primary: true },
    revision: { type: 'int' },
    number: { type: 'text' },
    document: { type: 'jsonb' },
    updatedAt: { name: 'updated_at', type: 'timestamptz' },
    updatedBy: { name: 'updated_by', type: 'text' },
  },
});

/** A calibration with its certificate. Rows are never changed, but for `wrong`. */
export interface CalibrationRow {
  id: string;
  instrumentId: string;
  /** Day as 2026-11-25. */
  doneOn: string;
  document: Omit<CalibrationDraft, 'on'>;
  wrong: { by: string; at: string; reason: string } | null;
  fileName: string | null;
  fileType: string | null;
  file: Buffer | null;
  by: string;
  at: Date;
}

export const calibrationEntity = new EntitySchema<CalibrationRow>({
  name: 'calibration',
  columns: {
    id: { type: 'uuid', primary: true },
    instrumentId: { name: 'instrument_id', type: 'uuid' },
    doneOn: { name: 'done_on', type: 'date' },
    document: { type: 'jsonb' },
    wrong: { type: 'jsonb', nullable: true },
    fileName: { name: 'file_name', type: 'text', nullable: true },
    fileType: { name: 'file_type', type: 'text', nullable: true },
    file: { type: 'bytea', nullable: true },
    by: { type: 'text' },
    at: { type: 'timestamptz' },
  },
});

/** An instrument looked at on its setting standard. Rows are never changed. */
export interface ZeroCheckRow {
  id: string;
  instrumentId: string;
  at: Date;
  by: string;
  standard: number | null;
  shown: number;
  isReset: boolean;
}

export const zeroCheckEntity = new EntitySchema<ZeroCheckRow>({
  name: 'zero_check',
  columns: {
    id: { type: 'uuid', primary: true },
    instrumentId: { name: 'instrument_id', type: 'uuid' },
    at: { type: 'timestamptz' },
    by: { type: 'text' },
    standard: { type: 'int8', nullable: true, transformer: wholeNumber },
    shown: { type: 'int8', transformer: wholeNumber },
    isReset: { name: 'is_reset', type: 'bool' },
  },
});
