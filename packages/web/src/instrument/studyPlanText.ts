import { parseLength, type StudyPlan, studyPlanSchema, type Unit } from '@fettle/core';
import { sentence } from './instrumentText.js';

/** A gauge study to be begun, as it stands in its boxes. */
export interface StudyPlanText {
  readonly name: string;
  readonly people: string;
  readonly parts: string;
  readonly trials: string;
  readonly tolerance: string;
}

export const BLANK_STUDY: StudyPlanText = { name: '', people: '', parts: '10', trials: '3', tolerance: '' };

/** Names as they are typed, with commas between; a number alone stands for so many parts. */
function partsOf(text: string): string[] {
  const count = /^\d{1,2}$/u.exec(text.trim());
  if (count) return Array.from({ length: Number(count[0]) }, (_, at) => String(at + 1));
  return namesOf(text);
}

function namesOf(text: string): string[] {
  return text
    .split(/[,;\n]/u)
    .map((name) => name.trim())
    .filter((name) => name !== '');
}

/** A study from what was typed; or what is wrong, box by box. */
export function planOfText(
  text: StudyPlanText,
  unit: Unit,
):
  | { readonly ok: true; readonly plan: StudyPlan }
  | { readonly ok: false; readonly faults: Partial<Record<keyof StudyPlanText, string>> } {
  const faults: Partial<Record<keyof StudyPlanText, string>> = {};
  const tolerance = text.tolerance.trim() === '' ? null : parseLength(text.tolerance, { unit, signed: 'sign' });
  if (tolerance && !tolerance.ok) faults.tolerance = tolerance.message;
  const parsed = studyPlanSchema.safeParse({
    name: text.name,
    unit,
    parts: partsOf(text.parts),
    people: namesOf(text.people),
    trials: /^\d{1,2}$/u.test(text.trials.trim()) ? Number(text.trials) : Number.NaN,
    tolerance: tolerance?.ok ? tolerance.nm : null,
  });
  for (const { path, message } of parsed.error?.issues ?? []) {
    const box = String(path[0]) as keyof StudyPlanText;
    faults[box] ??= box === 'trials' ? 'From 2 to 10 readings of each part.' : sentence(message);
  }
  return parsed.success && Object.keys(faults).length === 0 ? { ok: true, plan: parsed.data } : { ok: false, faults };
}
