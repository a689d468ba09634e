import {
  formatExactLength,
  INSTRUMENT_DECIMALS,
  type InstrumentKind,
  type InstrumentState,
  instrumentDraftSchema,
  type Nanometres,
  type Needle,
  newInstrument,
  parseLength,
  type RegisteredInstrument,
  type Unit,
} from '@fettle/core';

/** An instrument as it stands in the boxes of its form. */
export interface InstrumentText {
  readonly number: string;
  readonly kind: InstrumentKind;
  readonly unit: Unit;
  readonly low: string;
  readonly high: string;
  readonly size: string;
  readonly ball: string;
  readonly resolution: string;
  readonly needle: Needle | '';
  readonly setting: string;
  readonly repeatability: string;
  readonly operator: string;
  readonly basis: string;
  readonly drift: string;
  readonly months: string;
  readonly holder: string;
  readonly place: string;
  readonly state: InstrumentState;
}

export type InstrumentFaults = Partial<Record<keyof InstrumentText, string>>;

/** An instrument as text. */
export function textOfInstrument(one: RegisteredInstrument): InstrumentText {
  const text = (value: Nanometres | null | undefined) =>
    value == null ? '' : formatExactLength(value, one.unit, INSTRUMENT_DECIMALS[one.unit]);
  return {
    number: one.number,
    kind: one.kind,
    unit: one.unit,
    low: text(one.range?.low),
    high: text(one.range?.high),
    size: text(one.size),
    ball: text(one.ball),
    resolution: text(one.resolution),
    needle: one.needle ?? '',
    setting: text(one.setting),
    repeatability: text(one.repeatability),
    operator: text(one.operator),
    basis: one.basis,
    drift: text(one.drift),
    months: one.calibrateAfterMonths === null ? '' : String(one.calibrateAfterMonths),
    holder: one.holder,
    place: one.place,
    state: one.state,
  };
}

/** What a new instrument of a kind starts from; what was typed and does not hang on the kind stays. */
export function textOfKind(before: InstrumentText, kind: InstrumentKind, unit: Unit): InstrumentText {
  const { number, holder, place, state, months } = before;
  return { ...textOfInstrument(newInstrument(kind, unit)), number, holder, place, state, months };
}

/** Where a fault of the schema stands in the form. */
const BOX_OF: Readonly<Record<string, keyof InstrumentText>> = { range: 'high', calibrateAfterMonths: 'months' };

/** An instrument from what was typed; or what is wrong, box by box. */
export function instrumentOfText(
  text: InstrumentText,
):
  | { readonly ok: true; readonly instrument: RegisteredInstrument }
  | { readonly ok: false; readonly faults: InstrumentFaults } {
  const faults: InstrumentFaults = {};
  const length = (
    box: 'low' | 'high' | 'size' | 'ball' | 'resolution' | 'setting' | 'repeatability' | 'operator' | 'drift',
  ) => {
    if (text[box].trim() === '') return null;
    const parsed = parseLength(text[box], { unit: text.unit, signed: 'sign' });
    if (!parsed.ok) faults[box] = parsed.message;
    return parsed.ok ? parsed.nm : null;
  };
  const needed = (box: 'resolution' | 'setting' | 'repeatability' | 'operator' | 'drift') => {
    const value = length(box);
    if (text[box].trim() === '') faults[box] = 'Needed here.';
    return value;
  };
  const [low, high] = [length('low'), length('high')];
  if ((low === null) !== (high === null)) faults.high ??= 'Enter both ends of the range, or neither.';
  const months = text.months.trim();
  const parsed = instrumentDraftSchema.safeParse({
    number: text.number,
    kind: text.kind,
    unit: text.unit,
    range: low === null || high === null ? null : { low, high },
    size: length('size'),
    ball: length('ball'),
    resolution: needed('resolution') ?? 0,
    needle: text.needle === '' ? null : text.needle,
    setting: needed('setting') ?? 0,
    repeatability: needed('repeatability') ?? 0,
    operator: needed('operator') ?? 0,
    basis: text.basis,
    drift: needed('drift') ?? 0,
    calibrateAfterMonths: months === '' ? null : /^\d{1,3}$/u.test(months) ? Number(months) : Number.NaN,
    holder: text.holder,
    place: text.place,
    state: text.state,
  });
  for (const { path, message } of parsed.error?.issues ?? []) {
    const field = String(path[0]);
    const box = BOX_OF[field] ?? (field as keyof InstrumentText);
    faults[box] ??= box === 'months' ? 'Whole months from 1 to 120, or blank for no reminder.' : sentence(message);
  }
  return parsed.success && Object.keys(faults).length === 0
    ? { ok: true, instrument: parsed.data }
    : { ok: false, faults };
}

/** A message as a sentence of its own. */
export function sentence(message: string): string {
  const whole = message.replace(/^./u, (letter) => letter.toUpperCase());
  return /[.?]$/u.test(whole) ? whole : `${whole}.`;
}
