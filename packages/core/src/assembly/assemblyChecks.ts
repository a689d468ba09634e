import type { ThrustKind } from '../engineType/thrustKind.js';
import type { ShimPlace } from '../fit/format/shimPlace.js';
import { FAMILY_TABLE, type Family } from '../part/family.js';
import type { Built } from './assemblySchema.js';

/** What stands at a station, as far as its checks go. */
export interface CheckedStation {
  readonly family: Family;
  readonly isThrust: boolean;
  /** What takes the thrust there, where it is known. */
  readonly thrust: ThrustKind | null;
  readonly built: Built;
  /** Lubricant of the running faces, in words. */
  readonly face: string;
}

/** One thing to look at while a station is put together. */
export interface AssemblyCheck {
  /** What it is kept under. */
  readonly key: string;
  /** What to see to, as one says it at the bench. */
  readonly what: string;
  /** Why, in a line. */
  readonly why: string;
}

interface CheckRow {
  readonly what: (station: CheckedStation) => string;
  readonly why: string;
  /** True if a station has it; where nobody said, it is asked for. */
  readonly belongs?: (station: CheckedStation) => boolean;
}

const isRod = ({ family }: CheckedStation) => FAMILY_TABLE[family].housingsMove;
const isInBlock = (station: CheckedStation) => !isRod(station);

const GROOVED: Readonly<Record<NonNullable<Built['grooved']>, string>> = {
  upper: 'Grooved shell in the block, plain shell in the cap',
  lower: 'Grooved shell in the cap, plain shell in the block',
  both: 'Both shells grooved, grooves in line',
  none: 'No grooved shells listed: check that none is in the box',
};

const LUGGED: Readonly<Record<NonNullable<Built['washerLugs']>, string>> = {
  upper: 'lugged washers in the block, plain ones in the cap',
  lower: 'lugged washers in the cap, plain ones in the block',
  both: 'lugs home in block and cap',
  none: 'no lugs: check what stops them turning',
};

const CAPS: Readonly<Record<NonNullable<Built['caps']>, string>> = {
  numbers: 'Cap of this station’s number',
  arrows: 'Cap of this station, its arrow to the front',
  both: 'Cap of this station’s number, its arrow to the front',
  none: 'Cap of this station, the way round it came off (it carries no mark)',
};

/** Every check in the working order. Common practice. */
const TABLE = {
  dry: {
    what: () => 'Seat, cap and backs of the shells clean and dry',
    why: 'dirt or oil behind a shell takes up clearance and holds heat',
  },
  lug: {
    what: () => 'Lugs in their notches, both shells',
    why: 'a shell sitting on its lug stands proud and closes the clearance',
    belongs: ({ built }: CheckedStation) => built.lugs !== false,
  },
  dowel: {
    what: () => 'Dowels in place, nothing sits on them',
    why: 'a shell or a cap on a dowel is bent when the bolts pull',
    belongs: ({ built }: CheckedStation) => built.dowels === true,
  },
  groove: {
    what: ({ built }: CheckedStation) =>
      built.grooved === null ? 'Grooved shell on the side the book gives' : GROOVED[built.grooved],
    why: 'a groove on the loaded side halves the bearing area',
    belongs: isInBlock,
  },
  hole: {
    what: (station: CheckedStation) =>
      isRod(station) ? 'Oil holes of shell and rod in line' : 'Oil hole of the shell over the oil hole of the block',
    why: 'a half-covered hole starves the journal and all it feeds: decide on it now',
  },
  washers: {
    what: ({ built }: CheckedStation) =>
      `Thrust washers: grooves to the shaft’s faces, ${built.washerLugs ? LUGGED[built.washerLugs] : 'lugged washers where the book says, lugs home'}`,
    why: 'the wrong way round there is no oil between washer and shaft; a washer without its lug located turns with the shaft',
    belongs: ({ isThrust, thrust }: CheckedStation) => isThrust && (thrust === 'washers' || thrust === null),
  },
  face: {
    what: ({ face }: CheckedStation) => `Running faces lubricated${face === '' ? '' : ` with ${face}`}`,
    why: 'the first turns are made before any oil comes',
  },
  covers: {
    what: () => 'Covers on the rod bolts until the cap is on',
    why: 'a bolt’s thread nicks the crankpin, and the nick cuts the shell',
    belongs: (station: CheckedStation) => isRod(station) && station.built.boltCovers !== false,
  },
  cap: {
    what: (station: CheckedStation) =>
      isRod(station)
        ? 'Rod and cap of one number, their marks on the same side, oil hole to its side'
        : CAPS[station.built.caps ?? 'both'],
    why: 'housings are bored with their caps: a swapped or turned cap leaves the bore out of round',
  },
  home: {
    what: () => 'Cap tapped home before the bolts pull it',
    why: 'a cap pulled in askew shaves its register and sits crooked',
    belongs: isInBlock,
  },
  line: {
    what: () => 'Thrust faces lined up: cap just snug, shaft knocked both ways, then torqued',
    why: 'out of line, one washer alone carries the thrust',
    belongs: ({ isThrust, thrust }: CheckedStation) => isThrust && thrust !== 'rings',
  },
  side: {
    what: () => 'Rod free to move sideways on its crankpin',
    why: 'a rod that does not move is cocked, or its chamfer is on the wrong side',
    belongs: isRod,
  },
  marked: {
    what: () => 'Tightened bolts marked with paint',
    why: 'the next one sees which were done',
  },
} as const satisfies Readonly<Record<string, CheckRow>>;

/** A check by its key. */
export type CheckKey = keyof typeof TABLE;

const ROWS = Object.entries(TABLE) as [CheckKey, CheckRow][];

/** The checks that come after the fasteners are tightened and the shaft is turned. */
const AFTER_TORQUE: ReadonlySet<string> = new Set<CheckKey>(['side', 'marked']);

/**
 * What to look at at a station, in the working order: what is seen to before its bolts are tightened, and what after.
 *
 * @returns only what that station has; what nobody said of the engine is asked for
 */
export function assemblyChecks(station: CheckedStation): {
  readonly before: readonly AssemblyCheck[];
  readonly after: readonly AssemblyCheck[];
} {
  const own = ROWS.filter(([, { belongs }]) => belongs?.(station) ?? true).map(([key, { what, why }]) => ({
    key: key as string,
    what: what(station),
    why,
  }));
  return {
    before: own.filter(({ key }) => !AFTER_TORQUE.has(key)),
    after: own.filter(({ key }) => AFTER_TORQUE.has(key)),
  };
}

/**
 * True if the half of a thrust washer at a place carries the lug, as the engine says.
 *
 * @example isLugged({ washerLugs: 'lower' }, 'front.lower') // true
 */
export function isLugged({ washerLugs }: Pick<Built, 'washerLugs'>, place: ShimPlace): boolean {
  const half = place.split('.')[1];
  return half !== undefined && (washerLugs === 'both' || washerLugs === half);
}

/** What a check is kept under. */
export function checkPlace(station: string, check: string): string {
  return `${station}/${check}`;
}

/** What to try where the shaft turns stiff after a cap, in order. Common practice. */
export const STIFF_TRIES = [
  'slacken this cap: if it turns freely again, it is this one; if not, the one before it',
  'take the cap off: dirt or a burr under a shell, a lug out of its notch, a cap turned round',
  'thrust main: line the faces up again, cap just snug, shaft knocked both ways',
  'measure the walls: a wrong shell may be in the box',
  'read the bore with the cap torqued, and the journal again',
  'stiff at one angle only: the shaft is bent, or a main out of line',
] as const;
