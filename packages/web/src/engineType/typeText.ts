import {
  type EngineType,
  eachFamily,
  type Family,
  FEATURES,
  type Feature,
  formatExactLength,
  type Grade,
  INSTRUMENT_DECIMALS,
  LIMIT_KEYS,
  type LimitKey,
  type MarkedBand,
  type Material,
  type Paint,
  PLACED_LIMITS,
  type PlacedLimit,
  parseLength,
  rodCount,
  type StampedRow,
  type TypeFamily,
  throwsText,
  type Unit,
} from '@fettle/core';
import { type LimitText, textOfLimit } from '../limits/limitText.js';
import { BLANK_TORQUE_LINE, type TorqueLineText, textOfTorque } from '../torque/torqueLineText.js';
import { textOfCell } from './cellText.js';
import type { LayoutText } from './layoutText.js';

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

export function eachFigure<Value>(of: (key: FigureKey) => Value): Readonly<Record<FigureKey, Value>> {
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
