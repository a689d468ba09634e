import {
  CHECKED_LIMITS,
  type JobDocument,
  jointPlaces,
  type Limit,
  type LimitKey,
  limitName,
  limitsNeeded,
  PLACED_LIMITS,
  type PlacedLimit,
} from '@fettle/core';
import { useState } from 'react';
import type { ChangeDocument } from '../job/useJob.js';
import { LimitsTable } from '../limits/LimitsTable.js';
import { EMPTY_LIMIT, type LimitText, readLimit, textOfLimit } from '../limits/limitText.js';
import type { LimitRow } from '../limits/useLimitsTable.js';
import { useDrafts } from '../typing/useDrafts.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { mainName, PlacedLimits, placedKey } from './PlacedLimits.js';

/** Limits that a verdict uses where they are given, and does without where they are not. */
const SHAPE_LIMITS: readonly LimitKey[] = CHECKED_LIMITS.filter((key) => key !== 'crush');

const UNSAVED_ROW = 'not saved yet: leave the row to save it';

/** All limits of the engine in one table: those that it needs first, then those of single mains. */
export function LimitsPanel({ id, document, change }: { id: string; document: JobDocument; change: ChangeDocument }) {
  const { unit, layout, mainLimits } = document;
  const { drafts, latest, put, drop } = useDrafts<LimitText>(`${id}.limits`);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set(Object.keys(drafts)));
  const [leftOver] = useState(left);
  const keys: readonly LimitKey[] = [
    ...limitsNeeded(document),
    ...SHAPE_LIMITS,
    ...(jointPlaces(document).some(({ kind }) => kind !== 'saddle') ? (['crush'] as const) : []),
  ];
  const stored = new Map<string, { name: string; note?: string; text: LimitText }>([
    ...keys.map((key) => [key, { name: limitName(key), text: textOfLimit(document.limits[key], unit) }] as const),
    ...Object.entries(mainLimits).flatMap(([number, own]) =>
      PLACED_LIMITS.filter((key) => own[key] !== undefined).map(
        (key) => [placedKey(number, key), placedRow(document, Number(number), key)] as const,
      ),
    ),
    ...Object.keys(drafts).flatMap((key) => {
      const placed = placedOf(key);
      return placed && mainLimits[placed.number]?.[placed.key] === undefined
        ? [[key, placedRow(document, Number(placed.number), placed.key)] as const]
        : [];
    }),
  ]);
  const rows = [...stored].map(([key, { text, ...row }]): LimitRow => {
    const draft = drafts[key];
    const faults = draft && left.has(key) ? readLimit(draft, unit).faults : {};
    const isUnsaved = draft !== undefined && leftOver.has(key) && Object.keys(faults).length === 0;
    const note = [row.note, isUnsaved ? UNSAVED_ROW : undefined].filter((one) => one !== undefined).join('; ');
    return { key, ...row, text: draft ?? text, faults, ...(note === '' ? {} : { note }) };
  });
  const leave = (key: string) => {
    const draft = latest()[key];
    if (draft === undefined) return;
    // Who types a column at a time has half of each row until the next: that is no fault yet.
    if (draft.low.trim() !== '' && draft.high.trim() !== '') setLeft(new Set([...left, key]));
    const { limit, faults } = readLimit(draft, unit);
    if (Object.keys(faults).length > 0) return;
    const placed = placedOf(key);
    change((old) => (placed ? withPlaced(old, placed, limit) : { ...old, limits: { ...old.limits, [key]: limit } }));
    drop(key);
  };
  return (
    <Panel>
      <PanelTitle>Limits from the data sheet</PanelTitle>
      <Quiet>
        From the engine maker's current data; local rules and licensed practice come first. A limit that is missing is
        missing in the verdict.
      </Quiet>
      <LimitsTable
        rows={rows}
        unit={unit}
        onChange={put}
        onLeave={leave}
        onLeaveAll={() => setLeft(new Set(Object.keys(latest())))}
      />
      <PlacedLimits
        mains={layout.mains}
        thrustMain={layout.thrustMain}
        keys={rows.map(({ key }) => key)}
        onAdd={(number, key) => put(placedKey(number, key), EMPTY_LIMIT)}
      />
    </Panel>
  );
}

interface Placed {
  readonly number: string;
  readonly key: PlacedLimit;
}

/** The main and the limit that a row of one main is for; null for a row of the whole sheet. */
function placedOf(row: string): Placed | null {
  const [number = '', name] = row.split(' ');
  const key = PLACED_LIMITS.find((one) => one === name);
  return key ? { number, key } : null;
}

function placedRow({ layout, mainLimits, unit }: JobDocument, number: number, key: PlacedLimit) {
  return {
    name: `${limitName(key)}, main ${number}`,
    note: `only at ${mainName(number, layout.mains, layout.thrustMain)}`,
    text: textOfLimit(mainLimits[String(number)]?.[key] ?? null, unit),
  };
}

function withPlaced(job: JobDocument, { number, key }: Placed, limit: Limit | null): JobDocument {
  const { [key]: _, ...others } = job.mainLimits[number] ?? {};
  const own = limit === null ? others : { ...others, [key]: limit };
  const { [number]: _old, ...rest } = job.mainLimits;
  return { ...job, mainLimits: Object.keys(own).length === 0 ? rest : { ...rest, [number]: own } };
}
