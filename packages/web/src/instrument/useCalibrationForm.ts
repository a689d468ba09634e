import { CERTIFICATE_TYPES, type InstrumentView, LARGEST_CERTIFICATE } from '@fettle/core';
import { useState } from 'react';
import { base64Of } from '../base/base64Of.js';
import { newId } from '../base/newId.js';
import { useBy } from '../person/useBy.js';
import { useDraft } from '../typing/useDraft.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import { BLANK_POINT, type CalibrationText, calibrationOfText, isBlank, type PointText } from './calibrationText.js';

const BLANK: CalibrationText = { on: '', due: '', laboratory: '', certificate: '', points: [BLANK_POINT] };

/** A line for the next point is always there. */
function withBlank(points: readonly PointText[]): readonly PointText[] {
  const last = points.at(-1);
  return last === undefined || !isBlank(last) ? [...points, BLANK_POINT] : points;
}

/**
 * What is typed of one calibration, with its certificate as a file, until one button saves all of it.
 *
 * @param onDone - called once the server has taken it
 */
export function useCalibrationForm({ id, instrument }: InstrumentView, onDone: () => void) {
  const by = useBy();
  const [draft, setDraft, clear] = useDraft<CalibrationText>(`calibration.${id}`);
  const [file, setFile] = useState<File | null>(null);
  const [isTried, setTried] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  // The same calibration, however often it is sent.
  const [own] = useState(newId);
  const text = draft ?? BLANK;
  const points = withBlank(text.points);
  const read = calibrationOfText(text, instrument.unit);
  const set = (part: Partial<CalibrationText>) => setDraft({ ...text, ...part });
  const attach = (chosen: File) => {
    const isTaken = CERTIFICATE_TYPES.some((type) => type === chosen.type) && chosen.size <= LARGEST_CERTIFICATE;
    setFault(isTaken ? null : `“${chosen.name}” is not taken: choose a PDF, PNG or JPEG of at most 5 MB.`);
    setFile(isTaken ? chosen : null);
  };
  const save = async () => {
    setTried(true);
    setFault(null);
    if (!read.ok) return;
    try {
      const type = CERTIFICATE_TYPES.find((one) => one === file?.type);
      const certificate = file && type ? { name: file.name.slice(0, 120), type, data: await base64Of(file) } : null;
      const body = { by, calibration: read.calibration, file: certificate };
      await tell('putCalibration', { id, calibration: own, body });
      clear();
      onDone();
    } catch (error) {
      setFault(refusalInWords(error));
    }
  };
  return {
    text,
    points,
    /** Faults of single boxes, from the first try to save on. */
    faults: read.ok || !isTried ? null : read.faults,
    /** Why a file or the whole was not taken. */
    fault,
    fileName: file?.name ?? null,
    set,
    setPoint: (nth: number, part: Partial<PointText>) =>
      set({ points: points.map((point, at) => (at === nth ? { ...point, ...part } : point)) }),
    attach,
    save,
  };
}

/** Text and actions of the form of a calibration. */
export type CalibrationEntry = ReturnType<typeof useCalibrationForm>;
