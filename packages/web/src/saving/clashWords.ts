import {
  FEATURE_TABLE,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  isLengthPlace,
  type JobDocument,
  type JobShell,
  type Json,
  keysOfPointer,
  momentText,
  nanometres,
  partName,
  placeWords,
  type ReadingDraft,
  shellLabel,
  slotName,
} from '@fettle/core';
import type { Clash } from './outbox.js';

/** What a reading is of: `P2 crankpin, front, 0°`. */
export function readingPlace({ feature, station, slot }: Pick<ReadingDraft, 'feature' | 'station' | 'slot'>): string {
  return `${partName(feature, station)} ${FEATURE_TABLE[feature].name.toLowerCase()}, ${slotName(slot).toLowerCase()}`;
}

/** A value of the document as one says it; what is more than a value is called by its kind. */
function valueWords(value: Json | undefined, path: readonly string[], { unit, shells }: JobDocument): string {
  if (value === undefined || value === null) return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') {
    if (!isLengthPlace(path)) return String(value);
    return `${formatExactLength(nanometres(value), unit, INSTRUMENT_DECIMALS[unit])} ${unit}`;
  }
  if (typeof value === 'string') {
    const half = shells[value];
    return half ? shellLabel(half) : `“${value}”`;
  }
  if (path[0] === 'shells' && path.length === 2) return shellLabel(value as unknown as JobShell);
  return Array.isArray(value) ? 'another list' : 'something else';
}

/** The question that a clash puts to whoever is at this device. */
export function clashQuestion(clash: Clash, document: JobDocument): string {
  if (clash.kind === 'reading') {
    const theirs = clash.theirs
      ? `${clash.theirs.by} entered “${clash.theirs.text}” (${momentText(clash.theirs.at)})`
      : 'it was removed';
    return `${readingPlace(clash.ours)}: you typed “${clash.ours.text}”, meanwhile ${theirs}.`;
  }
  const path = keysOfPointer(clash.path);
  const words = (value: Json | undefined) => valueWords(value, path, document);
  const place = placeWords(path, document);
  const said = `you set ${words(clash.ours)}, someone else set ${words(clash.theirs)}`;
  return `${place.charAt(0).toUpperCase()}${place.slice(1)}: ${said}.`;
}
