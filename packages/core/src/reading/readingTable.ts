import { lengthCell, type RowReader, readTable, type TableRow } from '../document/tableRows.js';
import { parseLength } from '../measure/parseLength.js';
import { featuresOf } from '../part/familiesOf.js';
import { FEATURE_TABLE, FEATURES, type Feature, partCount, partName, type Slot, slotName } from '../part/feature.js';
import { type Reading, slotKey } from '../part/reading.js';
import { needleOf } from './assessReading.js';
import type { MeasuredJob } from './measuredJob.js';

/** The columns of readings in a CSV or spreadsheet file: what was typed, to the letter, and what it comes to. */
export const READING_COLUMNS = [
  'Part',
  'Feature',
  'Where',
  'Reading',
  'Setting',
  'Size',
  'Instrument',
  'Part °C',
  'Read by',
  'Read at',
] as const;
type Column = (typeof READING_COLUMNS)[number];

const NEEDED: readonly Column[] = ['Part', 'Feature', 'Where', 'Reading'];

/** A reading as a file tells it. */
export type ReadingItem = Pick<Reading, 'feature' | 'station' | 'slot' | 'text' | 'setting'>;
/** One row of a file on its way into the readings of an engine. */
export type ReadingRow = TableRow<ReadingItem, Reading>;

/**
 * The readings of an engine as a table: a head, then a row a reading, in the order of the work, from front to rear.
 *
 * @param readings current readings only; those that were taken back are left out
 */
export function readingTable({ unit }: Pick<MeasuredJob, 'unit'>, readings: readonly Reading[]): string[][] {
  const place = ({ feature, station, slot }: Reading) =>
    FEATURES.indexOf(feature) * 10_000 + station * 100 + FEATURE_TABLE[feature].slots.indexOf(slot);
  return [
    [...READING_COLUMNS],
    ...readings
      .filter(({ text }) => text !== '')
      .sort((one, other) => place(one) - place(other))
      .map(({ feature, station, slot, text, setting, nm, taken, by, at }) => [
        partName(feature, station),
        FEATURE_TABLE[feature].name,
        slotName(slot),
        text,
        lengthCell(setting ?? undefined, unit),
        lengthCell(nm ?? undefined, unit),
        taken?.instrument ?? '',
        taken?.celsius == null ? '' : String(taken.celsius),
        by,
        at,
      ]),
  ];
}

function named<Value extends string>(typed: string, values: readonly Value[], nameOf: (value: Value) => string) {
  const wanted = typed.trim().toLowerCase();
  return values.find((value) => nameOf(value).toLowerCase() === wanted || value.toLowerCase() === wanted);
}

function readRow(row: RowReader<Column>, job: MeasuredJob): ReadingItem | null {
  const features = featuresOf(job);
  const feature = named<Feature>(row.text('Feature'), features, (one) => FEATURE_TABLE[one].name);
  if (feature === undefined) {
    const names = features.map((one) => FEATURE_TABLE[one].name).join(', ');
    if (row.text('Feature') !== '') row.fault('Feature', `“${row.text('Feature')}” is not one of ${names}`);
    return null;
  }
  const { prefix, slots } = FEATURE_TABLE[feature];
  const station = Number(new RegExp(`^${prefix}(\\d{1,2})$`, 'iu').exec(row.text('Part'))?.[1]);
  const count = partCount(job.layout, feature);
  if (!(station >= 1 && station <= count) && row.text('Part') !== '') {
    row.fault('Part', `“${row.text('Part')}” is not one of ${prefix}1 to ${prefix}${count}`);
  }
  const slot = named<Slot>(row.text('Where'), slots, slotName);
  if (slot === undefined && row.text('Where') !== '') {
    row.fault(
      'Where',
      `“${row.text('Where')}” is no place there; places are named as ${slots.slice(0, 2).map(slotName).join(' or ')}`,
    );
  }
  const text = row.text('Reading');
  const setting = row.length('Setting') ?? job.measuring.setting[feature];
  const parsed = parseLength(text, { unit: job.unit, setting, needle: needleOf(job, feature) });
  // A deviation that waits for the needle's way is kept as typed, and asked about.
  if (text !== '' && !parsed.ok && parsed.code !== 'no-needle') row.fault('Reading', parsed.message);
  if (row.faults.length > 0 || slot === undefined) return null;
  return { feature, station, slot, text, setting };
}

/** Of a whole size the setting says nothing: only of a deviation is it compared. */
function itemOf({ feature, station, slot, text, setting }: ReadingItem): ReadingItem {
  return { feature, station, slot, text, setting: /^[+\-−–]/u.test(text) ? setting : null };
}

/**
 * Reads the rows of a file with a head into readings of an engine, each with what stands at its place now. Nothing is changed.
 *
 * @param readings current readings
 * @returns the rows in the order of the file, or the columns that its head lacks
 */
export function readReadingTable(
  table: readonly (readonly string[])[],
  job: MeasuredJob,
  readings: readonly Reading[],
) {
  return readTable(table, job.unit, readings, {
    columns: READING_COLUMNS,
    needed: NEEDED,
    read: (row: RowReader<Column>) => {
      const item = readRow(row, job);
      return item && itemOf(item);
    },
    isSame: (one: ReadingItem, other: ReadingItem) => slotKey(one) === slotKey(other),
    itemOf,
    name: 'Part' as const,
  });
}
