import type { Nanometres, Reading } from '@fettle/core';
import type { ReadingRow } from './readingEntity.js';

/** A stored reading as it goes over the wire. */
export function readingOf(row: ReadingRow): Reading {
  return {
    id: row.id,
    feature: row.feature,
    station: row.station,
    slot: row.slot,
    text: row.text,
    unit: row.unit,
    setting: row.setting as Nanometres | null,
    nm: row.nm as Nanometres | null,
    replaces: row.replaces,
    by: row.by,
    at: row.at.toISOString(),
    ...(row.taken ? { taken: row.taken } : {}),
  };
}
