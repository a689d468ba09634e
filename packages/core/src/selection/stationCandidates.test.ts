import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { JobDocument } from '../job/jobDocument.js';
import { newJob } from '../job/newJob.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { usualLayout } from '../part/crankLayout.js';
import type { JobShell } from '../shell/jobShell.js';
import { type JobStation, mainStations } from '../station/jobStations.js';
import { barredPairs } from './barredPairs.js';
import { clearancesAtHand } from './clearancesAtHand.js';
import { shellsInOrder } from './shellsInOrder.js';
import { nearestCandidate, stationCandidates } from './stationCandidates.js';

const um = (value: number) => nanometres(Math.round(value * 1000));
const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const blank = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });

const band = (wall: number, by: number) => ({ low: um(wall - by), high: um(wall + by) });
const shellOf = fc
  .record({
    series: fc.constantFrom('A', 'B'),
    half: fc.constantFrom('upper' as const, 'lower' as const, 'either' as const),
    wallUm: fc.constantFrom(1990, 1993, 1995, 2002),
    by: fc.constantFrom(0, 2),
    stock: fc.constantFrom(null, 0, 1, 3),
    undersize: fc.constantFrom(undefined, '0.25'),
    positions: fc.constantFrom<string[] | undefined>(undefined, ['thrust'], ['rear', 'thrust']),
  })
  .map(
    ({ wallUm, by, undersize, positions, ...shell }): JobShell => ({
      family: 'main',
      grade: `${wallUm}`,
      wall: um(wallUm),
      line: null,
      ...shell,
      ...(by === 0 ? {} : { band: band(wallUm, by) }),
      ...(undersize === undefined ? {} : { undersize }),
      ...(positions === undefined ? {} : { positions }),
    }),
  );
const ruled = fc.record({
  mixedHalves: fc.boolean(),
  acrossSeries: fc.boolean(),
  maxWallStep: fc.constantFrom(um(3), um(13)),
  thinnerHalf: fc.constantFrom('either' as const, 'upper' as const, 'lower' as const),
});

function jobOf(shells: readonly JobShell[], rules: Partial<JobDocument['rules']>): JobDocument {
  return {
    ...blank,
    rules: { ...blank.rules, ...rules },
    limits: { ...blank.limits, mainClearance: { low: um(20), high: um(50), source: 'book, p. 3' } },
    shells: Object.fromEntries(shells.map((shell, at) => [`s${at}`, shell])),
  };
}

/** A main whose bore scatters by 2 µm and its journal by 1 µm; a trial has shown 4 µm more with series B. */
function mainOf(job: JobDocument, position: string | null): JobStation {
  const size = (nominal: number, by: number) => ({
    kind: 'read' as const,
    nominal: um(nominal),
    smallest: um(nominal - by),
    largest: um(nominal + by),
  });
  const offset = { series: 'B', offset: um(4) };
  const [main] = mainStations(job, []);
  return { ...main, bore: size(64_012, 2), journal: size(59_985, 1), position, offsets: [offset] } as never;
}

interface Pair {
  readonly pair: string;
  readonly clearance: { nominal: number; tightest: number; loosest: number };
}

/** Every pair one after the other, by the rules as they are written, in µm. */
function everyPair(job: JobDocument, position: string): Pair[] {
  const { rules } = job;
  // What nobody counted takes part only where nothing is counted.
  const isCounted = Object.values(job.shells).some(({ stock }) => stock !== null);
  const open = shellsInOrder(job).filter(
    ({ shell }) =>
      shell.stock !== 0 && !(isCounted && shell.stock === null) && (shell.positions?.includes(position) ?? true),
  );
  const pairs = open.flatMap((upper) => open.map((lower) => ({ upper, lower })));
  return pairs
    .filter(({ upper: { id, shell: one }, lower: { id: otherId, shell: other } }) => {
      const step = one.wall - other.wall;
      return (
        one.half !== 'lower' &&
        other.half !== 'upper' &&
        one.undersize === other.undersize &&
        (rules.acrossSeries || one.series === other.series) &&
        (step === 0 || (rules.mixedHalves && Math.abs(step) <= rules.maxWallStep)) &&
        (step <= 0 || rules.thinnerHalf !== 'upper') &&
        (step >= 0 || rules.thinnerHalf !== 'lower') &&
        (id !== otherId || one.stock !== 1)
      );
    })
    .map(({ upper: { id, shell: one }, lower: { id: otherId, shell: other } }) => {
      const offset = one.series === 'B' && other.series === 'B' ? 4_000 : 0;
      const walls = (edge: 'low' | 'high') => (one.band?.[edge] ?? one.wall) + (other.band?.[edge] ?? other.wall);
      return {
        pair: `${id} ${otherId}`,
        clearance: {
          nominal: 64_012_000 - 59_985_000 - one.wall - other.wall + offset,
          tightest: 64_010_000 - 59_986_000 - walls('high') + offset,
          loosest: 64_014_000 - 59_984_000 - walls('low') + offset,
        },
      };
    })
    .sort((a, b) => a.clearance.nominal - b.clearance.nominal);
}

const off = (aim: Nanometres) => (one: { clearance: { nominal: number } }) => Math.abs(one.clearance.nominal - aim);

describe('what the pairs at hand give', () => {
  it('is the same as pair by pair, whichever are alike', () => {
    const shelves = fc.array(shellOf, { minLength: 1, maxLength: 12 });
    fc.assert(
      fc.property(shelves, ruled, fc.constantFrom(null, 'thrust'), fc.nat(20), (shells, rules, position, most) => {
        const job = jobOf(shells, rules);
        const station = mainOf(job, position);
        const every = everyPair(job, position ?? '');
        const candidates = stationCandidates(job, station);
        expect(candidates.map(({ upper, lower, clearance }) => ({ pair: `${upper} ${lower}`, clearance }))).toEqual(
          every,
        );
        const atHand = clearancesAtHand(job, station);
        expect(atHand.count).toBe(every.length);
        expect(atHand.clearances).toEqual(
          [...new Set(every.map(({ clearance }) => clearance.nominal))].map((nominal) => ({
            nominal,
            isInside: every.some(
              ({ clearance }) =>
                clearance.nominal === nominal && clearance.tightest >= 20_000 && clearance.loosest <= 50_000,
            ),
          })),
        );
        // Those nearest to the aim, and no others.
        const far = off(station.aim!);
        const nearest = stationCandidates(job, station, most);
        expect(nearest.map(far).sort((a, b) => a - b)).toEqual(
          every
            .map(far)
            .sort((a, b) => a - b)
            .slice(0, most),
        );
        // The chosen one besides, wherever it comes.
        for (const { pair, clearance } of every.slice(-2)) {
          const [upper, lower] = pair.split(' ') as [string, string];
          const told = stationCandidates(job, station, most, { upper, lower });
          const named = told.map((one) => `${one.upper} ${one.lower}`);
          const without = nearest.map((one) => `${one.upper} ${one.lower}`);
          expect([...named].sort()).toEqual([...new Set([...without, pair])].sort());
          expect(told[named.indexOf(pair)]!.clearance).toEqual(clearance);
        }
        expect(stationCandidates(job, station, most, { upper: 's0', lower: 'gone' })).toEqual(nearest);
        const best = nearestCandidate(job, station);
        expect(best?.clearance.nominal).toBe(
          [...every].sort((a, b) => far(a) - far(b) || a.clearance.nominal - b.clearance.nominal)[0]?.clearance.nominal,
        );
      }),
      { numRuns: 400 },
    );
  });

  it('names the pairs nearest to the aim that the rules alone forbid, by all that is known of them', () => {
    const shelves = fc.array(shellOf, { minLength: 2, maxLength: 12 });
    const free = { mixedHalves: true, acrossSeries: true, maxWallStep: um(50), thinnerHalf: 'either' as const };
    fc.assert(
      fc.property(
        shelves,
        ruled,
        fc.constantFrom(null, 'thrust'),
        fc.integer({ min: 1, max: 6 }),
        (shells, rules, position, most) => {
          const job = jobOf(shells, rules);
          const station = mainOf(job, position);
          const far = off(station.aim!);
          const now = new Set(everyPair(job, position ?? '').map(({ pair }) => pair));
          const isInside = ({ clearance }: Pair) => clearance.tightest >= 20_000 && clearance.loosest <= 50_000;
          const forbidden = everyPair(jobOf(shells, free), position ?? '').filter(
            (one) => isInside(one) && !now.has(one.pair),
          );
          const told = barredPairs(job, station, most);
          // Each is one of them, with one permission; those that take two are not told.
          for (const { upper, lower, clearance, rules: allowed } of told) {
            const known = forbidden.find(({ pair }) => pair === `${upper} ${lower}`);
            expect(known?.clearance.nominal).toBe(clearance);
            const after = everyPair({ ...job, rules: { ...job.rules, ...allowed } }, position ?? '');
            expect(after.map(({ pair }) => pair)).toContain(`${upper} ${lower}`);
          }
          const all = barredPairs(job, station, Number.POSITIVE_INFINITY);
          expect(told.length).toBe(Math.min(most, all.length));
          const distances = all.map(({ clearance }) => far({ clearance: { nominal: clearance } }));
          expect(distances).toEqual([...distances].sort((a, b) => a - b));
          expect(told.map(({ clearance }) => far({ clearance: { nominal: clearance } }))).toEqual(
            distances.slice(0, most),
          );
        },
      ),
      { numRuns: 300, seed: 4 },
    );
  });

  it('is told without naming each where an engine takes from 1,500 kinds', () => {
    const shell = { family: 'main' as const, series: 'A', stock: 9, line: null };
    const shells = Array.from({ length: 1500 }, (_, at): JobShell => {
      const wall = 1_990 + (at % 40) / 4;
      return { ...shell, grade: `${at}`, half: at % 2 === 0 ? 'upper' : 'lower', wall: um(wall) };
    });
    const job = jobOf(shells, { mixedHalves: true, thinnerHalf: 'either' });
    const station = mainOf(job, null);
    const atHand = clearancesAtHand(job, station);
    expect(atHand.count).toBe(750 * 750);
    expect(atHand.clearances.length).toBeLessThan(80);
    expect(stationCandidates(job, station, 60)).toHaveLength(60);
    expect(stationCandidates(job, station, 60, { upper: 's0', lower: 's1499' }).length).toBe(61);
  });
});
