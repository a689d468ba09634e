import type { Unit } from '../measure/unit.js';
import type { CrankLayout } from '../part/crankLayout.js';
import { familiesOf } from '../part/familiesOf.js';
import type { Family } from '../part/family.js';
import { partName } from '../part/feature.js';
import { rodCount } from '../part/rodCount.js';
import type { Swaps } from '../part/swap.js';
import { isSwappedSince } from '../part/swappedSince.js';
import type { AcceptedChoice } from '../shell/acceptedChoice.js';
import { type Bolt, boltsOf } from './bolt.js';
import { type StretchedBolt, type StretchFinding, stretchFindings } from './boltStretch.js';
import { PLACE_TABLE, type Torque } from './fastener.js';
import type { FastenersMembers } from './fastenersPart.js';
import { type PassState, passStates, type TightenPass, tightenPasses } from './tightenPasses.js';
import type { TorqueMembers } from './torquePart.js';

/** What tightening is worked out from: the figures of each family's fasteners, the passes done, and what has changed places since. */
export type TightenJob = FastenersMembers &
  TorqueMembers & {
    readonly unit: Unit;
    readonly layout: CrankLayout;
    readonly withRods: boolean;
    readonly sheet: { readonly torque: readonly Torque[] } | null;
    readonly assembly: { readonly swaps: Swaps };
    readonly choice: AcceptedChoice | null;
  };

/** The figures that the fasteners of a family are tightened by, and whose they are. */
export interface FastenerFigures {
  readonly family: Family;
  /** The data sheet’s; those of the fasteners’ own maker; nobody’s: other fasteners hold, and their figures are not given. */
  readonly from: 'sheet' | 'own' | 'missing';
  readonly fasteners: readonly Torque[];
}

/**
 * The figures that each family is tightened by: those of the data sheet, while its fasteners are the engine maker's; those of their own maker for
 * others, which the sheet's never stand in for.
 */
export function fastenerFigures(job: Pick<TightenJob, 'fasteners' | 'sheet' | 'withRods'>): FastenerFigures[] {
  return familiesOf(job).map((family): FastenerFigures => {
    const { kind, figures } = job.fasteners[family];
    const own = figures.filter(({ place }) => PLACE_TABLE[place].family === family);
    if (own.length > 0) return { family, from: 'own', fasteners: own };
    const given = job.sheet?.torque.filter(({ place }) => PLACE_TABLE[place].family === family) ?? [];
    if (kind === 'other' || given.length === 0) return { family, from: 'missing', fasteners: [] };
    return { family, from: 'sheet', fasteners: given };
  });
}

/** The passes of an engine in the order of the work. */
export function jobPasses(job: TightenJob): TightenPass[] {
  const fasteners = fastenerFigures(job).flatMap((one) => one.fasteners);
  const rods = job.withRods ? Array.from({ length: rodCount(job.layout) }, (_, at) => at + 1) : [];
  return tightenPasses(fasteners, rods);
}

/** How a pass stands in a job; parts that changed places since ask for it again. */
export interface JobPassState extends Omit<PassState, 'doubt'> {
  readonly doubt: PassState['doubt'] | 'parts-swapped';
}

/** The mains that a pass goes over, or its rod, by name. */
function placesOf(job: TightenJob, { rod }: TightenPass): string[] {
  if (rod === null) return Array.from({ length: job.layout.mains }, (_, at) => partName('mainBore', at + 1));
  const pin = Object.entries(job.choice?.stations ?? {}).find(([, chosen]) => chosen.rod === rod)?.[0];
  return [partName('bigEnd', rod), ...(pin === undefined ? [] : [pin])];
}

/** How each pass of a job stands. */
export function jobPassStates(job: TightenJob): JobPassState[] {
  return passStates(jobPasses(job), job.torque.passes, job.unit).map((state) => {
    const { done, doubt, pass } = state;
    const isSwapped =
      done !== null && isSwappedSince(job.assembly, placesOf(job, pass), ['cap', 'upper', 'lower'], done.at);
    // Whatever else is to be said of it: with other parts it has to be done again.
    return { ...state, doubt: isSwapped ? 'parts-swapped' : doubt };
  });
}

/** True if a pass is done and stays so. */
export function isPassDone({ done, doubt }: Pick<JobPassState, 'done' | 'doubt'>): boolean {
  return done !== null && doubt !== 'other-figure' && doubt !== 'parts-swapped';
}

/** The bolts whose stretch is read, of one pass. */
export function stretchedBolts({ layout: { mains } }: TightenJob, { place, rod, fastener }: TightenPass): Bolt[] {
  return boltsOf(place, { mains, rod, perCap: fastener.perCap });
}

/** What was read of stretches, and what is wrong with it. */
export interface StretchRead {
  readonly pass: TightenPass;
  readonly bolts: readonly Bolt[];
  readonly read: readonly StretchedBolt[];
  readonly findings: readonly StretchFinding[];
}

/** Every pass by stretch of a job; bolts are compared with those of all passes of their place. */
export function jobStretches(job: TightenJob): StretchRead[] {
  const passes = jobPasses(job).filter(({ target }) => target.kind === 'stretch');
  const readOf = (bolts: readonly Bolt[]) =>
    bolts.flatMap((bolt): StretchedBolt[] => {
      const nm = job.torque.stretch[bolt.id]?.nm ?? null;
      return nm === null ? [] : [{ ...bolt, stretch: nm }];
    });
  const beside = ({ place }: TightenPass) =>
    passes.filter((pass) => pass.place === place).flatMap((pass) => readOf(stretchedBolts(job, pass)));
  return passes.map((pass) => {
    const bolts = stretchedBolts(job, pass);
    const { target } = pass;
    const found = target.kind === 'stretch' ? stretchFindings(beside(pass), target) : [];
    return {
      pass,
      bolts,
      read: readOf(bolts),
      findings: found.filter(({ id }) => bolts.some((bolt) => bolt.id === id)),
    };
  });
}
