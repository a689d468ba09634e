import { seeded } from '../../measure/seeded.js';
import { type FitRequest, type FitRequestInput, fitRequestSchema } from '../format/fitRequest.js';
import { inInches } from './randomRequest.js';

export type Stock = 'plentiful' | 'just enough' | 'short';

/** What one engine of the bench is like. */
export interface EngineKind {
  readonly mains: number;
  readonly rods: number;
  readonly stock: Stock;
  readonly hasSpread: boolean;
  readonly unit: 'mm' | 'in';
  readonly hasPlaces: boolean;
}

/** Every kind of single engine: mains and rods, stock, spread, unit, places. */
export const ENGINE_KINDS: readonly EngineKind[] = [
  [5, 4],
  [7, 8],
  [5, 8],
].flatMap(([mains, rods]) =>
  (['plentiful', 'just enough', 'short'] as const).flatMap((stock) =>
    [false, true].flatMap((hasSpread) =>
      (['mm', 'in'] as const).flatMap((unit) =>
        [false, true].map((hasPlaces) => ({ mains: mains!, rods: rods!, stock, hasSpread, unit, hasPlaces })),
      ),
    ),
  ),
);

/**
 * A seeded engine of one kind: mains in their own bores, rods free to go to any pin, halves in four or five grades, as many as every
 * station could want, as many as one way of fitting takes, or one of those left out.
 */
export function engineOfKind(seed: number, kind: EngineKind): FitRequest {
  const random = seeded(seed);
  const whole = (from: number, to: number) => from + Math.floor(random() * (to - from + 1));
  const um = (value: number) => Math.round(value) / 1000;
  const grades = whole(4, 5);
  const wallOf = (grade: number) => 1_989 + 3 * grade;
  const stations: FitRequestInput['stations'] = [];
  const housings: FitRequestInput['housings'] = [];
  const need = new Map<string, number>();
  const place = (family: 'main' | 'rod', number: number) => {
    const position = kind.hasPlaces && family === 'main' && number === Math.ceil(kind.mains / 2) ? 'thrust' : '';
    const journal = (family === 'main' ? 59_976 : 47_976) + whole(0, 14);
    const [upper, lower] = [whole(0, grades - 1), whole(0, grades - 1)];
    const walls = wallOf(upper) + wallOf(Math.max(0, Math.min(grades - 1, upper + (lower % 3) - 1)));
    const bore = journal + walls + 35 + whole(-5, 5);
    const clearing = Math.max(0, Math.min(grades - 1, upper + (lower % 3) - 1));
    for (const half of [`upper-${upper}`, `lower-${clearing}`]) {
      const id = `${family}-${position}-${half}`;
      need.set(id, (need.get(id) ?? 0) + 1);
    }
    const id = `${family}${number}`;
    stations.push({ id, family, journal: um(journal), aim: 0.035, low: 0.025, high: 0.045, position });
    housings.push({ id: `${id}h`, family, bore: um(bore), station: family === 'main' ? id : null });
  };
  for (let main = 1; main <= kind.mains; main += 1) place('main', main);
  for (let rod = 1; rod <= kind.rods; rod += 1) place('rod', rod);
  const shells: FitRequestInput['shells'] = (['main', 'rod'] as const).flatMap((family) =>
    (family === 'main' && kind.hasPlaces ? ['', 'thrust'] : ['']).flatMap((position) =>
      Array.from({ length: grades }, (_, grade) => grade).flatMap((grade) =>
        (['upper', 'lower'] as const).map((half) => {
          const id = `${family}-${position}-${half}-${grade}`;
          const stock = kind.stock === 'plentiful' ? 2 * (kind.mains + kind.rods) : (need.get(id) ?? 0);
          const positions = position === '' ? undefined : [position];
          return { id, family, series: 'A', half, wall: um(wallOf(grade)), stock, ...(positions ? { positions } : {}) };
        }),
      ),
    ),
  );
  if (kind.stock === 'short') {
    for (let missing = whole(1, 2); missing > 0; missing -= 1) {
      const held = shells.filter(({ stock, family }) => stock! > 0 && (missing > 1 || family === 'rod'));
      held[whole(0, held.length - 1)]!.stock! -= 1;
    }
  }
  const request: FitRequestInput = {
    format: 'fettle.fit-request/1',
    unit: 'mm',
    stations,
    housings,
    shells,
    rules: { maxSpread: kind.hasSpread ? { main: 0.01, rod: um(whole(6, 10)) } : null },
  };
  return fitRequestSchema.parse(kind.unit === 'in' ? inInches(request) : request);
}
