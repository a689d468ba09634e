import {
  type EngineType,
  eachFamily,
  engineTypeSchema,
  type Family,
  FEATURES,
  type Feature,
  formatExactLength,
  type Grade,
  INSTRUMENT_DECIMALS,
  LIMIT_KEYS,
  type LimitKey,
  type MainLimits,
  type MarkedBand,
  type Material,
  type Paint,
  PLACED_LIMITS,
  type PlacedLimit,
  parseLength,
  positionSchema,
  readPlaces,
  rodCount,
  type StampedRow,
  type TableCell,
  type TypeFamily,
  throwsText,
  type Undersize,
  type Unit,
  withThrows,
} from '@fettle/core';
import { type LimitFaults, type LimitText, readLimit, textOfLimit } from '../limits/limitText.js';
import {
  BLANK_TORQUE_LINE,
  isBlankTorque,
  readTorqueLine,
  type TorqueLineText,
  textOfTorque,
} from '../torque/torqueLineText.js';
import { readCell, textOfCell } from './cellText.js';
import { type LayoutText, layoutOfText } from './layoutText.js';

/** A band as it is typed. */
export interface BandText {
  readonly mark: string;
  readonly low: string;
  readonly high: string;
  readonly paint: Paint | '';
  /** Places that a grade is made for, commas between; what was kept by an earlier build has none. */
  readonly places?: string;
}

export interface UndersizeText {
  readonly name: string;
  readonly amount: string;
  readonly journal: LimitText;
  readonly grades: readonly BandText[];
}

/** Codes of one family as they are typed; the cells of the table by the rows and columns of the marks. */
export interface FamilyText {
  readonly series: string;
  readonly tableSource: string;
  readonly housing: readonly BandText[];
  readonly journal: readonly BandText[];
  readonly grades: readonly BandText[];
  readonly cells: readonly (readonly string[])[];
  readonly undersizes: readonly UndersizeText[];
}

export interface RowText {
  readonly isUsed: boolean;
  readonly prefix: string;
  readonly first: StampedRow['first'];
}

/** Single figures of a data sheet, beside its limits. */
export const FIGURE_KEYS = ['endPlayAim', 'crushAim', 'crushAimAluminium', 'settle'] as const;
export type FigureKey = (typeof FIGURE_KEYS)[number];

function eachFigure<Value>(of: (key: FigureKey) => Value): Readonly<Record<FigureKey, Value>> {
  return Object.fromEntries(FIGURE_KEYS.map((key) => [key, of(key)])) as Record<FigureKey, Value>;
}

/** Limits that hold at one main only, as they are typed. */
export interface PlacedText {
  readonly number: number;
  readonly key: PlacedLimit;
  readonly text: LimitText;
}

/** A whole data sheet as it is typed, before anything of it is read. */
export interface TypeText extends LayoutText, Readonly<Record<Family, FamilyText>> {
  readonly name: string;
  readonly note: string;
  readonly unit: Unit;
  readonly throws: string;
  readonly viewFrom: EngineType['viewFrom'];
  readonly thrustKind: EngineType['thrustKind'];
  readonly joints: EngineType['joints'];
  readonly rodJoints: EngineType['rodJoints'];
  /** Single figures: what is aimed at, and what a stack of rings settles. */
  readonly figures: Readonly<Record<FigureKey, string>>;
  readonly materials: Readonly<Record<'block' | 'caps' | 'rods', Material>>;
  readonly limits: Readonly<Record<LimitKey, LimitText>>;
  /** Limits of single mains. */
  readonly mainLimits: readonly PlacedText[];
  /** Names of mains that take halves of their own, by number. */
  readonly places: Readonly<Record<string, string>>;
  readonly torque: readonly TorqueLineText[];
  readonly rows: Readonly<Record<Feature, RowText>>;
}

/** A text that was kept by an earlier build, with what has come to a data sheet since. */
export function completed(kept: TypeText, now: TypeText): TypeText {
  return {
    ...now,
    ...kept,
    limits: { ...now.limits, ...kept.limits },
    figures: { ...now.figures, ...kept.figures },
    torque: kept.torque.map((line) => ({ ...BLANK_TORQUE_LINE, ...line })),
  };
}

export const EMPTY_BAND: BandText = { mark: '', low: '', high: '', paint: '' };

function lengthTextOf(value: MarkedBand['low'], unit: Unit): string {
  return formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit]);
}

function bandText(band: MarkedBand & Partial<Pick<Grade, 'paint' | 'positions'>>, unit: Unit): BandText {
  return {
    mark: band.mark,
    low: lengthTextOf(band.low, unit),
    high: lengthTextOf(band.high, unit),
    paint: band.paint ?? '',
    places: band.positions?.join(', ') ?? '',
  };
}

function familyText(family: TypeFamily, unit: Unit): FamilyText {
  const { series, tableSource, housing, journal, grades, table, undersizes } = family;
  return {
    series,
    tableSource,
    housing: housing.map((band) => bandText(band, unit)),
    journal: journal.map((band) => bandText(band, unit)),
    grades: grades.map((band) => bandText(band, unit)),
    cells: housing.map((row) => journal.map((column) => textOfCell(table[row.mark]?.[column.mark]))),
    undersizes: undersizes.map((one) => ({
      name: one.name,
      amount: lengthTextOf(one.amount, unit),
      journal: textOfLimit(one.journal, unit),
      grades: one.grades.map((band) => bandText(band, unit)),
    })),
  };
}

/** A data sheet as text, to be typed on. */
export function textOfType(type: EngineType): TypeText {
  const { name, note, unit, layout, viewFrom, thrustKind, materials, limits, torque, rows } = type;
  return {
    name,
    note,
    unit,
    mains: String(layout.mains),
    rods: String(rodCount(layout)),
    rodsPerPin: layout.pins.some(({ rods }) => rods === 2) ? '2' : '1',
    thrustMain: layout.thrustMain === null ? '' : String(layout.thrustMain),
    throws: throwsText(layout),
    viewFrom,
    thrustKind,
    joints: type.joints,
    rodJoints: type.rodJoints,
    figures: eachFigure((key) => {
      const value = type[key];
      return value === null ? '' : lengthTextOf(value, unit);
    }),
    materials,
    limits: Object.fromEntries(LIMIT_KEYS.map((key) => [key, textOfLimit(limits[key], unit)])) as TypeText['limits'],
    mainLimits: Object.entries(type.mainLimits).flatMap(([number, own]) =>
      PLACED_LIMITS.flatMap((key) => {
        const limit = own[key];
        return limit ? [{ number: Number(number), key, text: textOfLimit(limit, unit) }] : [];
      }),
    ),
    places: type.places,
    torque: torque.map((one) => textOfTorque(one, unit)),
    rows: Object.fromEntries(
      FEATURES.map((feature) => {
        const row = rows.find((one) => one.feature === feature);
        return [feature, { isUsed: row !== undefined, prefix: row?.prefix ?? '', first: row?.first ?? 'front' }];
      }),
    ) as TypeText['rows'],
    ...eachFamily((family) => familyText(type[family], unit)),
  };
}

/** A sheet's figures in another unit: each length that can be read is converted, anything else stays as it was typed. */
export function inUnit(text: TypeText, unit: Unit): TypeText {
  const length = (typed: string) => {
    const parsed = parseLength(typed, { unit: text.unit, signed: 'sign' });
    return parsed.ok ? formatExactLength(parsed.nm, unit, INSTRUMENT_DECIMALS[unit]).replace('−', '-') : typed;
  };
  const ends = <Ends extends { readonly low: string; readonly high: string }>(one: Ends): Ends => ({
    ...one,
    low: length(one.low),
    high: length(one.high),
  });
  const family = (one: FamilyText): FamilyText => ({
    ...one,
    housing: one.housing.map(ends),
    journal: one.journal.map(ends),
    grades: one.grades.map(ends),
    undersizes: one.undersizes.map((under) => ({
      ...under,
      amount: length(under.amount),
      journal: ends(under.journal),
      grades: under.grades.map(ends),
    })),
  });
  return {
    ...text,
    unit,
    figures: eachFigure((key) => length(text.figures[key])),
    limits: Object.fromEntries(LIMIT_KEYS.map((key) => [key, ends(text.limits[key])])) as TypeText['limits'],
    mainLimits: text.mainLimits.map((one) => ({ ...one, text: ends(one.text) })),
    torque: text.torque.map(ends),
    ...eachFamily((name) => family(text[name])),
  };
}

/** Faults by the place where they stand, such as `main.housing.2.low`. */
export type TypeFaults = Readonly<Record<string, string>>;

/** The faults of one group of limits. @param place such as `limits.mainBore` */
export function limitFaultsAt(faults: TypeFaults, place: string): LimitFaults {
  const found: { low?: string; high?: string; source?: string } = {};
  for (const side of ['low', 'high', 'source'] as const) {
    const message = faults[`${place}.${side}`];
    if (message !== undefined) found[side] = message;
  }
  return found;
}

interface Reader {
  readonly unit: Unit;
  readonly fault: (place: string, message: string) => void;
}

/** A line of a list in which nothing is typed yet: it does not count. */
export function isBlank({ mark, low, high }: BandText): boolean {
  return mark.trim() === '' && low.trim() === '' && high.trim() === '';
}

function readBands(
  bands: readonly BandText[],
  place: string,
  { unit, fault }: Reader,
): (MarkedBand & Pick<Grade, 'paint' | 'positions'>)[] {
  const seen = new Map<string, number>();
  return bands.flatMap((band, at) => {
    if (isBlank(band)) return [];
    const mark = band.mark.trim();
    if (mark === '') fault(`${place}.${at}.mark`, 'Enter its mark.');
    else if (mark.length > 12) fault(`${place}.${at}.mark`, 'Enter at most 12 characters.');
    else if (seen.has(mark)) fault(`${place}.${at}.mark`, `“${mark}” is listed twice.`);
    seen.set(mark, at);
    const [low, high] = (['low', 'high'] as const).map((side) => {
      const parsed = parseLength(band[side], { unit, signed: 'sign' });
      if (!parsed.ok) fault(`${place}.${at}.${side}`, parsed.code === 'empty' ? 'Missing.' : parsed.message);
      else if (parsed.nm <= 0) fault(`${place}.${at}.${side}`, 'Above zero.');
      return parsed.ok ? parsed.nm : null;
    });
    if (low == null || high == null) return [];
    if (low > high) fault(`${place}.${at}.low`, 'Above its high end; swap them.');
    const read = readPlaces(band.places ?? '');
    if (!read.ok) fault(`${place}.${at}.places`, read.message);
    const positions = read.ok && read.positions ? { positions: read.positions } : {};
    return [{ mark, low, high, paint: band.paint === '' ? null : band.paint, ...positions }];
  });
}

function readUndersizes(text: FamilyText, place: string, reader: Reader): Undersize[] {
  const { unit, fault } = reader;
  return text.undersizes.flatMap((one, at): Undersize[] => {
    const where = `${place}.undersizes.${at}`;
    const amount = parseLength(one.amount, { unit, signed: 'sign' });
    const { limit, faults } = readLimit(one.journal, unit);
    if (one.name.trim() === '') fault(`${where}.name`, 'Enter a name, such as 0.25.');
    else if (text.undersizes.findIndex(({ name }) => name.trim() === one.name.trim()) !== at) {
      fault(`${where}.name`, `“${one.name}” is listed twice.`);
    }
    if (!amount.ok) fault(`${where}.amount`, amount.message);
    else if (amount.nm <= 0) fault(`${where}.amount`, 'Above zero.');
    for (const [side, message] of Object.entries(faults)) fault(`${where}.journal.${side}`, message);
    if (!limit && Object.keys(faults).length === 0)
      fault(`${where}.journal.low`, 'What the journal is ground to is missing.');
    const grades = readBands(one.grades, `${where}.grades`, reader);
    return amount.ok && limit ? [{ name: one.name.trim(), amount: amount.nm, journal: limit, grades }] : [];
  });
}

function readFamily(text: FamilyText, place: string, reader: Reader): TypeFamily {
  const grades = readBands(text.grades, `${place}.grades`, reader);
  const names = grades.map(({ mark }) => mark);
  const table: Record<string, Record<string, TableCell>> = {};
  text.housing.forEach(({ mark: row }, rowAt) => {
    text.journal.forEach(({ mark: column }, columnAt) => {
      const typed = text.cells[rowAt]?.[columnAt] ?? '';
      const read = readCell(typed, names);
      if (read.message !== null) reader.fault(`${place}.cells.${rowAt}.${columnAt}`, read.message);
      if (read.cell === null || row.trim() === '' || column.trim() === '') return;
      table[row.trim()] ??= {};
      table[row.trim()]![column.trim()] = read.cell;
    });
  });
  const plain = (bands: ReturnType<typeof readBands>) => bands.map(({ paint: _, positions: _all, ...band }) => band);
  return {
    series: text.series.trim(),
    tableSource: text.tableSource.trim(),
    housing: plain(readBands(text.housing, `${place}.housing`, reader)),
    journal: plain(readBands(text.journal, `${place}.journal`, reader)),
    grades,
    table,
    undersizes: readUndersizes(text, place, reader),
  };
}

/**
 * Reads a whole data sheet.
 *
 * @returns the sheet as far as it can be read, to check and draw; and every fault: it can be saved when there is none
 */
export function readType(text: TypeText): { type: EngineType | null; faults: TypeFaults } {
  const faults: Record<string, string> = {};
  const fault = (place: string, message: string) => {
    faults[place] ??= message;
  };
  const reader: Reader = { unit: text.unit, fault };
  if (text.name.trim() === '') fault('name', 'Enter a name for the engine type.');
  const { layout: usual, faults: layoutFaults } = layoutOfText(text);
  for (const [field, message] of Object.entries(layoutFaults)) fault(field, message);
  const thrown =
    usual && (text.throws.trim() === '' ? { ok: true as const, layout: usual } : withThrows(usual, text.throws));
  if (thrown?.ok === false) fault('throws', thrown.message);
  const limits = Object.fromEntries(
    LIMIT_KEYS.map((key) => {
      const read = readLimit(text.limits[key], text.unit);
      for (const [side, message] of Object.entries(read.faults)) fault(`limits.${key}.${side}`, message);
      return [key, read.limit];
    }),
  );
  const mainLimits: Record<string, MainLimits[string]> = {};
  for (const { number, key, text: typed } of text.mainLimits) {
    const read = readLimit(typed, text.unit);
    for (const [side, message] of Object.entries(read.faults)) fault(`mainLimits.${number} ${key}.${side}`, message);
    if (usual && number > usual.mains) fault(`mainLimits.${number} ${key}.low`, `No main ${number}.`);
    else if (read.limit) mainLimits[String(number)] = { ...mainLimits[String(number)], [key]: read.limit };
  }
  const places: Record<string, string> = {};
  for (const [number, typed] of Object.entries(text.places)) {
    if (typed.trim() === '') continue;
    const read = positionSchema.safeParse(typed);
    if (!read.success) fault(`places.${number}`, read.error.issues[0]!.message);
    // The text of a main that is gone waits for its number to come back.
    else if (!usual || Number(number) <= usual.mains) places[number] = read.data;
  }
  const figures = eachFigure((key) => {
    const typed = text.figures[key];
    if (typed.trim() === '') return null;
    const parsed = parseLength(typed, { unit: text.unit, signed: 'sign' });
    if (parsed.ok && parsed.nm >= 0) return parsed.nm;
    fault(`figures.${key}`, parsed.ok ? 'Enter 0 or more.' : parsed.message);
    return null;
  });
  const torque = text.torque.flatMap((line, at) => {
    if (isBlankTorque(line)) return [];
    const read = readTorqueLine(line, text.unit);
    for (const [key, message] of Object.entries(read.faults)) fault(`torque.${at}.${key}`, message);
    return read.torque ?? [];
  });
  const families = eachFamily((family) => readFamily(text[family], family, reader));
  if (!thrown?.ok) return { type: null, faults };
  const parsed = engineTypeSchema.safeParse({
    format: 'fettle.engine-type/1',
    name: text.name.trim() === '' ? '?' : text.name.trim(),
    note: text.note,
    unit: text.unit,
    layout: thrown.layout,
    viewFrom: text.viewFrom,
    thrustKind: text.thrustKind,
    joints: text.joints,
    rodJoints: text.rodJoints,
    ...figures,
    materials: text.materials,
    limits,
    mainLimits,
    places,
    torque,
    rows: FEATURES.flatMap((feature) => {
      const { isUsed, prefix, first } = text.rows[feature];
      return isUsed ? [{ feature, prefix: prefix.trim(), first }] : [];
    }),
    ...families,
  });
  if (!parsed.success) {
    // Whatever the boxes did not catch themselves must still keep the sheet from being saved.
    for (const { path, message } of parsed.error.issues) {
      const place = path.join('.');
      if (!Object.keys(faults).some((told) => told === place || told.startsWith(`${place}.`))) fault(place, message);
    }
    return { type: null, faults };
  }
  return { type: parsed.data, faults };
}
