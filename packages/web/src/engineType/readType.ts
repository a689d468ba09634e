import {
  type EngineType,
  eachFamily,
  engineTypeSchema,
  FEATURES,
  type Grade,
  LIMIT_KEYS,
  type MainLimits,
  type MarkedBand,
  parseLength,
  positionSchema,
  readPlaces,
  type TableCell,
  type TypeFamily,
  type Undersize,
  type Unit,
  withThrows,
} from '@fettle/core';
import { type LimitFaults, readLimit } from '../limits/limitText.js';
import { isBlankTorque, readTorqueLine } from '../torque/torqueLineText.js';
import { readCell } from './cellText.js';
import { layoutOfText } from './layoutText.js';
import { type BandText, eachFigure, type FamilyText, type TypeText } from './typeText.js';

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
