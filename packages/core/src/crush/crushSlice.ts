import type { EngineMembers } from '../engineType/enginePart.js';
import { clearanceLimitsOf, limitWord } from '../engineType/limits.js';
import type { Limit } from '../measure/lengthSchema.js';
import { lengthText } from '../measure/lengthText.js';
import type { Nanometres } from '../measure/nanometres.js';
import { familiesOf } from '../part/familiesOf.js';
import { FAMILIES, FAMILY_TABLE, type Family } from '../part/family.js';
import { FEATURE_TABLE, featureOf, partCount, partName } from '../part/feature.js';
import { settingPlaces } from '../stage/settingRow.js';
import { figures, type SheetBlock, words } from '../stage/sheetBlock.js';
import type { Slice, StageState, Todo } from '../stage/slice.js';
import type { CrushMembers } from './crushPart.js';
import { jointState, sideOpening } from './crushRead.js';
import { crushAim, type Joint } from './crushSchema.js';
import { CRUSH_SETTINGS, type JointKind } from './crushSettings.js';
import { saddleAdvice } from './saddleAdvice.js';

type CrushJob = CrushMembers & Pick<EngineMembers, 'layout' | 'limits' | 'materials' | 'sheet' | 'unit' | 'withRods'>;

/** What crush is judged with. */
export interface CrushFacts {
  readonly job: CrushJob;
}

/** A joint that is read: of a main, or of a rod's big end. */
export interface JointPlace {
  /** The main, or the rod, by name. */
  readonly station: string;
  readonly family: Family;
  readonly kind: JointKind;
}

/** The joints that are read in a job: those of the mains, then those of the rods where they are fitted too. */
export function jointPlaces({
  layout,
  crush,
  withRods,
}: Pick<CrushJob, 'layout' | 'crush' | 'withRods'>): JointPlace[] {
  return familiesOf({ withRods }).flatMap((family) => {
    const kind = crush[FAMILY_TABLE[family].joints] ?? null;
    const feature = featureOf(family, 'housing');
    if (kind === null) return [];
    return Array.from({ length: partCount(layout, feature) }, (_, at) => ({
      station: partName(feature, at + 1),
      family,
      kind,
    }));
  });
}

/** What is to come inside at a joint: the crush, or the oil clearance of white metal. */
export function jointLimits({ limits }: Pick<CrushJob, 'limits'>, { kind, family }: JointPlace): Limit | null {
  return kind === 'saddle' ? clearanceLimitsOf(limits, family) : limits.crush;
}

/**
 * The clearance or crush aimed at, at a joint; null for the middle of its limits. Where the mains are of white metal the figure is their
 * clearance and says nothing of a crush; big ends of white metal go to the middle of their own limits.
 *
 * @example jointAim({ crush: { kind: 'saddle', aim: 50_000 }, materials: {} }, { family: 'rod', kind: 'saddle' }) // null
 */
export function jointAim(
  { crush, materials }: Pick<CrushJob, 'crush' | 'materials'>,
  place: JointPlace,
): Nanometres | null {
  if (FAMILY_TABLE[place.family].housingsMove && (place.kind === 'saddle' || crush.kind === 'saddle')) return null;
  if (place.kind === 'saddle') return crush.aim;
  return crushAim(crush, materials[FAMILY_TABLE[place.family].heldBy[1]]);
}

interface JointRead extends JointPlace {
  readonly limits: Limit | null;
  readonly state: ReturnType<typeof jointState>;
}

function jointsRead({ job }: CrushFacts): JointRead[] {
  return jointPlaces(job).map((place) => {
    const limits = jointLimits(job, place);
    const joint = job.crush.joints[place.station];
    return { ...place, limits, state: joint ? jointState(joint, place.kind, limits) : null };
  });
}

function stateOf(facts: CrushFacts): StageState {
  const read = jointsRead(facts);
  if (read.some(({ state }) => state !== null && state !== 'inside')) return 'attention';
  const done = read.filter(({ state }) => state === 'inside').length;
  return read.length === 0 ? 'open' : done === read.length ? 'done' : done > 0 ? 'started' : 'open';
}

const JOINT_WORDS = {
  inside: 'inside',
  tight: 'too tight',
  loose: 'too loose',
  'not-square': 'not square',
} as const;

/** What is read at a joint, as it is called in a sentence. */
function whatOf({ kind, family }: JointPlace): string {
  return kind === 'saddle' ? limitWord(FAMILY_TABLE[family].clearance.key) : 'crush';
}

function todosOf(facts: CrushFacts): Todo[] {
  const read = jointsRead(facts);
  const inOrder = (todo: string): Todo[] => [{ urgency: 'in-order', todo }];
  const unlimited = read.filter(({ limits }) => limits === null);
  if (unlimited[0]) return inOrder(`Enter the ${whatOf(unlimited[0])} limits with their source`);
  const off = read.flatMap(({ station, state }) =>
    state !== null && state !== 'inside' ? [`${station} ${JOINT_WORDS[state]}`] : [],
  );
  if (off.length > 0) return inOrder(`Joints: ${off.join(', ')}`);
  const open = read.filter(({ state }) => state === null);
  const [first] = open;
  if (!first) return [];
  const alike = open.filter((place) => whatOf(place) === whatOf(first));
  return inOrder(`Read the ${whatOf(first)} at ${alike.map(({ station }) => station).join(', ')}`);
}

const TITLES: Readonly<Record<JointKind, string>> = {
  'split-line': 'Crush and shims at the joints',
  saddle: 'Shims under the caps',
  plain: 'Crush of the shells',
};

/** The joints of one family, side by side. */
function jointsTable({ job }: CrushFacts, places: readonly JointPlace[]): SheetBlock[] {
  const { unit } = job;
  const [first] = places;
  if (!first) return [];
  const { kind, family } = first;
  const text = (length: Nanometres | null) => (length === null ? '' : lengthText(length, unit));
  const side = (one: Joint['left']) => {
    const opening = sideOpening(one, kind);
    return opening === null ? '' : `${text(opening.go)} to ${text(opening.noGo)}`;
  };
  const fitted = (joint: Joint, name: 'left' | 'right') => {
    const chosen = joint.choice?.chosen.find(({ place }) => place === name);
    return chosen ? text(chosen.thickness) : text(joint[name].shim);
  };
  const rows = places.flatMap((place) => {
    const { station } = place;
    const joint = job.crush.joints[station];
    if (!joint) return [];
    const limits = jointLimits(job, place);
    const state = jointState(joint, kind, limits);
    const read = kind === 'saddle' ? [text(joint.clearance)] : [side(joint.left), side(joint.right)];
    const shims = kind === 'plain' ? [] : [fitted(joint, 'left'), fitted(joint, 'right')];
    const after = kind === 'plain' ? [] : [joint.choice ? text(joint.choice.predicted) : ''];
    const advice = kind === 'saddle' && limits && saddleAdvice(joint, limits, jointAim(job, place));
    const beyond = advice && advice.fromFaces > 0 ? `, ${text(advice.fromFaces)} beyond the shims` : '';
    const said = state === null ? '' : `${JOINT_WORDS[state]}${beyond}`;
    const cells = [station, ...read, ...shims, ...after, said, joint.recheck ?? ''];
    return [{ key: station, cells: cells.map((cell) => ({ text: cell })) }];
  });
  if (rows.length === 0) return [];
  const read = kind === 'saddle' ? [figures('Clearance')] : [figures('Crush, left'), figures('Crush, right')];
  const shims = [figures('Shim, left'), figures('Shim, right'), figures('Leading to')];
  return [
    {
      kind: 'table',
      key: FAMILY_TABLE[family].isInLine ? 'joints' : `joints ${family}`,
      part: 'result',
      title: `${TITLES[kind]}${FAMILY_TABLE[family].isInLine ? '' : `, ${FEATURE_TABLE[featureOf(family, 'housing')].words}`}`,
      head: [words('Joint'), ...read, ...(kind === 'plain' ? [] : shims), words('Verdict'), words('Read again on')],
      rows,
    },
  ];
}

function sheetOf(facts: CrushFacts): SheetBlock[] {
  const places = jointPlaces(facts.job);
  return FAMILIES.flatMap((family) =>
    jointsTable(
      facts,
      places.filter((place) => place.family === family),
    ),
  );
}

const PLACES = settingPlaces(CRUSH_SETTINGS);

/** Crush, and the shims at the joints: only where an engine has them. */
export const crushSlice: Slice<'crush', CrushFacts> = {
  key: 'crush',
  belongs: ({ job }) => jointPlaces(job).length > 0,
  state: stateOf,
  todos: todosOf,
  reminders: ({ job }) =>
    jointPlaces(job).flatMap(({ station }) => {
      const on = job.crush.joints[station]?.recheck ?? null;
      return on === null ? [] : [{ on, todo: `Re-read joint ${station} (settling check)` }];
    }),
  sheet: sheetOf,
  placeWords: ([, key = '', station = '', field = '']) => {
    if (key !== 'joints') return PLACES[key] ?? 'joints';
    if (station === '') return 'joints';
    return field === 'choice' ? `accepted shims at ${station}` : `joint at ${station}`;
  },
};
