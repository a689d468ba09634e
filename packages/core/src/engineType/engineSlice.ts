import { formatLength } from '../measure/formatLength.js';
import { lengthText } from '../measure/lengthText.js';
import type { Nanometres } from '../measure/nanometres.js';
import { otherUnit } from '../measure/unit.js';
import { familiesOf } from '../part/familiesOf.js';
import { rodCount } from '../part/rodCount.js';
import { figures, type SheetBlock, words } from '../stage/sheetBlock.js';
import type { Slice } from '../stage/slice.js';
import type { EngineMembers } from './enginePart.js';
import { USE_WORDS } from './engineUse.js';
import { CHECKED_LIMITS, type LimitKey, limitName, limitsOfFamily, limitWord, PLACED_LIMITS } from './limits.js';
import { THRUST_TABLE, type ThrustKind, thrustKindOf } from './thrustKind.js';

type EngineJob = EngineMembers & { readonly endPlay: { readonly kind: ThrustKind | null } };

/** What the data sheet of an engine is judged with. */
export interface EngineFacts {
  readonly job: EngineJob;
}

/** The limits that a job needs from its data sheet. */
export function limitsNeeded(job: Pick<EngineMembers, 'withRods'>): LimitKey[] {
  return familiesOf(job).flatMap(limitsOfFamily);
}

function todoOf(job: EngineJob): string | null {
  const needed = limitsNeeded(job);
  const missing = needed.filter((key) => !job.limits[key]);
  if (missing.length === 0) return null;
  if (missing.length === needed.length) return 'Enter the limits of the data sheet with their source';
  return `Enter the ${missing.map(limitWord).join(', ')} limits with their source`;
}

const MATERIALS: Readonly<Record<EngineMembers['materials']['block'], string>> = {
  iron: 'iron',
  aluminium: 'aluminium',
  steel: 'steel',
  unknown: 'not given',
};

function thrustText({ layout, sheet, endPlay }: EngineJob): string {
  if (layout.thrustMain === null) return 'not given';
  const kind = thrustKindOf({ endPlay, sheet });
  return `main ${layout.thrustMain}${kind === null ? '' : `, ${THRUST_TABLE[kind].words}`}`;
}

/** Mains with names of their own, where there are any. */
function placeFacts({ places }: EngineJob): SheetBlock[] {
  const named = Object.entries(places).map(([number, place]) => `M${number} ${place}`);
  return named.length === 0 ? [] : [{ kind: 'fact', label: 'Places', text: named.join(', ') }];
}

function limitsTable(job: EngineJob): SheetBlock {
  const { unit, limits, mainLimits } = job;
  const other = otherUnit(unit);
  const own = (value: Nanometres) => lengthText(value, unit);
  const inOther = (value: Nanometres) => formatLength(value, other, other === 'in' ? 5 : 4);
  const keys = [...limitsNeeded(job), ...CHECKED_LIMITS.filter((key) => limits[key] !== null)];
  return {
    kind: 'table',
    key: 'limits',
    part: 'reference',
    title: 'Limits',
    head: [words('Size'), figures('Low'), figures('High'), figures(`In ${other}`), words('Source')],
    rows: [
      ...keys.map((key) => ({ key: key as string, name: limitName(key), limit: limits[key] })),
      ...Object.entries(mainLimits).flatMap(([number, own]) =>
        PLACED_LIMITS.flatMap((key) => {
          const limit = own[key];
          return limit ? [{ key: `${key} ${number}`, name: `${limitName(key)}, main ${number}`, limit }] : [];
        }),
      ),
    ].map(({ key, name, limit }) => ({
      key,
      cells: [
        name,
        limit ? own(limit.low) : '',
        limit ? own(limit.high) : '',
        limit ? `${inOther(limit.low)} to ${inOther(limit.high)}` : '',
        limit ? limit.source : 'no limits: not judged',
      ].map((text) => ({ text })),
    })),
  };
}

function torqueTable({ sheet }: EngineJob): SheetBlock[] {
  if (!sheet || sheet.torque.length === 0) return [];
  return [
    {
      kind: 'table',
      key: 'torque',
      part: 'reference',
      title: 'Torque',
      head: [words('Fastener'), words('Steps'), words('Lubricated with'), words('Source')],
      rows: sheet.torque.map(({ fastener, steps, lubricant, source }) => ({
        key: `${fastener} ${steps}`,
        cells: [fastener, steps, lubricant || 'not given', source].map((text) => ({ text })),
      })),
    },
  ];
}

const MEMBERS: Readonly<Record<string, string>> = {
  name: 'name',
  unit: 'unit',
  withRods: 'work covers the rods',
  use: 'what it is built for',
  origin: 'data sheet it was copied from',
  sheet: 'copied data sheet',
};

/** The engine itself and what its data sheet says. */
export const engineSlice: Slice<'data', EngineFacts> = {
  key: 'data',
  state: ({ job }) => {
    const needed = limitsNeeded(job);
    const missing = needed.filter((key) => !job.limits[key]).length;
    return missing === 0 ? 'done' : missing < needed.length ? 'started' : 'open';
  },
  todos: ({ job }) => {
    const todo = todoOf(job);
    return todo === null ? [] : [{ urgency: 'before-all', todo }];
  },
  sheet: ({ job }) => {
    const { layout, materials } = job;
    return [
      { kind: 'fact', label: 'Mains and rods', text: `${layout.mains} and ${rodCount(layout)}` },
      {
        kind: 'fact',
        label: 'Block, caps, rods',
        text: [materials.block, materials.caps, materials.rods].map((one) => MATERIALS[one]).join(', '),
      },
      { kind: 'fact', label: 'Thrust at', text: thrustText(job) },
      { kind: 'fact', label: 'Built for', text: job.use ? USE_WORDS[job.use].toLowerCase() : 'not given' },
      ...placeFacts(job),
      limitsTable(job),
      ...torqueTable(job),
    ];
  },
  placeWords: ([member = '', key = '']) => {
    if (member === 'limits') return key === '' ? 'limits' : `limits: ${limitWord(key as LimitKey)}`;
    if (member === 'mainLimits') return key === '' ? 'limits of single mains' : `limits of main ${key}`;
    if (member === 'places') return key === '' ? 'places along the shaft' : `place of main ${key}`;
    if (member === 'materials') return `material of the ${key === '' ? 'parts' : key}`;
    if (member === 'layout') return key === 'thrustMain' ? 'thrust main' : 'layout of the shaft';
    return MEMBERS[member] ?? 'the engine';
  },
};
