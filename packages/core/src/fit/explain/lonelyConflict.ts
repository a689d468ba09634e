import { lengthText } from '../../measure/lengthText.js';
import { nanometres } from '../../measure/nanometres.js';
import type { Unit } from '../../measure/unit.js';
import { type FitModel, limitsWith, type ModelRules, offsetOfPair } from '../model/fitModel.js';
import type { Conflict } from '../model/fitSolution.js';
import { housingsByStation, stationOptions } from '../model/stationOptions.js';
import { type NearPair, nearestFlanges, nearestPair } from './nearestPair.js';

/** The rules at their widest: any two halves of the right side. */
function openRules(rules: ModelRules): ModelRules {
  return {
    ...rules,
    mixedHalves: true,
    acrossSeries: true,
    maxWallStep: nanometres(1_000_000_000),
    thinnerHalf: 'either',
  };
}

/** The station that nothing serves, with what every reason looks at. Stock counts as unlimited, so that “wrong wall” and “none left” differ. */
class LonelyStation {
  readonly model: FitModel;
  readonly at: number;
  readonly station: FitModel['stations'][number];
  readonly housings: readonly number[];
  readonly wish: ReturnType<FitModel['wishes']['get']>;
  readonly shells: FitModel['shells'];
  private readonly unit: Unit;

  constructor(model: FitModel, at: number, unit: Unit) {
    this.model = model;
    this.at = at;
    this.unit = unit;
    this.station = model.stations[at]!;
    this.housings = housingsByStation(model)[at]!;
    this.wish = model.wishes.get(at);
    this.shells = model.shells.map((shell) => ({ ...shell, stock: Number.POSITIVE_INFINITY }));
  }

  length(value: number): string {
    return lengthText(value, this.unit);
  }

  /** A conflict of this station alone. */
  conflict(kind: Conflict['kind'], message: string, remedy: string, shells: readonly string[] = []): Conflict {
    return { stations: [this.station.id], shells, kind, message, remedy };
  }

  /** A pair as sentences call it, and its ids. */
  pairOf({ pair }: NearPair): { upper: string; lower: string; ids: readonly string[] } {
    const [upper, lower] = [this.model.shells[pair.upper]!, this.model.shells[pair.lower]!];
    return { upper: upper.name, lower: lower.name, ids: [...new Set([upper.id, lower.id])] };
  }

  /** The pair nearest to the target, in limits or not; null where no two shells go there. */
  nearest(rules: ModelRules, wish: typeof this.wish, keepsEndPlay: boolean): NearPair | null {
    return nearestPair(this.model, this.at, { rules, shells: this.shells, wish, keepsEndPlay });
  }

  /** A pair within the limits; null where there is none. */
  inside(rules: ModelRules, wish: typeof this.wish): NearPair | null {
    const near = this.nearest(rules, wish, true);
    return near?.miss === 0 ? near : null;
  }

  /** The limits that the readings of the first housing leave. */
  get within(): { readonly low: number; readonly high: number } {
    return limitsWith(this.station, this.model.housings[this.housings[0]!]!);
  }

  /** The limits of the station, in words. */
  get limits(): string {
    return `${this.length(this.station.low)} to ${this.length(this.station.high)}`;
  }

  /** The walls that would bring the station within its limits, in words. */
  get walls(): string {
    const { model, station, within } = this;
    const ofFamily = this.shells.filter(({ family }) => family === station.family);
    const series = [...new Set(ofFamily.map((shell) => shell.series))];
    const offset = offsetOfPair(station, series.length === 1 ? series[0]! : null);
    const gap = model.housings[this.housings[0]!]!.bore - station.journal + offset;
    return `walls that sum to ${this.length(gap - within.high)} to ${this.length(gap - within.low)}`;
  }

  /** The limits of the end play and the width over the flanges that keeps them, in words; null where none is asked of the shells. */
  get endPlay(): { readonly limits: string; readonly width: string } | null {
    const { endPlay } = this.station;
    if (endPlay === null) return null;
    const { low, high, free } = endPlay;
    return {
      limits: `${this.length(low)} to ${this.length(high)}`,
      width: `${this.length(free - high)} to ${this.length(free - low)} over`,
    };
  }

  /** The position that shells have to fit, in words. */
  get position(): string {
    return this.station.position === '' ? '' : ` that fit ${this.station.position}`;
  }

  /** What would do, as a sentence. */
  wouldDo(text: string): string {
    const where = this.housings.length > 1 ? ` in ${this.model.housings[this.housings[0]!]!.name}` : '';
    return `${text[0]!.toUpperCase()}${text.slice(1)} would do${where}.`;
  }
}

/** A reason why nothing serves a station; null where it is another. */
type Reason = (lonely: LonelyStation) => Conflict | null;

const noHousing: Reason = (lonely) => {
  const { name } = lonely.station;
  if (lonely.housings.length > 0) return null;
  return lonely.conflict(
    'matching',
    `${name} has no housing: none is fixed to it, and none of its engine and family is free.`,
    `Add the housing of ${name} with its bore.`,
  );
};

const locks: Reason = (lonely) => {
  const { model, at, wish } = lonely;
  const { name } = lonely.station;
  if (wish === undefined) return null;
  const free = stationOptions({ ...model, wishes: new Map([...model.wishes].filter(([other]) => other !== at)) });
  if (free.count(at) === 0) return null;
  return lonely.conflict(
    'rules',
    `The locks and exclusions at ${name} leave no pair in limits.`,
    `Remove locks and exclusions at ${name}.`,
  );
};

const outOfStock: Reason = (lonely) => {
  const near = lonely.inside(lonely.model.rules, lonely.wish);
  if (!near) return null;
  const { upper, lower, ids } = lonely.pairOf(near);
  return lonely.conflict(
    'stock-short',
    `${lonely.station.name} could only be fitted with shells that are out of stock, as ${upper} over ${lower}.`,
    `With ${upper} and ${lower} on hand the clearance would be ${lonely.length(near.clearance)}.`,
    ids,
  );
};

const rulesOfPairs: Reason = (lonely) => {
  const near = lonely.inside(openRules(lonely.model.rules), lonely.wish);
  if (!near) return null;
  const { upper, lower, ids } = lonely.pairOf(near);
  return lonely.conflict(
    'rules',
    `${lonely.station.name} has no pair inside its limits that the rules allow.`,
    `${upper} over ${lower} would give ${lonely.length(near.clearance)}, but the rules on mixed pairs, wall step, thinner side or series exclude it.`,
    ids,
  );
};

const locksAndRules: Reason = (lonely) => {
  const near = lonely.wish === undefined ? null : lonely.inside(openRules(lonely.model.rules), undefined);
  if (!near) return null;
  const { upper, lower, ids } = lonely.pairOf(near);
  const { name } = lonely.station;
  return lonely.conflict(
    'rules',
    `${name} has no pair in limits with the locks and exclusions there.`,
    `${upper} over ${lower} would give ${lonely.length(near.clearance)}, but the locks and exclusions at ${name}, the rules or the stock exclude it.`,
    ids,
  );
};

const readingsTooFarApart: Reason = (lonely) => {
  const { within, limits, model, housings, station } = lonely;
  if (within.low <= within.high) return null;
  return lonely.conflict(
    'no-pair-in-range',
    `${station.name} and ${model.housings[housings[0]!]!.name} are too far out of round or tapered: their readings spread further than the limits ${limits} are apart.`,
    'Measure again. If the sizes are right, no shell will fit.',
  );
};

const noShells: Reason = (lonely) => {
  const { station, position } = lonely;
  if (lonely.nearest(openRules(lonely.model.rules), undefined, false) !== null) return null;
  return lonely.conflict(
    'no-pair-in-range',
    `No ${station.family} shells, upper and lower, for ${station.name}${position}.`,
    lonely.wouldDo(lonely.walls),
  );
};

const endPlayMissed: Reason = (lonely) => {
  const { model, at, station, endPlay, shells, position } = lonely;
  if (endPlay === null || station.endPlay === null) return null;
  const rules = openRules(model.rules);
  const isServed = lonely.nearest(rules, undefined, false)!.miss === 0;
  const flanges = nearestFlanges(model, at, { rules, shells, wish: undefined });
  const wide = `a pair ${endPlay.width} its flanges`;
  const both = lonely.wouldDo(`${wide}, with ${lonely.walls},`);
  const wanted = isServed ? lonely.wouldDo(wide) : both;
  if (flanges === null) {
    return lonely.conflict(
      'no-pair-in-range',
      `${station.name} needs a flanged pair for its end play of ${endPlay.limits}, and no shell${position} has flanges.`,
      wanted,
    );
  }
  const { upper, lower, ids } = lonely.pairOf(flanges.near);
  if (flanges.endPlay < station.endPlay.low || flanges.endPlay > station.endPlay.high) {
    const { clearance, miss } = flanges.near;
    const side = miss < 0 ? 'too tight' : 'too loose';
    const off = lonely.length(Math.abs(miss));
    const also = miss === 0 ? '' : ` Its oil clearance of ${lonely.length(clearance)} would be ${off} ${side} as well.`;
    return lonely.conflict(
      'no-pair-in-range',
      `${station.name}: no pair gives an end play of ${endPlay.limits}; the nearest, ${upper} over ${lower}, gives ${lonely.length(flanges.endPlay)}.${also}`,
      wanted,
      ids,
    );
  }
  if (!isServed) return null;
  return lonely.conflict(
    'no-pair-in-range',
    `${station.name} fits its oil clearance, but no such pair gives an end play of ${endPlay.limits}.`,
    both,
    ids,
  );
};

/** No reason but the walls that there are: the nearest pair, and how far off it is. */
function outOfRange(lonely: LonelyStation): Conflict {
  const { model, station, endPlay, limits } = lonely;
  const rules = openRules(model.rules);
  const nearest = lonely.nearest(rules, undefined, true) ?? lonely.nearest(rules, undefined, false)!;
  const { upper, lower, ids } = lonely.pairOf(nearest);
  const side = nearest.miss < 0 ? 'too tight' : 'too loose';
  const kept = endPlay === null ? '' : ` of those with an end play of ${endPlay.limits}`;
  const off = lonely.length(Math.abs(nearest.miss));
  return {
    ...lonely.conflict(
      'no-pair-in-range',
      `${station.name}: the nearest pair${kept}, ${upper} over ${lower}, gives ${lonely.length(nearest.clearance)}, ${off} ${side} (limits ${limits}).`,
      lonely.wouldDo(endPlay === null ? lonely.walls : `${lonely.walls}, ${endPlay.width} the flanges,`),
      ids,
    ),
    nearest: {
      housing: model.housings[nearest.housing]!.id,
      upper: model.shells[nearest.pair.upper]!.id,
      lower: model.shells[nearest.pair.lower]!.id,
      clearance: nanometres(nearest.clearance),
      low: station.low,
      high: station.high,
      by: nanometres(nearest.miss),
    },
  };
}

/** In the order that they are looked for: the first one that holds is told. */
const REASONS: readonly Reason[] = [
  noHousing,
  locks,
  outOfStock,
  rulesOfPairs,
  locksAndRules,
  readingsTooFarApart,
  noShells,
  endPlayMissed,
];

/**
 * Why a station is served by no housing and pair, whatever the others take: no housing, a wish, none in stock, a rule, or no pair in
 * range.
 *
 * @param at a station without options
 */
export function lonelyConflict(model: FitModel, at: number, unit: Unit): Conflict {
  const lonely = new LonelyStation(model, at, unit);
  for (const reason of REASONS) {
    const conflict = reason(lonely);
    if (conflict) return conflict;
  }
  return outOfRange(lonely);
}
