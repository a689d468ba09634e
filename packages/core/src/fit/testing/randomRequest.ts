import { seeded } from '../../measure/seeded.js';
import { type FitRequest, type FitRequestInput, fitRequestSchema } from '../format/fitRequest.js';

/** A small random request that touches every rule of the format; many are infeasible. */
export function randomRequest(seed: number): FitRequestInput {
  const random = seeded(seed);
  const whole = (from: number, to: number) => from + Math.floor(random() * (to - from + 1));
  const maybe = (chance: number) => random() < chance;
  const um = (value: number) => Math.round(value) / 1000;
  const engines = maybe(0.25) ? ['E1', 'E2'] : ['E1'];
  const stations: FitRequestInput['stations'] = [];
  const housings: FitRequestInput['housings'] = [];
  for (const engine of engines) {
    for (let main = 1; main <= whole(2, 5); main += 1) {
      const id = `${engine}M${main}`;
      stations.push({
        id,
        engine,
        family: 'main',
        journal: um(59_976 + whole(0, 12)),
        aim: 0.04,
        low: 0.025,
        high: 0.058,
        offset: um(whole(-2, 2)),
      });
      housings.push({ id: `${id}B`, engine, family: 'main', bore: um(64_000 + whole(0, 19)), station: id });
    }
    const rods = maybe(0.6) ? whole(2, 4) : 0;
    for (let rod = 1; rod <= rods; rod += 1) {
      const id = `${engine}R${rod}`;
      stations.push({
        id,
        engine,
        family: 'rod',
        journal: um(47_984 + whole(0, 16)),
        aim: 0.035,
        low: 0.02,
        high: 0.05,
      });
      housings.push({
        id: `${id}H`,
        engine,
        family: 'rod',
        bore: um(51_000 + whole(0, 16)),
        station: maybe(0.3) ? id : null,
      });
    }
  }
  const shells: FitRequestInput['shells'] = [];
  for (const family of ['main', 'rod'] as const) {
    const first = family === 'main' ? 1_987 : 1_486;
    for (let grade = 0; grade < whole(2, 4); grade += 1) {
      const wall = um(first + grade * whole(3, 5));
      const series = maybe(0.3) ? 'B' : 'A';
      const sides = maybe(0.25) ? (['either'] as const) : (['upper', 'lower'] as const);
      for (const half of sides) {
        const stock = maybe(0.4) ? null : whole(0, 4);
        shells.push({
          id: `${family}${grade}${half}`,
          family,
          series,
          half,
          wall,
          stock,
          price: maybe(0.5) ? whole(1, 9) / 2 : 0,
        });
      }
    }
  }
  const rules: FitRequestInput['rules'] = {
    mixedHalves: maybe(0.8),
    acrossSeries: maybe(0.4),
    maxWallStep: maybe(0.3) ? 0.005 : 0.013,
    thinnerHalf: (['either', 'upper', 'lower'] as const)[whole(0, 2)]!,
    maxSpread: maybe(0.5) ? { main: um(whole(2, 14)), rod: maybe(0.5) ? um(whole(2, 14)) : null } : null,
    tightWeight: [1, 2, 2.5][whole(0, 2)]!,
    mixedPenalty: whole(0, 8),
    pricePenalty: maybe(0.5) ? whole(1, 4) : 0,
  };
  const any = <T>(list: readonly T[]) => list[whole(0, list.length - 1)]!;
  const hold: NonNullable<FitRequestInput['wishes']>['hold'] = [];
  const forbid: NonNullable<FitRequestInput['wishes']>['forbid'] = [];
  if (maybe(0.25)) {
    const station = any(stations);
    const fitting = shells.filter(({ family }) => family === station.family);
    if (maybe(0.3)) {
      const housing = housings.find(({ engine, family }) => engine === station.engine && family === station.family);
      hold.push({ station: station.id, housing: housing!.id });
    } else if (fitting.length > 0)
      hold.push({ station: station.id, [maybe(0.5) ? 'upper' : 'lower']: any(fitting).id });
  }
  if (maybe(0.25)) {
    const station = any(stations);
    const fitting = shells.filter(({ family }) => family === station.family);
    if (maybe(0.5) || fitting.length === 0) forbid.push({ station: station.id, mixed: true });
    else forbid.push({ station: station.id, shell: any(fitting).id });
  }
  if (maybe(0.25)) {
    for (const shell of shells) if (maybe(0.4)) shell.undersize = '0.25';
  }
  if (maybe(0.3)) {
    const wide = (size: number) => ({ low: um(1000 * size - whole(0, 5)), high: um(1000 * size + whole(0, 5)) });
    for (const station of stations) if (maybe(0.5)) station.journalBand = wide(station.journal);
    for (const housing of housings) if (maybe(0.5)) housing.boreBand = wide(housing.bore);
    for (const shell of shells) if (maybe(0.5)) shell.wallBand = wide(shell.wall);
  }
  if (maybe(0.25)) {
    const places = ['thrust', 'rear'];
    for (const station of stations) if (maybe(0.3)) station.position = any(places);
    for (const shell of shells) if (maybe(0.4)) shell.positions = maybe(0.5) ? [''] : ['', any(places)];
  }
  if (maybe(0.25)) {
    const about = (size: number) => ({ low: um(1000 * size - whole(0, 3)), high: um(1000 * size + whole(0, 3)) });
    for (const station of stations) if (maybe(0.5)) station.journalReadings = about(station.journal);
    for (const housing of housings) if (maybe(0.5)) housing.boreReadings = about(housing.bore);
  }
  if (maybe(0.2)) {
    for (const station of stations) {
      if (maybe(0.6))
        station.offsets = ['A', 'B'].filter(() => maybe(0.7)).map((series) => ({ series, offset: um(whole(-4, 4)) }));
    }
  }
  if (maybe(0.35)) {
    for (const shell of shells) if (maybe(0.6)) shell.width = um(25_000 + 20 * whole(0, 8));
    for (const station of stations) {
      if (station.family !== 'main' || !maybe(0.4)) continue;
      station.endPlay = {
        reading: um(whole(0, 250)),
        fitted: um(25_000 + 20 * whole(0, 4)),
        low: 0.05,
        high: um(whole(120, 250)),
        aim: 0.1,
        weight: [0, 0, 0.01][whole(0, 2)]!,
      };
    }
  }
  if (maybe(0.2)) {
    for (const station of stations) if (maybe(0.4)) station.inSpread = false;
  }
  return { format: 'fettle.fit-request/1', unit: 'mm', stations, housings, shells, rules, wishes: { hold, forbid } };
}

/** A length in inches; twelve decimals are finer than a nanometre, so that it reads back the same. */
function inches(value: number): number {
  return Number((value / 25.4).toFixed(12));
}

type Ends = { low: number; high: number };

/** The same request in inches. */
export function inInches(request: FitRequestInput): FitRequestInput {
  const ends = <Name extends string>(name: Name, band: Ends | undefined) =>
    band ? { [name]: { low: inches(band.low), high: inches(band.high) } } : {};
  const { maxWallStep, maxSpread } = request.rules ?? {};
  const wide = (width: number | null | undefined) => (width == null ? null : inches(width));
  return {
    ...request,
    unit: 'in',
    stations: request.stations.map((station) => ({
      ...station,
      journal: inches(station.journal),
      aim: inches(station.aim),
      low: inches(station.low),
      high: inches(station.high),
      offset: inches(station.offset ?? 0),
      ...(station.offsets
        ? { offsets: station.offsets.map(({ series, offset }) => ({ series, offset: inches(offset) })) }
        : {}),
      ...(station.endPlay
        ? {
            endPlay: {
              ...station.endPlay,
              reading: inches(station.endPlay.reading),
              fitted: inches(station.endPlay.fitted),
              low: inches(station.endPlay.low),
              high: inches(station.endPlay.high),
              aim: inches(station.endPlay.aim),
            },
          }
        : {}),
      ...ends('journalBand', station.journalBand),
      ...ends('journalReadings', station.journalReadings),
    })),
    housings: request.housings.map((housing) => ({
      ...housing,
      bore: inches(housing.bore),
      ...ends('boreBand', housing.boreBand),
      ...ends('boreReadings', housing.boreReadings),
    })),
    shells: request.shells.map((shell) => ({
      ...shell,
      wall: inches(shell.wall),
      ...(shell.width === undefined ? {} : { width: inches(shell.width) }),
      ...ends('wallBand', shell.wallBand),
    })),
    rules: {
      ...request.rules,
      ...(maxWallStep === undefined ? {} : { maxWallStep: inches(maxWallStep) }),
      maxSpread: maxSpread ? { main: wide(maxSpread.main), rod: wide(maxSpread.rod) } : null,
    },
  };
}

/** A random request in millimetres or in inches. */
export function requestInEitherUnit(seed: number): FitRequestInput {
  const request = randomRequest(seed);
  return seed % 3 === 0 ? inInches(request) : request;
}

/** One V engine with free rods and a drawer of a few halves a grade: what is often too short, and hard to see why. */
export function shortDrawer(seed: number, rods: number, aGrade: number, grades: number): FitRequest {
  const random = seeded(seed);
  const whole = (from: number, to: number) => from + Math.floor(random() * (to - from + 1));
  const um = (value: number) => Math.round(value) / 1000;
  const request: FitRequestInput = {
    format: 'fettle.fit-request/1',
    unit: 'mm',
    stations: Array.from({ length: rods }, (_, at) => ({
      id: `P${at + 1}`,
      family: 'rod',
      journal: um(43_982 + whole(0, 10)),
      aim: 0.036,
      low: 0.03,
      high: 0.042,
    })),
    housings: Array.from({ length: rods }, (_, at) => ({
      id: `R${at + 1}`,
      family: 'rod',
      bore: um(48_002 + whole(0, 12)),
      station: null,
    })),
    shells: Array.from({ length: grades }, (_, grade) => grade).flatMap((grade) =>
      (['upper', 'lower'] as const).map((half) => ({
        id: `g${grade}${half}`,
        family: 'rod' as const,
        series: 'A',
        half,
        wall: um(1_984 + 3 * grade),
        stock: aGrade - (random() < 0.15 ? 1 : 0),
      })),
    ),
  };
  return fitRequestSchema.parse(seed % 2 === 0 ? inInches(request) : request);
}

/**
 * Seeded engines on one drawer in graded halves. The drawer holds what one way of fitting them takes, times `slack`, so
 * that it is short but sufficient from a slack of 1 on.
 */
export function manyEngines(
  seed: number,
  engines: number,
  { freeRods = false, slack = 1.02, mains = 5, rods = 4, grades = 5, maxSpread = null as FitSpread } = {},
): FitRequest {
  const random = seeded(seed);
  const whole = (from: number, to: number) => from + Math.floor(random() * (to - from + 1));
  const um = (value: number) => Math.round(value) / 1000;
  const stations: FitRequestInput['stations'] = [];
  const housings: FitRequestInput['housings'] = [];
  const need = new Map<string, number>();
  const wallOf = (grade: number) => 1_995 + 3 * (grade - (grades - 1) / 2);
  const place = (engine: string, id: string, family: 'main' | 'rod', journalFrom: number, boreFrom: number) => {
    const journal = journalFrom + whole(0, 18);
    const bore = boreFrom + whole(0, 19);
    const within = (least: number, most: number) => {
      const pairs: [number, number][] = [];
      for (let upper = 0; upper < grades; upper += 1) {
        for (let lower = 0; lower < grades; lower += 1) {
          const clearance = bore - journal - wallOf(upper) - wallOf(lower);
          const step = Math.abs(wallOf(upper) - wallOf(lower));
          if (clearance >= least && clearance <= most && step <= 13) pairs.push([upper, lower]);
        }
      }
      return pairs;
    };
    const near = within(27, 43);
    const pairs = near.length > 0 ? near : within(20, 50);
    if (pairs.length === 0) return false;
    const [upper, lower] = pairs[whole(0, pairs.length - 1)]!;
    for (const half of [`${family}-upper-${upper}`, `${family}-lower-${lower}`])
      need.set(half, (need.get(half) ?? 0) + 1);
    stations.push({ id, engine, family, journal: um(journal), aim: 0.035, low: 0.02, high: 0.05 });
    const station = family === 'rod' && freeRods ? null : id;
    housings.push({ id: `${id}h`, engine, family, bore: um(bore), station });
    return true;
  };
  for (let at = 0; at < engines; at += 1) {
    const engine = `E${at}`;
    for (let main = 0; main < mains; ) if (place(engine, `${engine}M${main}`, 'main', 59_976, 64_000)) main += 1;
    for (let rod = 0; rod < rods; ) if (place(engine, `${engine}R${rod}`, 'rod', 47_976, 52_000)) rod += 1;
  }
  const shells: FitRequestInput['shells'] = (['main', 'rod'] as const).flatMap((family) =>
    Array.from({ length: grades }, (_, grade) => grade).flatMap((grade) =>
      (['upper', 'lower'] as const).map((half) => {
        const id = `${family}-${half}-${grade}`;
        const stock = Math.ceil((need.get(id) ?? 0) * slack);
        return { id, family, series: 'A', half, wall: um(wallOf(grade)), stock };
      }),
    ),
  );
  const request: FitRequestInput = {
    format: 'fettle.fit-request/1',
    unit: 'mm',
    stations,
    housings,
    shells,
    rules: { maxSpread },
  };
  return fitRequestSchema.parse(request);
}

type FitSpread = { main: number | null; rod: number | null } | null;

/** A seeded engine in graded halves with a short drawer: mains in their own bores, rods free to go to any pin. */
export function gradedEngine(seed: number, mains: number, rods: number, grades: number): FitRequest {
  const random = seeded(seed);
  const whole = (from: number, to: number) => from + Math.floor(random() * (to - from + 1));
  const um = (value: number) => Math.round(value) / 1000;
  const of = (family: 'main' | 'rod', count: number, journal: number, bore: number) =>
    Array.from({ length: count }, (_, at) => ({
      station: { id: `${family}${at}`, family, journal: um(journal + whole(0, 18)), aim: 0.035, low: 0.02, high: 0.05 },
      housing: {
        id: `${family}h${at}`,
        family,
        bore: um(bore + whole(0, 19)),
        station: family === 'main' ? `main${at}` : null,
      },
    }));
  const places = [...of('main', mains, 59_976, 64_000), ...of('rod', rods, 47_976, 52_000)];
  const shells: FitRequestInput['shells'] = (['main', 'rod'] as const).flatMap((family) =>
    Array.from({ length: grades }, (_, grade) => grade).flatMap((grade) =>
      (['upper', 'lower'] as const).map((half) => ({
        id: `${family}-${half}-${grade}`,
        family,
        series: 'A',
        half,
        wall: um(1_995 + 3 * (grade - (grades - 1) / 2)),
        stock: whole(1, 3),
      })),
    ),
  );
  return fitRequestSchema.parse({
    format: 'fettle.fit-request/1',
    unit: 'mm',
    stations: places.map(({ station }) => station),
    housings: places.map(({ housing }) => housing),
    shells,
  });
}

/** Some mains and so many kinds of halves, each of its own wall and price. */
export function manyKinds(
  kinds: number,
  rules: FitRequestInput['rules'] = {},
  { wallFrom = 1.98, mains = 5, seed = 9 } = {},
): FitRequest {
  const random = seeded(seed);
  const um = (value: number) => Math.round(value) / 1000;
  const numbers = Array.from({ length: mains }, (_, at) => at + 1);
  return fitRequestSchema.parse({
    format: 'fettle.fit-request/1',
    unit: 'mm',
    stations: numbers.map((main) => ({
      id: `M${main}`,
      family: 'main',
      journal: um(59_976 + 12 * random()),
      aim: 0.04,
      low: 0.025,
      high: 0.058,
    })),
    housings: numbers.map((main) => ({
      id: `B${main}`,
      family: 'main',
      bore: um(64_000 + 19 * random()),
      station: `M${main}`,
    })),
    shells: Array.from({ length: kinds }, (_, at) => ({
      id: `s${at}`,
      family: 'main',
      series: `S${at % 3}`,
      half: at % 2 === 0 ? 'upper' : 'lower',
      wall: Number((wallFrom + (0.04 * at) / kinds).toFixed(6)),
      stock: Math.floor(3 * random()),
      price: Math.round(900 * random()) / 100,
    })),
    rules,
  });
}
