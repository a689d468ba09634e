import { keysOfPointer } from '../document/mergeThreeWays.js';
import type { Limit } from '../measure/lengthSchema.js';
import { lengthText } from '../measure/lengthText.js';
import type { Nanometres } from '../measure/nanometres.js';
import type { Unit } from '../measure/unit.js';
import { FEATURE_TABLE, type Feature, partName, type Slot, slotName } from '../part/feature.js';
import { shellLabel } from '../shell/half.js';
import type { JobShell } from '../shell/jobShell.js';
import { isLengthPlace } from './isLengthPlace.js';
import type { JobDocument } from './jobDocument.js';
import { placeWords } from './slices.js';

interface Step {
  /** JSON Pointer into the document. */
  readonly path: string;
  readonly from?: unknown;
  readonly to?: unknown;
}

/** How whoever shows it tells a moment by its own clock. */
type TimeText = (at: string) => string;

/** An entry of a job's history, as far as it is told in words. */
export interface HistoryEntry {
  readonly kind: 'created' | 'changed' | 'deleted' | 'restored' | 'read';
  readonly changes: readonly Step[];
  readonly reading: {
    readonly feature: Feature;
    readonly station: number;
    readonly slot: Slot;
    readonly from: string | null;
    readonly to: string;
    readonly reason: string;
  } | null;
}

/** More than this is counted, not named. */
const NAMED = 3;

function countText(stock: unknown): string {
  return typeof stock === 'number' ? `${stock} on hand` : 'not counted';
}

function isRecord(value: unknown): value is Readonly<Record<string, unknown>> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** An id of something, or a moment: what it stands for is told, never itself. */
const ID = /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/u;
const MOMENT = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}/u;

/** A value as it is told; null where it has no short text. */
function valueText(
  keys: readonly string[],
  value: unknown,
  { unit, shells }: JobDocument,
  timeText: TimeText,
): string | null {
  if (value === undefined || value === null) return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') return isLengthPlace(keys) ? lengthText(value, unit) : String(value);
  if (typeof value !== 'string') return null;
  if (MOMENT.test(value)) return timeText(value);
  if (ID.test(value)) return shells[value] ? shellLabel(shells[value]) : null;
  return value === '' ? 'nothing' : value;
}

function limitText(value: unknown, unit: Unit): string {
  if (!isRecord(value)) return 'none';
  const { low, high, source } = value as unknown as Limit;
  return `${lengthText(low, unit)} to ${lengthText(high as Nanometres, unit)} (${source})`;
}

/** What a step did to a half of the engine's own drawer; null for another one. */
function halfWords(keys: readonly string[], { from, to }: Step, document: JobDocument): string | null {
  const [member, id = '', field] = keys;
  if (member !== 'shells' || id === '') return null;
  if (field === undefined) {
    const half = (to ?? from) as unknown as JobShell;
    if (!isRecord(half)) return null;
    return to === undefined ? `took ${shellLabel(half)} out` : `added ${shellLabel(half)}, ${countText(half.stock)}`;
  }
  const half = document.shells[id];
  return field === 'stock' && half ? `counted ${shellLabel(half)}: ${countText(to)}, before ${countText(from)}` : null;
}

function choiceWords(keys: readonly string[], { from, to }: Step): string | null {
  if (keys[0] !== 'choice' || keys.length > 1) return null;
  if (to === undefined || to === null) return 'withdrew the accepted selection';
  const stations = isRecord(to) && isRecord(to.stations) ? Object.keys(to.stations) : [];
  return `accepted ${from === undefined || from === null ? 'a selection' : 'another selection'} for ${stations.join(', ')}`;
}

function stepWords(step: Step, document: JobDocument, timeText: TimeText): string {
  const keys = keysOfPointer(step.path);
  const { unit } = document;
  const told = halfWords(keys, step, document) ?? choiceWords(keys, step);
  if (told !== null) return told;
  const place = placeWords(keys, document);
  if ((keys[0] === 'limits' && keys.length === 2) || (keys[0] === 'mainLimits' && keys.length === 3)) {
    return `${place}: ${limitText(step.to, unit)}`;
  }
  const [from, to] = [step.from, step.to].map((value) => valueText(keys, value, document, timeText));
  if (from === null || to === null || (step.from === undefined && step.to === undefined)) return `changed ${place}`;
  return `${place}: ${from === 'none' ? '' : `${from} → `}${to}`;
}

const KINDS: Readonly<Record<HistoryEntry['kind'], string>> = {
  created: 'created the engine',
  changed: 'changed',
  deleted: 'closed the engine',
  restored: 'reopened the engine',
  read: 'read',
};

/**
 * What an entry of a job's history says, in words: `added Teal upper (Marsh), 4 on hand`.
 *
 * @param document the job as it is now, to name what ids stand for
 * @param timeText how a moment is told, an ISO 8601 date and time
 */
export function changeWords(
  { kind, changes, reading }: HistoryEntry,
  document: JobDocument,
  timeText: TimeText,
): string {
  if (reading) {
    const { feature, station, slot, from, to, reason } = reading;
    const now = to === '' ? 'undone' : to;
    const place = `${partName(feature, station)} ${FEATURE_TABLE[feature].word}, ${slotName(slot).toLowerCase()}`;
    return `${place}: ${from === null ? '' : `${from} → `}${now}${reason === '' ? '' : ` (${reason})`}`;
  }
  if (kind !== 'changed') return KINDS[kind];
  // Accepting again changes the choice piece by piece: it is told as one thing.
  const isOfChoice = ({ path }: Step) => keysOfPointer(path)[0] === 'choice' && keysOfPointer(path).length > 1;
  const again = changes.filter(isOfChoice);
  const places = [...new Set(again.flatMap(({ path }) => keysOfPointer(path)[2] ?? []))];
  const words = [
    ...(again.length === 0 ? [] : [`accepted another selection${places.length === 0 ? '' : `: ${places.join(', ')}`}`]),
    ...new Set(changes.filter((step) => !isOfChoice(step)).map((step) => stepWords(step, document, timeText))),
  ];
  const more = words.length > NAMED ? `; and ${words.length - NAMED} more` : '';
  return `${words.slice(0, NAMED).join('; ')}${more}`;
}
