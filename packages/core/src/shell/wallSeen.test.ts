import { describe, expect, it } from 'vitest';
import { nanometres } from '../measure/nanometres.js';
import { seeded } from '../measure/seeded.js';
import { type JobShell, jobShellSchema } from './jobShell.js';
import { bandSeen, countedAsSeen, countedByGrade, LEAST_WALLS } from './wallSeen.js';

const stamp = { by: 'Teasel', at: '2026-01-12T09:30:00.000Z' };
const shell: JobShell = {
  family: 'main',
  series: 'Osier',
  grade: 'Teal',
  half: 'upper',
  wall: nanometres(1_992_000),
  band: { low: nanometres(1_990_000), high: nanometres(1_994_000) },
  stock: 4,
  line: null,
};

describe('the band of walls seen', () => {
  it('stands for the standard uncertainty of the next wall', () => {
    // By hand, n = 10, s = 1 µm: √3 × 1 × √1.1 × 2.2622 / 1.96 = 2.097 µm. t(0.975; 9) = 2.262 (NIST/SEMATECH handbook, 1.3.6.7.2).
    const band = bandSeen({ mean: 1_993_000, deviation: 1000, engines: 10 })!;
    expect((band.high - band.low) / 2).toBeCloseTo(2097, -1);
    expect((band.high + band.low) / 2).toBeCloseTo(1_993_000, 0);
    expect(bandSeen({ mean: 1_993_000, deviation: 1000, engines: LEAST_WALLS - 1 })).toBeNull();
    expect(bandSeen({ mean: 1_993_000, deviation: null, engines: 9 })).toBeNull();
  });

  it('at twice its standard uncertainty holds the next of 5,000 simulated walls about as often as it says, few engines or many', () => {
    const random = seeded(20_261_201);
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    for (const engines of [5, 8, 20]) {
      let held = 0;
      for (let times = 0; times < 5000; times += 1) {
        const walls = Array.from({ length: engines }, () => 1_992_500 + 900 * normal());
        const mean = walls.reduce((sum, wall) => sum + wall, 0) / engines;
        const deviation = Math.sqrt(walls.reduce((sum, wall) => sum + (wall - mean) ** 2, 0) / (engines - 1));
        const { low, high } = bandSeen({ mean, deviation, engines })!;
        const u = (high - low) / 2 / Math.sqrt(3);
        if (Math.abs(1_992_500 + 900 * normal() - mean) <= 1.959964 * u) held += 1;
      }
      // 95 % of 5,000 ± 3 standard deviations of the count.
      expect([engines, held / 5000 > 0.94, held / 5000 < 0.96]).toEqual([engines, true, true]);
    }
  });
});

describe('a shell counted as seen', () => {
  const walls = { mean: 1_993_000, deviation: 500, engines: 12 };

  it('says of how many engines and what its grade says, and comes back to that', () => {
    const seen = countedAsSeen(shell, walls, 'mm', stamp)!;
    expect(seen.wall).toBe(1_993_000);
    expect(seen.seen).toEqual({ engines: 12, was: { wall: shell.wall, band: shell.band }, ...stamp });
    expect(jobShellSchema.parse(seen)).toEqual(seen);
    expect(countedByGrade(seen)).toEqual(shell);
    // Rounded as it is read: tenths of a micrometre, hundred-thousandths of an inch.
    const odd = { ...walls, mean: 1_993_047 };
    expect(countedAsSeen(shell, odd, 'mm', stamp)!.wall).toBe(1_993_000);
    expect(countedAsSeen(shell, odd, 'in', stamp)!.wall % 254).toBe(0);
    // Counted anew with more engines, it still knows what the grade says.
    const again = countedAsSeen(seen, { ...walls, mean: 1_993_200, engines: 20 }, 'mm', stamp)!;
    expect(again.seen!.was).toEqual(seen.seen!.was);
  });

  it('is none that was measured, nor one of which too little is known', () => {
    const { band: _, ...measured } = shell;
    expect(countedAsSeen(measured, walls, 'mm', stamp)).toBeNull();
    expect(countedAsSeen(shell, { ...walls, engines: 2 }, 'mm', stamp)).toBeNull();
    expect(countedByGrade(shell)).toBe(shell);
  });
});
