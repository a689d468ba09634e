import {
  type CalibrationDraft,
  type CalibrationPoint,
  calibrationDraftSchema,
  parseLength,
  plainNumber,
  type Unit,
} from '@fettle/core';
import { sentence } from './instrumentText.js';

/** One point of a calibration as it stands in its boxes. */
export interface PointText {
  readonly at: string;
  readonly error: string;
  readonly expanded: string;
  readonly factor: string;
}

/** A calibration as it stands in the boxes of its form. */
export interface CalibrationText {
  readonly on: string;
  readonly due: string;
  readonly laboratory: string;
  readonly certificate: string;
  readonly points: readonly PointText[];
}

export const BLANK_POINT: PointText = { at: '', error: '', expanded: '', factor: '2' };

export interface CalibrationFaults {
  readonly boxes: Partial<Record<'on' | 'due' | 'laboratory' | 'certificate', string>>;
  /** By the number of the point, from 0. */
  readonly points: Readonly<Record<number, Partial<Record<keyof PointText, string>>>>;
}

/** True if nothing was typed into a point. */
export function isBlank({ at, error, expanded }: PointText): boolean {
  return [at, error, expanded].every((text) => text.trim() === '');
}

/** A calibration from what was typed, points that are blank left out; or what is wrong, box by box. */
export function calibrationOfText(
  text: CalibrationText,
  unit: Unit,
):
  | { readonly ok: true; readonly calibration: CalibrationDraft }
  | { readonly ok: false; readonly faults: CalibrationFaults } {
  const boxes: CalibrationFaults['boxes'] = {};
  const pointFaults: Record<number, Partial<Record<keyof PointText, string>>> = {};
  const wrong = (point: number, box: keyof PointText, message: string) => {
    pointFaults[point] = { ...pointFaults[point], [box]: pointFaults[point]?.[box] ?? sentence(message) };
  };
  const places: number[] = [];
  const points = text.points.flatMap((point, nth): CalibrationPoint[] => {
    if (isBlank(point)) return [];
    places.push(nth);
    const length = (box: 'at' | 'error' | 'expanded') => {
      const parsed = parseLength(point[box], { unit, signed: 'sign' });
      if (!parsed.ok) wrong(nth, box, point[box].trim() === '' ? 'needed here' : parsed.message);
      return parsed.ok ? parsed.nm : (0 as never);
    };
    const factor = plainNumber(point.factor);
    return [{ at: length('at'), error: length('error'), expanded: length('expanded'), factor }];
  });
  if (text.on === '') boxes.on = 'Enter the day of the calibration.';
  const parsed = calibrationDraftSchema.safeParse({
    on: text.on === '' ? '2000-01-01' : text.on,
    due: text.due === '' ? null : text.due,
    laboratory: text.laboratory,
    certificate: text.certificate,
    points,
  });
  for (const { path, message } of parsed.error?.issues ?? []) {
    const [field, nth, box] = path;
    if (field === 'points' && typeof nth === 'number') {
      const told = box === 'factor' ? 'a factor from 1 to 4, usually 2' : message;
      wrong(places[nth]!, box as keyof PointText, told);
    } else boxes[field as 'on'] ??= sentence(message);
  }
  const isRight = parsed.success && Object.keys(boxes).length === 0 && Object.keys(pointFaults).length === 0;
  return isRight ? { ok: true, calibration: parsed.data } : { ok: false, faults: { boxes, points: pointFaults } };
}
