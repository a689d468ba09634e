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
  readonly bores: readonly SizeBand[];
  readonly journals: readonly SizeBand[];
}

/**
 * Engines drawn from bands, each size evenly over its band and on its own, and put to the exact search. What was found once is kept:
 * a shelf that holds the halves of a known choice needs no search.
 */
export class DrawnEngines {
  readonly engines: DrawnEngine[] = [];
  /** How many halves of each shell the question says there are; Infinity for as many as wanted. */
  readonly stock: readonly number[];
  private readonly families: readonly FamilyBase[];
  private readonly limits: ChoiceLimits;

  constructor({ unit, stations, freeRods, shells, rules }: KitQuestion, limits: ChoiceLimits = {}) {
    const { onProgress: _, ...quiet } = limits;
    this.limits = quiet;
    const length = (value: number) => lengthOfNumber(value, unit);
    const band = ({ low, high }: { low: number; high: number }): SizeBand => ({ low: length(low), high: length(high) });
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
      return [{ model, bores: own.map(({ bore }) => band(bore)), journals: own.map(({ journal }) => band(journal)) }];
    });
  }

  /** Draws one more engine. @param random numbers in [0, 1) */
  draw(random: () => number): DrawnEngine {
    const drawn = ({ low, high }: SizeBand) => nanometres(Math.round(low + random() * (high - low)));
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
