import {
  type FastenerPlace,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  type Nanometres,
  parseLength,
  plainNumber,
  type Tightening,
  type Torque,
  type TorqueUnit,
  tighteningSchema,
  tighteningText,
  torqueSchema,
  type Unit,
} from '@fettle/core';

/** One line of fasteners as it is typed, before anything of it is read. */
export interface TorqueLineText {
  readonly fastener: string;
  readonly steps: string;
  readonly place: FastenerPlace;
  readonly perCap: string;
  /** How it is tightened; empty while only words are known. */
  readonly school: Tightening['school'] | '';
  readonly unit: TorqueUnit;
  readonly final: string;
  readonly stages: string;
  readonly snug: string;
  readonly angles: string;
  readonly low: string;
  readonly high: string;
  readonly lubricant: string;
  readonly source: string;
}

export const BLANK_TORQUE_LINE: TorqueLineText = {
  fastener: '',
  steps: '',
  place: 'other',
  perCap: '2',
  school: '',
  unit: 'Nm',
  final: '',
  stages: '3',
  snug: '',
  angles: '',
  low: '',
  high: '',
  lubricant: '',
  source: '',
};

/** What is wrong with a line, by its boxes. */
export type TorqueLineFaults = Partial<Record<keyof TorqueLineText, string>>;

/** Stages as they are typed: how many, or the torque of each. */
function textOfStages({ stages, unequal }: { stages: number; unequal?: number[] | undefined }): string {
  return unequal?.join(', ') ?? String(stages);
}

/** Stages as a number of equal ones, or as the torque of each: then the last one is the final torque. */
function readStages(text: string): { stages: number; unequal?: number[] } {
  const list = text
    .split(/[;,·]|\s+/u)
    .filter((part) => part.trim() !== '')
    .map((step) => plainNumber(step));
  return list.length > 1 ? { stages: list.length, unequal: list } : { stages: plainNumber(text) };
}

/** Fasteners as text, to be typed on. */
export function textOfTorque(torque: Torque, unit: Unit): TorqueLineText {
  const { fastener, steps, place, perCap, tightening, lubricant, source } = torque;
  const length = (nm: Nanometres) => formatExactLength(nm, unit, INSTRUMENT_DECIMALS[unit]);
  const known = { ...BLANK_TORQUE_LINE, fastener, steps, place, perCap: String(perCap), lubricant, source };
  if (tightening === null) return known;
  const { school } = tightening;
  const own = { ...known, school, unit: tightening.unit };
  switch (school) {
    case 'stretch':
      return {
        ...own,
        snug: tightening.snug === null ? '' : String(tightening.snug),
        low: length(tightening.low),
        high: length(tightening.high),
      };
    case 'angle':
      return {
        ...own,
        final: String(tightening.final),
        stages: textOfStages(tightening),
        angles: tightening.angles.join(', '),
      };
    case 'snug':
      return {
        ...own,
        snug: String(tightening.snug),
        final: String(tightening.final),
        stages: textOfStages(tightening),
      };
    default:
      return { ...own, final: String(tightening.final), stages: textOfStages(tightening) };
  }
}

/** True if nothing is typed in a line yet: it does not count. */
export function isBlankTorque({ fastener, steps, source, final }: TorqueLineText): boolean {
  return [fastener, steps, source, final].every((text) => text.trim() === '');
}

/** What a line says of how its fasteners are tightened; null where something of it cannot be read. */
function readTightening(text: TorqueLineText, lengthUnit: Unit, faults: TorqueLineFaults): Tightening | null {
  const { school, unit } = text;
  const figure = (key: 'final' | 'snug', isNeeded = true) => {
    const value = plainNumber(text[key]);
    if (Number.isNaN(value) && (isNeeded || text[key].trim() !== '')) {
      faults[key] = 'Enter a torque above 0, such as 55.';
    }
    return value;
  };
  const length = (key: 'low' | 'high') => {
    const parsed = parseLength(text[key], { unit: lengthUnit, signed: 'sign' });
    if (!parsed.ok) faults[key] = parsed.code === 'empty' ? 'Missing.' : parsed.message;
    return parsed.ok ? parsed.nm : 0;
  };
  const stagesTyped = readStages(text.stages);
  const last = stagesTyped.unequal?.at(-1);
  if (last !== undefined && text.final.trim() !== '' && plainNumber(text.final) !== last) {
    faults.stages = `The last stage is ${last}; the final torque is ${text.final.trim()}. Make them alike.`;
  }
  const given =
    school === 'stretch'
      ? {
          school,
          unit,
          snug: text.snug.trim() === '' ? null : figure('snug'),
          low: length('low'),
          high: length('high'),
        }
      : {
          school,
          unit,
          final: stagesTyped.unequal?.at(-1) ?? figure('final'),
          ...stagesTyped,
          ...(school === 'snug' ? { snug: figure('snug') } : {}),
          ...(school === 'angle'
            ? {
                angles: text.angles
                  .split(/[;,+]|\s+/u)
                  .filter((part) => part.trim() !== '')
                  .map((part) => plainNumber(part.replace('°', ''))),
              }
            : {}),
        };
  const read = tighteningSchema.safeParse(given);
  if (read.success) return read.data;
  const told: Readonly<Record<string, string>> = {
    stages: 'A whole number from 1 to 20, or each torque, such as 30, 55.',
    unequal: 'Each stage higher than the one before, such as 30, 55.',
    angles: 'Enter degrees with commas between, such as 60, 60.',
    final: 'Enter a torque above 0, such as 55.',
    snug: 'Enter a torque above 0, such as 20.',
  };
  for (const { path, message } of read.error.issues) {
    const said = String(path[0]);
    const key = (said === 'unequal' ? 'stages' : said) as keyof TorqueLineText;
    faults[key] ??= told[said] ?? message;
  }
  return null;
}

/**
 * Reads one line of fasteners. Where its steps are figures and no words are typed, the words are made from them.
 *
 * @param lengthUnit unit of a bare stretch
 */
export function readTorqueLine(
  text: TorqueLineText,
  lengthUnit: Unit,
): { readonly torque: Torque | null; readonly faults: TorqueLineFaults } {
  const faults: TorqueLineFaults = {};
  const tightening = text.school === '' ? null : readTightening(text, lengthUnit, faults);
  const { fastener, place, lubricant, source } = text;
  const steps = text.steps.trim() === '' && tightening ? tighteningText(tightening, lengthUnit) : text.steps;
  if (fastener.trim() === '') faults.fastener = 'Enter which fastener.';
  if (steps.trim() === '' && text.school === '') faults.steps = 'Enter the steps.';
  if (source.trim() === '') faults.source = 'Enter the book and page.';
  const read = torqueSchema.safeParse({
    fastener,
    steps,
    place,
    perCap: plainNumber(text.perCap),
    tightening,
    lubricant,
    source,
  });
  if (!read.success) {
    for (const { path, message } of read.error.issues) {
      const key = String(path[0]) as keyof TorqueLineText;
      // Words that are made from the figures are wanting because those are.
      if (key === 'steps' && text.school !== '') continue;
      faults[key] ??= key === 'perCap' ? 'A whole number from 1 to 4.' : message;
    }
  }
  return { torque: read.success && Object.keys(faults).length === 0 ? read.data : null, faults };
}
