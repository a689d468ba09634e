import { FAMILIES } from '../part/family.js';
import { type FitRequestInput, fitRequestSchema } from './format/fitRequest.js';
import { planRequest } from './planRequest.js';
import type { IntegerSolver } from './search/choiceLimits.js';
import { loadIntegerSolver } from './search/loadIntegerSolver.js';

const ENGINES = 16;
const MAINS = 5;
const RODS = 4;
const GRADES = 5;

/** Engines of no meaning on one short drawer: enough work of every stage for the machine code of all of them to be made. */
function practice(): FitRequestInput {
  const um = (value: number) => value / 1000;
  const stations: FitRequestInput['stations'] = [];
  const housings: FitRequestInput['housings'] = [];
  for (let at = 0; at < ENGINES * (MAINS + RODS); at += 1) {
    const engine = `E${at % ENGINES}`;
    const family = at < ENGINES * MAINS ? ('main' as const) : ('rod' as const);
    const id = `${at}`;
    stations.push({ id, engine, family, journal: um(59_976 + ((at * 7) % 19)), aim: 0.035, low: 0.02, high: 0.05 });
    const bore = um(64_000 + ((at * 11 + (at % 5)) % 20));
    housings.push({ id, engine, family, bore, station: family === 'main' ? id : null });
  }
  const shells = FAMILIES.flatMap((family) =>
    Array.from({ length: GRADES }, (_, grade) => grade).flatMap((grade) =>
      (['upper', 'lower'] as const).map((half) => ({
        id: `${family} ${half} ${grade}`,
        family,
        series: '',
        half,
        wall: um(1_989 + 3 * grade),
        stock: Math.ceil((ENGINES * (family === 'main' ? MAINS : RODS) * [1, 2, 3, 2, 1][grade]!) / 8),
      })),
    ),
  );
  return { format: 'fettle.fit-request/1', unit: 'mm', stations, housings, shells };
}

/** A practice run never takes longer, ms. */
const LONGEST_MS = 2_000;

/**
 * Makes everything ready for searches: loads the integer solver and lets it and the search run once, so that the first answer does not
 * wait for machine code to be made (WebAssembly and JavaScript are compiled as they run: a first search of many engines took three to
 * six times as long as the next). For a worker's start, while nobody waits.
 *
 * @param clock ms
 * @param wasm see `loadIntegerSolver`
 */
export async function readySearch(clock: () => number, wasm?: string): Promise<IntegerSolver> {
  const solver = await loadIntegerSolver(wasm);
  planRequest(fitRequestSchema.parse(practice()), { solver, clock, until: clock() + LONGEST_MS });
  return solver;
}
