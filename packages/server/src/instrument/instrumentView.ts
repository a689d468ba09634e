import {
  type Calibration,
  calibrationSchema,
  dueAfter,
  type InstrumentSummary,
  type InstrumentView,
  lastCalibration,
  type RegisteredInstrument,
  registeredInstrumentSchema,
  type ZeroCheck,
  zeroCheckSchema,
} from '@fettle/core';
import type { CalibrationRow, InstrumentRow, ZeroCheckRow } from './instrumentEntity.js';

/** A calibration as it is read, without the bytes of its certificate. */
export type CalibrationHead = Omit<CalibrationRow, 'file'> & { readonly bytes: number | null };

export function calibrationOf(row: CalibrationHead): Calibration {
  const { id, doneOn, document, wrong, fileName, fileType, bytes, by, at } = row;
  const file =
    fileName === null || fileType === null || bytes === null ? null : { name: fileName, type: fileType, bytes };
  return calibrationSchema.parse({ id, on: doneOn, ...document, wrong, file, by, at: at.toISOString() });
}

export function zeroCheckOf({ id, at, by, standard, shown, isReset }: ZeroCheckRow): ZeroCheck {
  return zeroCheckSchema.parse({ id, at: at.toISOString(), by, standard, shown, isReset });
}

function stampOf({ revision, updatedAt, updatedBy }: InstrumentRow) {
  return { revision, updatedAt: updatedAt.toISOString(), updatedBy };
}

export function viewOf(
  row: InstrumentRow,
  calibrations: readonly CalibrationHead[],
  checks: readonly ZeroCheckRow[],
): InstrumentView {
  return {
    id: row.id,
    ...stampOf(row),
    instrument: instrumentOf(row),
    calibrations: calibrations.map(calibrationOf),
    checks: checks.map(zeroCheckOf),
  };
}

/** An instrument as it was kept, with what has come since filled in. */
export function instrumentOf({ document }: Pick<InstrumentRow, 'document'>): RegisteredInstrument {
  return registeredInstrumentSchema.parse(document);
}

export function summaryOf(
  row: InstrumentRow,
  calibrations: readonly CalibrationHead[],
  lastCheck: ZeroCheckRow | null,
  readings: number,
): InstrumentSummary {
  const instrument = instrumentOf(row);
  const last = lastCalibration(calibrations.map(calibrationOf));
  return {
    id: row.id,
    ...stampOf(row),
    instrument,
    calibratedOn: last?.on ?? null,
    due: last && dueAfter(last, instrument.calibrateAfterMonths),
    isWrong: last !== null && last.wrong !== null,
    lastCheck: lastCheck && zeroCheckOf(lastCheck),
    readings,
  };
}
