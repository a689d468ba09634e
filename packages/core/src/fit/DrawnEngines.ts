import { lengthOfNumber } from '../measure/lengthOfNumber.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { choiceProblem } from './choiceProblem.js';
import { type FitModel, fitModelOf } from './fitModel.js';
import { fitRequestSchema } from './fitRequest.js';
import type { IntegerSolver } from './integerSolver.js';
import type { KitQuestion } from './kitQuestion.js';
import { leastChoice } from './leastChoice.js';
import { stationOptions } from './stationOptions.js';

/** One engine drawn from its bands. */
interface DrawnEngine {
  readonly bores: readonly Nanometres[];
  readonly journals: readonly Nanometres[];
  /** Choices that were found to work: halves taken of each shell. Whatever shelf holds one of them fits the engine. */
  readonly known: Uint16Array[];
  /** Whether it fitted nothing, with as many halves of every grade as it likes. */
  isHopeless: boolean;
}

/**
 * Engines drawn from bands, each size evenly over its band and on its own, and put to the exact search. What was found once is kept:
 * a shelf that holds the halves of a known choice needs no search.
 */
export class DrawnEngines {
  readonly engines: DrawnEngine[] = [];
  private readonly base: FitModel;
  private readonly bands: readonly {
    readonly bore: readonly [number, number];
    readonly journal: readonly [number, number];
  }[];
  private readonly solver: IntegerSolver | null;

  constructor(question: KitQuestion, solver: IntegerSolver | null = null) {
    const { unit, stations, freeRods, shells, rules } = question;
    this.solver = solver;
    this.base = fitModelOf(
      fitRequestSchema.parse({
        format: 'fettle.fit-request/1',
        unit,
        stations: stations.map(({ id, family, journal, aim, low, high }) => ({
          id,
          family,
          journal: journal.high,
          aim,
          low,
          high,
        })),
        housings: stations.map(({ id, family, bore, fixed }) => ({
          id,
          family,
          bore: bore.high,
          station: family === 'rod' && freeRods && !fixed ? null : id,
        })),
        shells,
        rules,
      }),
    );
    const ends = ({ low, high }: { low: number; high: number }) =>
      [lengthOfNumber(low, unit), lengthOfNumber(high, unit)] as const;
    this.bands = stations.map(({ bore, journal }) => ({ bore: ends(bore), journal: ends(journal) }));
  }

  /** How many halves of each shell the question says there are; Infinity for as many as wanted. */
  get stock(): number[] {
    return this.base.shells.map(({ stock }) => stock);
  }

  get shells(): FitModel['shells'] {
    return this.base.shells;
  }

  /** Draws one more engine. @param random numbers in [0, 1) */
  draw(random: () => number): DrawnEngine {
    const drawn = ([low, high]: readonly [number, number]) => nanometres(Math.round(low + random() * (high - low)));
    const sizes = this.bands.map(({ bore, journal }) => ({ journal: drawn(journal), bore: drawn(bore) }));
    const engine = {
      journals: sizes.map(({ journal }) => journal),
      bores: sizes.map(({ bore }) => bore),
      known: [],
      isHopeless: false,
    };
    this.engines.push(engine);
    return engine;
  }

  /** Whether a shelf has fewer halves than there are stations, whatever their walls. */
  private isTooFew(shelf: readonly number[]): boolean {
    const { shells, stations } = this.base;
    return (['main', 'rod'] as const).some((family) => {
      const wanted = stations.filter((station) => station.family === family).length;
      const held = (side: 'upper' | 'lower' | 'any') =>
        shells.reduce((sum, shell, at) => {
          const isSide = side === 'any' || shell.half === side || shell.half === 'either';
          return shell.family === family && isSide ? sum + shelf[at]! : sum;
        }, 0);
      return held('upper') < wanted || held('lower') < wanted || held('any') < 2 * wanted;
    });
  }

  /** Whether an engine can be fitted from a shelf with so many halves of each shell. */
  fits(engine: DrawnEngine, shelf: readonly number[]): boolean {
    if (engine.isHopeless) return false;
    if (engine.known.some((taken) => taken.every((count, shell) => count <= shelf[shell]!))) return true;
    if (this.isTooFew(shelf)) return false;
    const { base } = this;
    const model: FitModel = {
      ...base,
      stations: base.stations.map((station, at) => ({ ...station, journal: engine.journals[at]! })),
      housings: base.housings.map((housing, at) => ({ ...housing, bore: engine.bores[at]! })),
      shells: base.shells.map((shell, at) => ({ ...shell, stock: shelf[at]! })),
    };
    const options = stationOptions(model);
    const problem = choiceProblem(model, options);
    const isOpen = shelf.every((count) => count === Number.POSITIVE_INFINITY);
    // What an engine takes by itself is what suits it best; from a shelf that is given, any choice that works will do.
    const answer = leastChoice(isOpen ? problem : { ...problem, cost: new Float64Array(problem.cost.length) }, {
      solver: this.solver,
    });
    if (answer.status === 'infeasible') {
      if (isOpen) engine.isHopeless = true;
      return false;
    }
    const taken = new Uint16Array(base.shells.length);
    answer.chosen.forEach((option, station) => {
      const { upper, lower } = options.at(station, option);
      taken[upper]! += 1;
      taken[lower]! += 1;
    });
    engine.known.push(taken);
    return true;
  }
}
