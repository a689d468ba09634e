import { FAMILIES } from '../part/family.js';
import type { FitPlan } from './format/fitPlan.js';
import type { FitRequest } from './format/fitRequest.js';

/** Nanometres in one unit of a request's lengths, by the definition of the inch. */
const NM_PER_UNIT = { mm: 1_000_000n, in: 25_400_000n } as const;

/** The largest wall step where the request does not say: 0.013 mm, in nanometres, whatever the unit. */
const USUAL_STEP = 13_000n;

/** A written number as digits and a power of ten: `1.5e-3` as 15 · 10⁻⁴. */
function decimal(value: number): { digits: bigint; power: number } {
  const [mantissa = '0', exponent = '0'] = String(Math.abs(value)).split('e');
  const [whole = '0', fraction = ''] = mantissa.split('.');
  const digits = BigInt(whole + fraction);
  return { digits: value < 0 ? -digits : digits, power: Number(exponent) - fraction.length };
}

/** A written number times a whole factor, to the nearest whole one, halves away from zero. */
function times(value: number, factor: bigint): bigint {
  const { digits, power } = decimal(value);
  if (power >= 0) return digits * factor * 10n ** BigInt(power);
  const divisor = 10n ** BigInt(-power);
  const product = digits * factor;
  const half = product < 0n ? -divisor / 2n : divisor / 2n;
  return (product + half) / divisor;
}

/** One station of a plan with what it takes, as the request describes it. */
interface Served {
  readonly station: FitRequest['stations'][number];
  readonly housing: FitRequest['housings'][number];
  readonly upper: FitRequest['shells'][number];
  readonly lower: FitRequest['shells'][number];
  readonly stated: FitPlan['stations'][number];
}

/** Re-checks one plan; lengths are whole nanometres, costs whole millionths of a µm². */
class Recheck {
  private readonly request: FitRequest;
  private readonly plan: FitPlan;
  private readonly faults: string[] = [];

  constructor(request: FitRequest, plan: FitPlan) {
    this.request = request;
    this.plan = plan;
  }

  run(): string[] {
    const served = this.served();
    for (const one of served) {
      this.checkHousing(one);
      this.checkClearance(one);
      this.checkHalves(one);
      this.checkEndPlay(one);
      this.checkWishes(one);
    }
    this.checkStock(served);
    this.checkSpread(served);
    this.checkCost(served);
    return this.faults;
  }

  private length(value: number): bigint {
    return times(value, NM_PER_UNIT[this.request.unit]);
  }

  private served(): Served[] {
    const { request, plan, faults } = this;
    if (new Set(plan.stations.map(({ id }) => id)).size !== plan.stations.length) {
      faults.push('a station is planned twice');
    }
    for (const { id } of plan.stations) {
      if (!request.stations.some((station) => station.id === id)) faults.push(`${id} is not in the request`);
    }
    const taken = new Map<string, string>();
    return request.stations.flatMap((station) => {
      const stated = plan.stations.find(({ id }) => id === station.id);
      const housing = request.housings.find(({ id }) => id === stated?.housing);
      const upper = request.shells.find(({ id }) => id === stated?.upper);
      const lower = request.shells.find(({ id }) => id === stated?.lower);
      if (!stated || !housing || !upper || !lower) {
        faults.push(`${station.id} lacks a housing or a shell`);
        return [];
      }
      const other = taken.get(housing.id);
      if (other !== undefined) faults.push(`${housing.id} is used at ${other} and ${station.id}`);
      taken.set(housing.id, station.id);
      return [{ station, housing, upper, lower, stated }];
    });
  }

  private checkHousing({ station, housing }: Served): void {
    const { request, faults } = this;
    if (housing.engine !== station.engine || housing.family !== station.family) {
      faults.push(`${housing.id} is not for ${station.id}`);
    }
    if (housing.station !== null && housing.station !== station.id) {
      faults.push(`${housing.id} belongs to ${housing.station}`);
    }
    const own = request.housings.find((one) => one.station === station.id);
    if (own && own.id !== housing.id) faults.push(`${station.id} must take ${own.id}`);
  }

  private clearance({ station, housing, upper, lower }: Served): bigint {
    const [bore, journal] = [this.length(housing.bore), this.length(station.journal)];
    const own = station.offsets.find(({ series }) => series === upper.series && series === lower.series);
    const offset = this.length(own?.offset ?? station.offset);
    return bore - journal - this.length(upper.wall) - this.length(lower.wall) + offset;
  }

  private deviation(one: Served): bigint {
    return this.clearance(one) - this.length(one.station.aim);
  }

  private checkClearance(one: Served): void {
    const { station, housing, stated } = one;
    const clearance = this.clearance(one);
    const mean = (size: number) => this.length(size);
    // Tightest: the smallest bore over the largest journal; loosest the other way round.
    const { boreReadings: bores } = housing;
    const { journalReadings: journals } = station;
    const tightest =
      clearance -
      (bores ? mean(housing.bore) - mean(bores.low) : 0n) -
      (journals ? mean(journals.high) - mean(station.journal) : 0n);
    const loosest =
      clearance +
      (bores ? mean(bores.high) - mean(housing.bore) : 0n) +
      (journals ? mean(station.journal) - mean(journals.low) : 0n);
    if (tightest < this.length(station.low) || loosest > this.length(station.high)) {
      this.faults.push(`${station.id} is outside its limits`);
    }
    if (this.length(stated.clearance) !== clearance) this.faults.push(`${station.id} states a wrong clearance`);
    if (this.length(stated.deviation) !== clearance - this.length(station.aim)) {
      this.faults.push(`${station.id} states a wrong deviation`);
    }
    const { known } = stated;
    if (known && !(known.tightest <= stated.clearance && stated.clearance <= known.loosest)) {
      this.faults.push(`${station.id} states a clearance outside what its bands allow`);
    }
  }

  /** End play with the halves of a station, in nm; null where its request has none. */
  private endPlay({ station, upper, lower }: Served): bigint | null {
    const asked = station.endPlay;
    if (!asked) return null;
    const widths = [upper, lower].map(({ width }) => (width === undefined ? 0n : this.length(width)));
    const [one = 0n, other = 0n] = widths;
    return this.length(asked.reading) + this.length(asked.fitted) - (one > other ? one : other);
  }

  private checkEndPlay(one: Served): void {
    const { station, upper, lower, stated } = one;
    const left = this.endPlay(one);
    if (left === null || !station.endPlay) return;
    if (upper.width === undefined && lower.width === undefined) this.faults.push(`${station.id} has no flange`);
    if (left < this.length(station.endPlay.low) || left > this.length(station.endPlay.high)) {
      this.faults.push(`${station.id} is outside its end play`);
    }
    if (stated.endPlay === undefined || this.length(stated.endPlay) !== left) {
      this.faults.push(`${station.id} states a wrong end play`);
    }
  }

  private isMixed({ upper, lower }: Served): boolean {
    return this.length(upper.wall) !== this.length(lower.wall);
  }

  private checkHalves(one: Served): void {
    const { station, upper, lower, stated } = one;
    const { rules } = this.request;
    const broken = (rule: string) => this.faults.push(`${station.id} breaks the ${rule} rule`);
    if (upper.family !== station.family || lower.family !== station.family) {
      this.faults.push(`${station.id} has shells of the other family`);
    }
    for (const { positions } of [upper, lower]) {
      if (positions !== undefined && !positions.includes(station.position)) {
        this.faults.push(`${station.id} has a shell that does not fit its position`);
        break;
      }
    }
    if (upper.half === 'lower' || lower.half === 'upper') broken('side');
    if (upper.undersize !== lower.undersize) broken('undersize');
    if (!rules.acrossSeries && upper.series !== lower.series) broken('series');
    const step = this.length(upper.wall) - this.length(lower.wall);
    const largest = rules.maxWallStep === undefined ? USUAL_STEP : this.length(rules.maxWallStep);
    if (step !== 0n && !rules.mixedHalves) broken('mixed');
    if (step > largest || -step > largest) broken('step');
    if ((rules.thinnerHalf === 'upper' && step > 0n) || (rules.thinnerHalf === 'lower' && step < 0n)) {
      broken('thinner-side');
    }
    if (stated.mixed !== this.isMixed(one)) this.faults.push(`${station.id} states mixed wrongly`);
  }

  private checkWishes(one: Served): void {
    const { station, housing, upper, lower } = one;
    const { hold, forbid } = this.request.wishes;
    const isKept = hold.every(
      (wish) =>
        wish.station !== station.id ||
        ((wish.housing ?? housing.id) === housing.id &&
          (wish.upper ?? upper.id) === upper.id &&
          (wish.lower ?? lower.id) === lower.id),
    );
    const isAllowed = forbid.every(
      (wish) =>
        wish.station !== station.id ||
        (wish.housing !== housing.id &&
          wish.shell !== upper.id &&
          wish.shell !== lower.id &&
          !(wish.mixed === true && this.isMixed(one))),
    );
    if (!isKept || !isAllowed) this.faults.push(`${station.id} breaks a lock or an exclusion`);
  }

  private checkStock(served: readonly Served[]): void {
    for (const { id, stock } of this.request.shells) {
      const count = served.flatMap(({ upper, lower }) => [upper.id, lower.id]).filter((used) => used === id).length;
      if (stock !== null && count > stock) this.faults.push(`${id} is used ${count} times with ${stock} on hand`);
      const stated = this.plan.shellsUsed.find((shell) => shell.id === id)?.count ?? 0;
      if (stated !== count) this.faults.push(`${id} is counted wrongly`);
    }
  }

  private checkSpread(served: readonly Served[]): void {
    const { maxSpread } = this.request.rules;
    for (const engine of new Set(served.map(({ station }) => station.engine))) {
      for (const family of FAMILIES) {
        const own = served.filter(
          ({ station }) => station.engine === engine && station.family === family && station.inSpread,
        );
        const limit = maxSpread[family];
        if (own.length === 0 || limit === null) continue;
        const deviations = own.map((one) => this.deviation(one)).sort((a, b) => (a < b ? -1 : a > b ? 1 : 0));
        if (deviations.at(-1)! - deviations[0]! > this.length(limit)) {
          this.faults.push(`${family} ${engine}`.trim().concat(' spreads too far'));
        }
      }
    }
  }

  /**
   * `Σ w·d² + mixed penalties + price penalties`: deviations in nm give squares in millionths of a µm²; a weighted square is rounded
   * to a whole one, as the penalties are.
   */
  private checkCost(served: readonly Served[]): void {
    const { tightWeight, mixedPenalty, pricePenalty } = this.request.rules;
    const whole = 1_000_000n;
    const cost = served.reduce((sum, one) => {
      const deviation = this.deviation(one);
      const square = times(deviation < 0n ? tightWeight : 1, deviation * deviation);
      const prices = [one.upper, one.lower].reduce(
        (all, { price }) => all + BigInt(Math.round(price * pricePenalty * 1e6)),
        0n,
      );
      const left = this.endPlay(one);
      const off = left === null ? 0n : left - this.length(one.station.endPlay!.aim);
      const weight = (one.station.endPlay?.weight ?? 0) * (off < 0n ? tightWeight : 1);
      const flanges = left === null ? 0n : times(weight, off * off);
      return sum + square + flanges + (this.isMixed(one) ? times(mixedPenalty, whole) : 0n) + prices;
    }, 0n);
    if (this.plan.cost === null || times(this.plan.cost, whole) !== cost) {
      this.faults.push('the stated cost does not add up');
    }
  }
}

/**
 * Checks a plan against its request from the rules of the format alone: every station served, each housing once, limits, halves, stock,
 * spread, wishes, and the stated clearances and cost. It shares no code with the search, nor with what turns a request into whole
 * nanometres: its arithmetic is on written decimals.
 *
 * @returns what is wrong with the plan, a sentence each; empty when it is allowed and adds up
 */
export function recheckPlan(request: FitRequest, plan: FitPlan): string[] {
  if (plan.status === 'infeasible' || plan.status === 'stopped') {
    return plan.stations.length > 0 ? [`a plan that is ${plan.status} has no stations`] : [];
  }
  return new Recheck(request, plan).run();
}
