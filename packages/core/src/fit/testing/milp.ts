import * as highsModule from 'highs';
import { lengthOfNumber } from '../../measure/lengthOfNumber.js';
import type { FitRequest } from '../format/fitRequest.js';

const load = highsModule.default as unknown as typeof highsModule.default.default;
let solver: Awaited<ReturnType<typeof load>> | null = null;

/** HiGHS, loaded once. */
export async function highs() {
  solver ??= await load();
  return solver;
}

/**
 * A fit request as a mixed-integer programme in LP format. It is written from the format's text on its own, sharing no
 * code with the search but the reading of lengths.
 *
 * @returns null when some station has no option at all
 */
export function programmeOf(request: FitRequest, asks: 'least cost' | 'fewest halves' = 'least cost'): string | null {
  const nm = (value: number) => lengthOfNumber(value, request.unit);
  const { rules } = request;
  const objective: string[] = [];
  const binaries: string[] = [];
  const rows: string[] = [];
  const byStation: string[][] = [];
  const byHousing = new Map<string, string[]>();
  const byShell = new Map<string, { name: string; count: number }[]>();
  const byGroup = new Map<string, { name: string; deviation: number; station: number }[]>();
  request.stations.forEach((station, at) => {
    const names: string[] = [];
    const fixed = request.housings.filter((housing) => housing.station === station.id);
    const housings =
      fixed.length > 0
        ? fixed
        : request.housings.filter(
            (housing) =>
              housing.station === null && housing.engine === station.engine && housing.family === station.family,
          );
    for (const housing of housings) {
      for (const upper of request.shells) {
        for (const lower of request.shells) {
          if (upper.family !== station.family || lower.family !== station.family) continue;
          if (upper.half === 'lower' || lower.half === 'upper') continue;
          if (upper.series !== lower.series && !rules.acrossSeries) continue;
          if (upper.undersize !== lower.undersize) continue;
          if ([upper, lower].some(({ positions }) => positions && !positions.includes(station.position))) continue;
          const difference = nm(upper.wall) - nm(lower.wall);
          if (Math.abs(difference) > (rules.maxWallStep === undefined ? 13_000 : nm(rules.maxWallStep))) continue;
          if (difference !== 0 && !rules.mixedHalves) continue;
          if (difference > 0 && rules.thinnerHalf === 'upper') continue;
          if (difference < 0 && rules.thinnerHalf === 'lower') continue;
          const chosen = { housing: housing.id, upper: upper.id, lower: lower.id };
          const isHeld = request.wishes.hold.every(
            (hold) =>
              hold.station !== station.id ||
              Object.entries(chosen).every(([field, id]) => (hold[field as keyof typeof chosen] ?? id) === id),
          );
          const isForbidden = request.wishes.forbid.some(
            (forbid) =>
              forbid.station === station.id &&
              (forbid.housing === housing.id ||
                forbid.shell === upper.id ||
                forbid.shell === lower.id ||
                (forbid.mixed === true && difference !== 0)),
          );
          if (!isHeld || isForbidden) continue;
          const own = station.offsets.filter(({ series }) => series === upper.series && series === lower.series);
          const offset = own.length > 0 ? own[0]!.offset : station.offset;
          const clearance = nm(housing.bore) - nm(station.journal) - nm(upper.wall) - nm(lower.wall) + nm(offset);
          const [bore, journal] = [housing.boreReadings, station.journalReadings];
          const tightest =
            clearance -
            (bore ? nm(housing.bore) - nm(bore.low) : 0) -
            (journal ? nm(journal.high) - nm(station.journal) : 0);
          const loosest =
            clearance +
            (bore ? nm(bore.high) - nm(housing.bore) : 0) +
            (journal ? nm(station.journal) - nm(journal.low) : 0);
          if (tightest < nm(station.low) || loosest > nm(station.high)) continue;
          const { endPlay } = station;
          let flanges = 0;
          if (endPlay) {
            const widths = [upper.width, lower.width].flatMap((width) => (width === undefined ? [] : [nm(width)]));
            const left = nm(endPlay.reading) + nm(endPlay.fitted) - Math.max(...widths);
            if (widths.length === 0 || left < nm(endPlay.low) || left > nm(endPlay.high)) continue;
            const off = (left - nm(endPlay.aim)) / 1000;
            flanges = endPlay.weight * (off < 0 ? rules.tightWeight : 1) * off ** 2;
          }
          const deviation = (clearance - nm(station.aim)) / 1000;
          const cost =
            (deviation < 0 ? rules.tightWeight : 1) * deviation ** 2 +
            (difference !== 0 ? rules.mixedPenalty : 0) +
            flanges +
            rules.pricePenalty * (upper.price + lower.price);
          const name = `x${binaries.length}`;
          binaries.push(name);
          names.push(name);
          if (cost !== 0) objective.push(`${cost} ${name}`);
          byHousing.set(housing.id, [...(byHousing.get(housing.id) ?? []), name]);
          for (const [shell, count] of upper === lower
            ? [[upper, 2] as const]
            : ([
                [upper, 1],
                [lower, 1],
              ] as const)) {
            byShell.set(shell.id, [...(byShell.get(shell.id) ?? []), { name, count }]);
          }
          const group = `${station.family}|${station.engine}`;
          if (!station.inSpread) continue;
          byGroup.set(group, [...(byGroup.get(group) ?? []), { name, deviation, station: at }]);
        }
      }
    }
    byStation.push(names);
  });
  if (byStation.some((names) => names.length === 0)) return null;
  const bought: string[] = [];
  for (const names of byStation) rows.push(`${names.join(' + ')} = 1`);
  for (const names of byHousing.values()) rows.push(`${names.join(' + ')} <= 1`);
  for (const shell of request.shells) {
    const uses = byShell.get(shell.id);
    if (!uses || shell.stock === null) continue;
    const more = asks === 'fewest halves' ? ` - b${bought.length}` : '';
    if (more !== '') bought.push(`b${bought.length}`);
    rows.push(`${uses.map(({ name, count }) => `${count} ${name}`).join(' + ')}${more} <= ${shell.stock}`);
  }
  const free: string[] = [];
  for (const [group, uses] of byGroup) {
    const limit = rules.maxSpread[group.startsWith('main') ? 'main' : 'rod'];
    if (limit === null) continue;
    const base = `l${free.length}`;
    free.push(base);
    for (const station of new Set(uses.map((use) => use.station))) {
      const sum = uses
        .filter((use) => use.station === station && use.deviation !== 0)
        .map(({ name, deviation }) => `${deviation < 0 ? '-' : '+'} ${Math.abs(deviation)} ${name}`)
        .join(' ');
      rows.push(`${sum} - ${base} >= 0`, `${sum} - ${base} <= ${nm(limit) / 1000}`);
    }
  }
  return [
    'Minimize',
    ` obj: ${(asks === 'least cost' ? objective : bought).join(' + ') || `0 ${binaries[0]}`}`,
    'Subject To',
    ...rows.map((row, at) => ` c${at}: ${row}`),
    'Bounds',
    ...free.map((name) => ` ${name} free`),
    ...bought.map((name) => ` 0 <= ${name} <= 1000`),
    ...(bought.length > 0 ? ['General', ` ${bought.join(' ')}`] : []),
    'Binary',
    ` ${binaries.join(' ')}`,
    'End',
  ].join('\n');
}

/**
 * Solves a programme with HiGHS, a general-purpose solver.
 *
 * @returns the least cost in µm², or null when nothing fits
 */
export async function leastCostOf(programme: string): Promise<number | null> {
  const solution = (await highs()).solve(programme, { mip_rel_gap: 0, mip_abs_gap: 1e-9, output_flag: false });
  if (solution.Status === 'Infeasible') return null;
  if (solution.Status !== 'Optimal') throw new Error(`HiGHS: ${solution.Status}`);
  return solution.ObjectiveValue;
}

/** The least cost of a fit request by the second method, or null when nothing fits. */
export async function leastCostByHighs(request: FitRequest): Promise<number | null> {
  const programme = programmeOf(request);
  return programme === null ? null : leastCostOf(programme);
}

/** The fewest halves on top of the stock with which everything fits, by the second method; null when no number does. */
export async function fewestHalvesByHighs(request: FitRequest): Promise<number | null> {
  const programme = programmeOf(request, 'fewest halves');
  return programme === null ? null : Math.round((await leastCostOf(programme)) ?? Number.NaN);
}
