import { faultsOf } from '../document/fault.js';
import { lengthCell, type RowReader, readTable } from '../document/tableRows.js';
import type { Unit } from '../measure/unit.js';
import { INSTRUMENT_KINDS, INSTRUMENT_STATE_WORDS, INSTRUMENT_STATES, instrumentKind } from './instrumentKinds.js';
import {
  COMMON_PRACTICE,
  instrumentDraftSchema,
  newInstrument,
  type RegisteredInstrument,
} from './registeredInstrument.js';

/** The columns of the register in a CSV or spreadsheet file. */
export const INSTRUMENT_COLUMNS = [
  'Number',
  'Kind',
  'Unit',
  'Reads from',
  'Reads to',
  'Size',
  'Ball',
  'Resolution',
  'Needle +',
  'Setting u',
  'Repeats u',
  'Operator u',
  'u from',
  'Drift allowed',
  'Months',
  'Kept by',
  'Place',
  'State',
] as const;
type Column = (typeof INSTRUMENT_COLUMNS)[number];

const NEEDED: readonly Column[] = ['Number', 'Kind', 'Unit'];

/** Columns that a fault of the schema is told in. */
const COLUMN_OF: Readonly<Record<string, Column>> = {
  number: 'Number',
  kind: 'Kind',
  unit: 'Unit',
  range: 'Reads from',
  size: 'Size',
  ball: 'Ball',
  resolution: 'Resolution',
  needle: 'Needle +',
  setting: 'Setting u',
  repeatability: 'Repeats u',
  operator: 'Operator u',
  basis: 'u from',
  drift: 'Drift allowed',
  calibrateAfterMonths: 'Months',
  holder: 'Kept by',
  place: 'Place',
  state: 'State',
};

/** The register as a table: a head, then a row an instrument. */
export function instrumentTable(instruments: readonly RegisteredInstrument[]): string[][] {
  return [
    [...INSTRUMENT_COLUMNS],
    ...instruments.map((one) => {
      const cell = (value: Parameters<typeof lengthCell>[0] | null) => lengthCell(value ?? undefined, one.unit);
      return [
        one.number,
        instrumentKind(one.kind).word,
        one.unit,
        cell(one.range?.low),
        cell(one.range?.high),
        cell(one.size),
        cell(one.ball),
        cell(one.resolution),
        one.needle ?? '',
        cell(one.setting),
        cell(one.repeatability),
        cell(one.operator),
        one.basis,
        cell(one.drift),
        one.calibrateAfterMonths === null ? '' : String(one.calibrateAfterMonths),
        one.holder,
        one.place,
        INSTRUMENT_STATE_WORDS[one.state],
      ];
    }),
  ];
}

function named<Value extends string>(
  row: RowReader<Column>,
  column: Column,
  values: readonly Value[],
  wordOf: (value: Value) => string,
): Value | undefined {
  const typed = row.text(column).toLowerCase();
  const found = values.find((value) => wordOf(value) === typed || value.toLowerCase() === typed);
  if (found === undefined && typed !== '') {
    row.fault(column, `“${row.text(column)}” is not one of ${values.map(wordOf).join(', ')}`);
  }
  return found;
}

/** What a row says, over an instrument in good order; what a file leaves out stands as it does there. */
function readRow(row: RowReader<Column>, unit: Unit): RegisteredInstrument | null {
  const kind = named(row, 'Kind', INSTRUMENT_KINDS, (value) => instrumentKind(value).word);
  if (kind === undefined) return null;
  const usual = newInstrument(kind, unit);
  const [low, high] = [row.length('Reads from'), row.length('Reads to')];
  if ((low === undefined) !== (high === undefined)) row.fault('Reads to', 'give both ends of the range, or none');
  const state = named(row, 'State', INSTRUMENT_STATES, (value) => INSTRUMENT_STATE_WORDS[value]) ?? 'inUse';
  const item = {
    ...usual,
    number: row.text('Number'),
    range: low === undefined || high === undefined ? null : { low, high },
    size: row.length('Size') ?? null,
    ball: row.length('Ball') ?? null,
    resolution: row.length('Resolution') ?? usual.resolution,
    needle: row.oneOf('Needle +', ['bigger', 'smaller'] as const) ?? null,
    setting: row.length('Setting u') ?? usual.setting,
    repeatability: row.length('Repeats u') ?? usual.repeatability,
    operator: row.length('Operator u') ?? usual.operator,
    basis: row.text('u from') || COMMON_PRACTICE,
    drift: row.length('Drift allowed') ?? usual.drift,
    calibrateAfterMonths: row.number('Months') ?? null,
    holder: row.text('Kept by'),
    place: row.text('Place'),
    state,
  };
  const parsed = instrumentDraftSchema.safeParse(item);
  if (!parsed.success) row.take(faultsOf(parsed.error), COLUMN_OF);
  return parsed.success && row.faults.length === 0 ? parsed.data : null;
}

/**
 * Reads the rows of a file with a head into instruments; one whose number is in the register takes its place. Lengths without a unit are in the
 * unit of their row.
 *
 * @param lines the register as it is
 * @returns the rows in the order of the file, or the columns that its head lacks
 */
export function readInstrumentTable<Line extends { readonly instrument: RegisteredInstrument }>(
  table: readonly (readonly string[])[],
  lines: readonly Line[],
) {
  return readTable<Column, RegisteredInstrument, Line>(table, 'mm', lines, {
    columns: INSTRUMENT_COLUMNS,
    formerHeads: { 'Who has it': 'Kept by' },
    needed: NEEDED,
    read: (row) => {
      const unit = row.oneOf('Unit', ['mm', 'in'] as const);
      return unit === undefined ? null : readRow(row.in(unit), unit);
    },
    isSame: (one, other) => one.number.toLowerCase() === other.number.toLowerCase(),
    itemOf: ({ instrument }) => instrument,
    name: 'Number',
  });
}
