import { type EffectiveSize, possibleSizes } from '../measure/effectiveSize.js';
import { readingUncertainty } from '../measure/instrument.js';
import { type Drawn, type Simulated, simulated } from '../measure/simulated.js';
import type { AcceptedChoice } from '../shell/acceptedChoice.js';
import { type Instruments, sizeUncertainty } from './clearanceKnown.js';
import { type JobStation, offsetAt, seriesOfHalves } from './jobStations.js';
import type { StationJob } from './stationJob.js';

/** What a predicted clearance is made from, to be drawn again and again: plain data for a worker. */
export interface ClearanceDraw {
  /** Each with what it counts in the clearance, 1 or −1. */
  readonly figures: readonly { readonly drawn: Drawn; readonly counts: 1 | -1 }[];
  readonly limits: { readonly low: number; readonly high: number };
}

type Halves = Pick<AcceptedChoice['stations'][string], 'upper' | 'lower'>;

function drawnSize(size: EffectiveSize, u: number): Drawn {
  return size.kind === 'read' ? { kind: 'normal', mean: size.nominal, u } : { kind: 'even', ...possibleSizes(size) };
}

function drawnWall({ ballMicrometer }: Instruments, { wall, band }: Halves['upper']): Drawn {
  return band ? { kind: 'even', ...band } : { kind: 'normal', mean: wall, u: readingUncertainty(ballMicrometer, 1) };
}

/**
 * The figures behind a predicted clearance as they are known: readings normally about their mean, marks and grades evenly over their
 * bands.
 *
 * @returns null where a size or the limits are missing, or where it rests on what was measured there with other halves
 */
export function clearanceDraw(job: StationJob, station: JobStation, halves: Halves): ClearanceDraw | null {
  const { bore, journal, limits } = station;
  if (!bore || !journal || !limits) return null;
  const { instruments } = job;
  const offset = offsetAt(station, seriesOfHalves(job, halves));
  if (offset?.isOwn) return null;
  return {
    figures: [
      { drawn: drawnSize(bore, sizeUncertainty(instruments.boreGauge, bore)), counts: 1 },
      { drawn: drawnSize(journal, sizeUncertainty(instruments.micrometer, journal)), counts: -1 },
      { drawn: drawnWall(instruments, halves.upper), counts: -1 },
      { drawn: drawnWall(instruments, halves.lower), counts: -1 },
      ...(offset ? [{ drawn: { kind: 'normal', mean: offset.offset, u: offset.u } as const, counts: 1 as const }] : []),
    ],
    limits: { low: limits.low, high: limits.high },
  };
}

/**
 * A predicted clearance drawn so many times: its mean and standard uncertainty in nanometres, and the share that is inside its limits. A
 * second way beside the law of propagation (JCGM 101:2008; cited from memory).
 *
 * @param draws 200,000 tell a share to about 0.1 %
 * @param seed the same seed gives the same answer
 */
export function drawnClearance({ figures, limits }: ClearanceDraw, draws: number, seed: number): Simulated {
  return simulated(
    figures.map(({ drawn }) => drawn),
    (values) => values.reduce((sum, value, at) => sum + figures[at]!.counts * value, 0),
    limits,
    draws,
    seed,
  );
}
