import { lengthText } from '../../measure/lengthText.js';
import type { Unit } from '../../measure/unit.js';
import { choiceProblem, KEEP_ALL, type Kept } from '../model/choiceProblem.js';
import type { FitModel } from '../model/fitModel.js';
import type { Conflict } from '../model/fitSolution.js';
import { type StationOptions, stationOptions } from '../model/stationOptions.js';
import { overdrawnGroup } from '../search/overdrawnGroup.js';
import { type FitQuestions, withoutStock } from './FitQuestions.js';
import { fewestHalves } from './fewestHalves.js';
import { joined } from './joined.js';
import { leastSpreads } from './leastSpreads.js';

/** A conflict of more stations than this is not tried without each of them. */
const TRIED_ONE_BY_ONE = 24;

const WITHOUT_STOCK: Kept = { ...KEEP_ALL, stock: false };
const WITHOUT_SPREAD: Kept = { ...KEEP_ALL, spread: false };
const HOUSINGS_ONLY: Kept = { stock: false, housings: true, spread: false };

/** What is said where the budget ended first, unless a remedy is found after all. */
export const NOT_FOUND = 'Out of time: the shells to get were not worked out.';

/** A group of stations that do not fit together. */
interface Group {
  readonly stations: readonly number[];
  /** True if the rest fits without any one of them, as was shown. */
  readonly isMinimal: boolean;
}

/** Explains one model's failure in the problem's unit. */
export class Explainer {
  private readonly model: FitModel;
  private readonly options: StationOptions;
  private readonly unit: Unit;
  private readonly questions: FitQuestions;
  private anyStock: StationOptions | undefined;

  constructor(model: FitModel, options: StationOptions, unit: Unit, questions: FitQuestions) {
    this.questions = questions;
    this.model = model;
    this.options = options;
    this.unit = unit;
  }

  private get all(): number[] {
    return this.model.stations.map((_, at) => at);
  }

  /** Some stations as sentences call them. */
  private named(stations: readonly number[]): string {
    return joined(stations.map((station) => this.model.stations[station]!.name));
  }

  /** The options of a question: where stock is left aside, those with halves that are out of stock too. */
  private optionsOf(kept: Kept): StationOptions {
    if (kept.stock) return this.options;
    this.anyStock ??= stationOptions(withoutStock(this.model));
    return this.anyStock;
  }

  private fits(stations: readonly number[], kept: Kept) {
    return this.questions.fits(this.model, stations, kept, this.optionsOf(kept));
  }

  /**
   * Stations that compete for too few of one kind of resource alone (uppers, lowers or housings), whatever they take of the
   * others; null when each kind could be shared out.
   */
  private shortOfOneKind(stations: readonly number[], kept: Kept): number[] | null {
    const options = this.optionsOf(kept);
    const { capacity } = choiceProblem(this.model, options, kept);
    for (const use of options.use) {
      const accepts = stations.map(
        (station) => new Set(use.subarray(options.start[station]!, options.start[station + 1]!)),
      );
      const group = overdrawnGroup(accepts, capacity);
      if (group !== null) return group.map((at) => stations[at]!);
    }
    return null;
  }

  /** Drops stations while the rest still does not fit, in lumps first, then one at a time: what is left needs every one of them. */
  private smallest(candidates: readonly number[], kept: Kept): Group {
    const short = this.shortOfOneKind(candidates, kept);
    // Short of one kind, it is smallest as far as that kind goes. Few stations are tried with all that couples them as well.
    if (short !== null && short.length > TRIED_ONE_BY_ONE) return { stations: short, isMinimal: true };
    let group = [...(short ?? candidates)];
    let isMinimal = true;
    for (let lump = group.length >> 1; lump >= 1; lump >>= 1) {
      for (let from = 0; from < group.length; ) {
        const without = [...group.slice(0, from), ...group.slice(from + lump)];
        const rest = without.length === 0 ? 'yes' : this.fits(without, kept);
        if (rest === 'no') {
          group = without;
          continue;
        }
        if (rest === 'unknown' && lump === 1) isMinimal = false;
        from += lump;
      }
    }
    return { stations: group, isMinimal };
  }

  private base(
    kind: Conflict['kind'],
    { stations, isMinimal }: Group,
  ): Pick<Conflict, 'kind' | 'stations' | 'minimal'> {
    return { kind, stations: stations.map((station) => this.model.stations[station]!.id), minimal: isMinimal };
  }

  private doubt({ isMinimal }: Group): string {
    return isMinimal ? '' : ' (not shown to be the smallest such group)';
  }

  private counts(missing: ReadonlyMap<number, number>): { id: string; count: number }[] {
    return [...missing].map(([shell, count]) => ({ id: this.model.shells[shell]!.id, count }));
  }

  private halves(missing: ReadonlyMap<number, number>): string {
    return joined([...missing].map(([shell, count]) => `${count} × ${this.model.shells[shell]!.name}`));
  }

  /** Stations of `candidates` that compete for too few halves. */
  private stockShort(candidates: readonly number[], kept: Kept): Conflict {
    const group = this.smallest(candidates, kept);
    const { stations } = group;
    const names = this.named(stations);
    const missing = fewestHalves(this.questions, this.model, stations, kept);
    const count = [...(missing?.values() ?? [])].reduce((sum, next) => sum + next, 0);
    const few = missing === null ? '' : `: ${count} ${count === 1 ? 'is' : 'are'} missing (${this.halves(missing)})`;
    const contested = new Set<number>();
    for (const station of stations) {
      for (const use of [this.options.use[0], this.options.use[1]]) {
        for (const shell of use.subarray(this.options.start[station]!, this.options.start[station + 1]!))
          contested.add(shell);
      }
    }
    return {
      ...this.base('stock-short', group),
      shells: [...contested]
        .filter((shell) => this.model.shells[shell]!.stock < 2 * stations.length)
        .sort((a, b) => a - b)
        .map((shell) => this.model.shells[shell]!.id),
      ...(missing === null ? {} : { missing: this.counts(missing) }),
      message: `Too few shells for ${names}${few}${this.doubt(group)}.`,
      remedy: this.purchase(stations, missing, kept),
    };
  }

  /** What to get, told of everything where it was solved for everything. */
  private purchase(group: readonly number[], missing: ReadonlyMap<number, number> | null, kept: Kept): string {
    const { questions, model, all } = this;
    const everything = fewestHalves(questions, model, all, KEEP_ALL);
    if (everything !== null) return `Fewest shells to get so that everything fits: ${this.halves(everything)}.`;
    if (missing === null) return NOT_FOUND;
    const aside = kept.spread ? '' : ', apart from the spread limit';
    return `Fewest shells to get so that ${this.named(group)} fit${aside}: ${this.halves(missing)}.`;
  }

  private matching(candidates: readonly number[]): Conflict {
    const group = this.smallest(candidates, HOUSINGS_ONLY);
    const options = this.optionsOf(HOUSINGS_ONLY);
    const housings = new Set(group.stations.flatMap((station) => options.of(station).map(({ housing }) => housing)));
    const fitting = [...housings].sort((a, b) => a - b).map((housing) => this.model.housings[housing]!);
    const names = joined(fitting.map(({ name }) => name));
    return {
      ...this.base('matching', group),
      shells: [],
      housings: fitting.map(({ id }) => id),
      message: `${this.named(group.stations)} need ${group.stations.length} housings, but ${
        fitting.length < group.stations.length
          ? `only ${names} can fit any of them`
          : `${names} cannot be shared out so that each has one it can take`
      }${this.doubt(group)}.`,
      remedy: 'Add a housing that fits one of them, or shells with other walls.',
    };
  }

  private spread(candidates: readonly number[], kept: Kept): Conflict {
    const { model, questions } = this;
    const group = this.smallest(candidates, kept);
    const { family } = model.stations[group.stations[0]!]!;
    const limit = lengthText(model.rules.maxSpread[family]!, this.unit);
    const whole = leastSpreads(questions, model, this.all, KEEP_ALL, [family]);
    const apart = whole ?? leastSpreads(questions, model, group.stations, kept, [family]);
    const aside = kept.stock ? '' : ', with unlimited stock';
    const width = apart?.get(family);
    return {
      ...this.base('spread', group),
      shells: [],
      spread: {
        family,
        limit: model.rules.maxSpread[family]!,
        least: width ?? null,
      },
      message: `${this.named(group.stations)} fit singly, but not within ${limit} of each other${this.doubt(group)}.`,
      remedy:
        width === undefined
          ? 'Other walls in stock would bring them closer together.'
          : `A spread limit of ${lengthText(width, this.unit)} would work ${whole ? 'with the shells on hand' : `for these${aside}`}.`,
    };
  }

  /** All stations have options, but not together. */
  together(stations: readonly number[]): Conflict[] {
    if (this.fits(stations, HOUSINGS_ONLY) === 'no') return [this.matching(stations)];
    const [withoutStock, withoutSpread] = [this.fits(stations, WITHOUT_STOCK), this.fits(stations, WITHOUT_SPREAD)];
    if (withoutStock === 'yes') return [this.stockShort(stations, KEEP_ALL)];
    if (withoutSpread === 'yes') return [this.spread(stations, KEEP_ALL)];
    // Too few halves and too wide a spread at once: each is explained with the other one dropped.
    const conflicts: Conflict[] = [];
    if (withoutSpread === 'no') conflicts.push(this.stockShort(stations, WITHOUT_SPREAD));
    if (withoutStock === 'no') conflicts.push(this.spread(stations, WITHOUT_STOCK));
    return conflicts.length > 0 ? conflicts : [this.stockShort(stations, KEEP_ALL)];
  }
}
