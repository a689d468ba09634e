import { problemRules, problemShell } from '../fit/format/problemOfRequest.js';
import { leastChoice } from '../fit/joint/leastChoice.js';
import type { ChoiceProblem } from '../fit/model/choice.js';
import { choiceProblem } from '../fit/model/choiceProblem.js';
import { type FitModel, fitModelOf } from '../fit/model/fitModel.js';
import { stationOptions } from '../fit/model/stationOptions.js';
import type { ChoiceLimits } from '../fit/search/choiceLimits.js';
import { greedyPlan } from '../fit/search/greedyPlan.js';
import { lengthOfNumber } from '../measure/lengthOfNumber.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { SizeBand } from '../measure/sizeBand.js';
import { FAMILIES, FAMILY_TABLE } from '../part/family.js';
import { drawnShares, type Seen } from './bandShares.js';
import type { KitQuestion } from './kitQuestion.js';

/** The mains, or the rods, of one engine drawn from its bands. */
interface DrawnPart {
  readonly bores: readonly Nanometres[];
  readonly journals: readonly Nanometres[];
  /** Choices that were found to work: halves taken of each shell. Whatever shelf holds one of them fits this part. */
  readonly known: Uint16Array[];
  /** True if it fitted nothing, with as many halves of every grade as it likes. */
  isHopeless: boolean;
}

/** One engine drawn from its bands: mains and rods share no halves, so each is known on its own. */
export type DrawnEngine = readonly DrawnPart[];

/** What one family is drawn from and fitted with. */
interface FamilyBase {
  readonly model: FitModel;
  readonly bores: readonly Drawable[];
  readonly journals: readonly Drawable[];
}

/** What a size is drawn from: a band, evenly; or the bands of a list of what was seen, by its name. */
interface Drawable {
  readonly band: SizeBand;
  readonly seen: string | null;
}

/** A band with how often it was seen. */
interface SeenBand extends Seen {
  readonly band: SizeBand;
}

/**
 * Engines drawn from bands, and put to the exact search: each size evenly over its band and on its own; or, where it was told how often bands were
 * seen, first a band, by shares that are drawn anew for each engine from what is known of them. What was found once is kept:
 * a shelf that holds the halves of a known choice needs no search.
 */
export class DrawnEngines {
  readonly engines: DrawnEngine[] = [];
  /** How many halves of each shell the question says there are; Infinity for as many as wanted. */
  readonly stock: readonly number[];
  private readonly families: readonly FamilyBase[];
  private readonly limits: ChoiceLimits;
  private readonly seen: readonly (readonly [name: string, bands: readonly SeenBand[]])[];

  constructor({ unit, stations, freeRods, shells, rules, seen }: KitQuestion, limits: ChoiceLimits = {}) {
    const { onProgress: _, ...quiet } = limits;
    this.limits = quiet;
    const length = (value: number) => lengthOfNumber(value, unit);
    const band = ({ low, high }: { low: number; high: number }): SizeBand => ({ low: length(low), high: length(high) });
    this.seen = Object.entries(seen).map(([name, bands]) => [
      name,
      bands.map(({ count, ...one }, at) => ({ key: String(at), count, band: band(one) })),
    ]);
    this.stock = shells.map(({ stock }) => stock ?? Number.POSITIVE_INFINITY);
    this.families = FAMILIES.flatMap((name): FamilyBase[] => {
      const own = stations.filter(({ family }) => family === name);
      if (own.length === 0) return [];
      const model = fitModelOf({
        unit,
        stations: own.map(({ id, journal, journalReadings, aim, low, high, position, inSpread }) => ({
          id,
          name: id,
          engine: '',
          family: name,
          journal: length(journal.high),
          journalReadings: journalReadings && band(journalReadings),
          aim: length(aim),
          low: length(low),
          high: length(high),
          offset: nanometres(0),
          offsets: [],
          position,
          inSpread,
        })),
        housings: own.map(({ id, bore, boreReadings, fixed }) => ({
          id,
          name: id,
          engine: '',
          family: name,
          bore: length(bore.high),
          boreReadings: boreReadings && band(boreReadings),
          station: FAMILY_TABLE[name].housingsMove && freeRods && !fixed ? null : id,
        })),
        shells: shells.map((shell) => problemShell(shell, unit)),
        rules: problemRules(rules, unit),
        wishes: { hold: [], forbid: [] },
      });
      return [
        {
          model,
          bores: own.map(({ bore, boreSeen = null }) => ({ band: band(bore), seen: boreSeen })),
          journals: own.map(({ journal, journalSeen = null }) => ({ band: band(journal), seen: journalSeen })),
        },
      ];
    });
  }

  /** Draws one more engine. @param random numbers in [0, 1) */
  draw(random: () => number): DrawnEngine {
    const evenly = ({ low, high }: SizeBand) => nanometres(Math.round(low + random() * (high - low)));
    const shares = new Map(this.seen.map(([name, bands]) => [name, { bands, shares: drawnShares(bands, random) }]));
    const drawn = ({ band, seen }: Drawable) => {
      const known = seen === null ? undefined : shares.get(seen);
      if (!known) return evenly(band);
      let left = random();
      const at = known.shares.findIndex((share) => {
        left -= share;
        return left < 0;
      });
      return evenly(known.bands[at < 0 ? known.bands.length - 1 : at]!.band);
    };
    const engine = this.families.map(
      ({ bores, journals }): DrawnPart => ({
        journals: journals.map(drawn),
        bores: bores.map(drawn),
        known: [],
        isHopeless: false,
      }),
    );
    this.engines.push(engine);
    return engine;
  }

  /** True if an engine can be fitted from a shelf with so many halves of each shell; false too where the limits ended the search. */
  fits(engine: DrawnEngine, shelf: readonly number[]): boolean {
    return engine.every((part, at) => this.partFits(part, this.families[at]!.model, shelf));
  }

  private partFits(part: DrawnPart, base: FitModel, shelf: readonly number[]): boolean {
    if (part.isHopeless) return false;
    if (part.known.some((taken) => taken.every((count, shell) => count <= shelf[shell]!))) return true;
    if (isTooFew(base, shelf)) return false;
    const model: FitModel = {
      ...base,
      stations: base.stations.map((station, at) => ({ ...station, journal: part.journals[at]! })),
      housings: base.housings.map((housing, at) => ({ ...housing, bore: part.bores[at]! })),
      shells: base.shells.map((shell, at) => ({ ...shell, stock: shelf[at]! })),
    };
    const options = stationOptions(model);
    const problem = choiceProblem(model, options);
    const isOpen = shelf.every((count) => count === Number.POSITIVE_INFINITY);
    // What an engine takes by itself is what suits it best; from a shelf that is given, any choice that works will do.
    const chosen = (isOpen ? null : greedyPlan(problem)?.chosen) ?? this.searched(problem, isOpen);
    if (chosen === 'infeasible' || chosen === 'stopped') {
      if (isOpen && chosen === 'infeasible') part.isHopeless = true;
      return false;
    }
    const taken = new Uint16Array(base.shells.length);
    chosen.forEach((option, station) => {
      const { upper, lower } = options.at(station, option);
      taken[upper]! += 1;
      taken[lower]! += 1;
    });
    part.known.push(taken);
    return true;
  }

  /** A choice found by the exact search, the best one or any one. */
  private searched(problem: ChoiceProblem, isBest: boolean): Int32Array | 'infeasible' | 'stopped' {
    const cost = isBest ? problem.cost : new Float64Array(problem.cost.length);
    const answer = leastChoice({ ...problem, cost }, this.limits);
    return 'chosen' in answer ? answer.chosen : answer.status;
  }
}

/** True if a shelf has fewer halves than a family has stations, whatever their walls. */
function isTooFew({ shells, stations }: FitModel, shelf: readonly number[]): boolean {
  const [station] = stations;
  const held = (side: 'upper' | 'lower' | 'any') =>
    shells.reduce((sum, shell, at) => {
      const isSide = side === 'any' || shell.half === side || shell.half === 'either';
      return shell.family === station!.family && isSide ? sum + shelf[at]! : sum;
    }, 0);
  const wanted = stations.length;
  return held('upper') < wanted || held('lower') < wanted || held('any') < 2 * wanted;
}
