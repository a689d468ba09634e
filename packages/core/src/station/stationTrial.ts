import { type Budget, budgetUncertainty, sumBudget } from '../measure/budget.js';
import type { EffectiveSize } from '../measure/effectiveSize.js';
import { readingUncertainty } from '../measure/instrument.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import { FAMILY_TABLE, type Family } from '../part/family.js';
import { featureOf } from '../part/feature.js';
import { isSwappedSince } from '../part/swappedSince.js';
import { instrumentFor } from '../reading/readWith.js';
import { isAsPredicted, whatToLookFor } from './assemblyOffset.js';
import { readingsOf, scaleOf, settingOf, sizeBudget, trialSetting, trialWarmth, wallsBudget } from './sources.js';
import type { StationJob } from './stationJob.js';
import { warmParts } from './trialAt20.js';
import { type MeasuredClearance, measuredClearance } from './trialClearance.js';
import type { Trial, TrialReading } from './trialSchema.js';
import { type TrialSteps, trialSteps } from './trialSteps.js';

/** What a trial of a station says, against what its parts let expect. */
export interface StationTrial {
  readonly trial: Trial;
  /** Keys of its readings that are far from the others and not confirmed: they do not count. */
  readonly suspect: ReadonlySet<string>;
  /** Null until something was read with its shells in. */
  readonly measured: MeasuredClearance | null;
  /** What each reading that counts comes to. */
  readonly steps: readonly TrialSteps[];
  /** Standard uncertainty of what was measured, nm. */
  readonly uMeasured: number;
  /** What that comes from. */
  readonly measuredBudget: Budget;
  /** From bore, journal and the walls that were in; null where one of them is missing. */
  readonly predicted: Nanometres | null;
  /** Measured minus predicted; null where either is missing. */
  readonly difference: Nanometres | null;
  /** Standard uncertainty of the difference, nm. */
  readonly u: number;
  /** What that comes from. */
  readonly budget: Budget;
  readonly isAsPredicted: boolean;
  /** What to look for before it is believed, the likeliest first; empty where it is as predicted. */
  readonly lookFor: readonly string[];
  /** Why it says nothing any more: what holds the housing is another now. Null while it does. */
  readonly isVoid: 'fasteners' | null;
  /**
   * What of the station is another since: its reading is of other parts then. `swapped`: halves changed places; `halves`: others were
   * accepted. Null: it is of the parts that are there.
   */
  readonly changed: 'halves' | 'swapped' | 'rod' | 'cap' | 'machined' | null;
  /** True if the fitter confirmed it, and nothing it rests on was corrected since. */
  readonly isConfirmed: boolean;
}

/** A part that a trial was made with: its size now, and when its readings were changed and why. */
export interface TriedPart {
  readonly name: string;
  readonly size: EffectiveSize | null;
  /** When a current reading was taken after the part was machined; null: never. */
  readonly machinedAt: string | null;
  /** When a current reading took the place of a wrong one; null: never. */
  readonly correctedAt: string | null;
}

/** Readings of one station further apart than this many standard uncertainties of their difference are asked about. A setting of ours. */
const FAR_APART = 5;

interface Place {
  readonly id: string;
  readonly family: Family;
  /** The rod on the pin now; null at a main, or while there is none. */
  readonly rod: number | null;
  readonly journal: TriedPart;
  /** The housing of a trial: that of the main, or of the rod with a number. */
  readonly housingOf: (rod: number | null) => TriedPart | null;
}

/** The sizes that a trial was made with, and what they are called among the sources of an uncertainty. */
interface TriedSizes {
  readonly bore: EffectiveSize | null;
  readonly journal: EffectiveSize | null;
  readonly boreOf: string;
  readonly journalOf: string;
}

/**
 * What is known of a measured clearance: the gauge, as it was zeroed, and the journal where a bore was read. Zeroed on the journal the gauge has
 * an error of its own at each station; brought to zero with the micrometer that read the journal, that one falls out (JCGM 100:2008, 5.2;
 * cited from memory).
 */
function measuredBudget(
  job: StationJob,
  trial: OneTrial,
  steps: readonly TrialSteps[],
  { mode }: MeasuredClearance,
  { id: station, family }: Pick<Place, 'id' | 'family'>,
  { journal, journalOf }: TriedSizes,
): Budget {
  const journals = featureOf(family, 'journal');
  const read = { key: `trial ${station} ${trial.at}`, of: `${station} with the shells in` };
  const by = new Map<string, number>();
  for (const { gauge } of steps) by.set(gauge, (by.get(gauge) ?? 0) + 1);
  const shared = (step: TrialSteps): Budget => {
    const { gauge, setOn, instrument, perDegree } = step;
    const scale = instrument.error?.kind === 'known' ? instrument.error.u : 0;
    return sumBudget([
      [setOn !== null ? settingOf(job, setOn) : trialSetting(job, gauge, mode === 'journal' ? station : null), 1],
      [scaleOf(job, instrument.key, scale), 1],
      [perDegree === null ? [] : trialWarmth(job, perDegree), 1],
    ]);
  };
  return sumBudget([
    ...steps.map((step) => [shared(step), 1 / steps.length] as const),
    [
      readingsOf(
        job,
        read,
        [...by].map(([instrument, count]) => ({ instrument, count })),
      ),
      1,
    ],
    [mode === 'journal' || journal === null ? [] : sizeBudget(job, journals, journalOf, journal), -1],
  ]);
}

/** What is known of measured minus predicted: what stands in both falls out. */
function differenceBudget(
  job: StationJob,
  trial: OneTrial,
  { id: station, family }: Pick<Place, 'id' | 'family'>,
  measured: Budget,
  { bore, journal, boreOf, journalOf }: TriedSizes,
): Budget {
  const half = ({ shell, label }: OneTrial['upper']) => ({ shell, label, band: job.shells[shell]?.band });
  return sumBudget([
    [measured, 1],
    [bore ? sizeBudget(job, featureOf(family, 'housing'), boreOf, bore) : [], -1],
    [journal ? sizeBudget(job, featureOf(family, 'journal'), journalOf, journal) : [], 1],
    [wallsBudget(job, station, { upper: half(trial.upper), lower: half(trial.lower) }), 1],
  ]);
}

/** A size that a trial was made with, where its part was machined since. */
function keptSize(nm: Nanometres | null | undefined): EffectiveSize | null {
  return nm == null ? null : { kind: 'read', nominal: nm, smallest: nm, largest: nm, count: 1 };
}

function isAfter(moment: string | null, at: string): boolean {
  return moment !== null && moment > at;
}

type OneTrial = Omit<Trial, 'earlier'>;

/**
 * What one trial says: measured against what the very parts it was made of let expect, with what is known of them now. A part that was
 * machined since counts with the size it had.
 */
function told(job: StationJob, trial: OneTrial, place: Place): StationTrial {
  const housing = place.housingOf(trial.rod);
  const isMachined = (part: TriedPart | null) => isAfter(part?.machinedAt ?? null, trial.at);
  const sizeOf = (part: TriedPart | null, kept: Nanometres | null | undefined) =>
    isMachined(part) ? keptSize(kept) : (part?.size ?? null);
  const bore = sizeOf(housing, trial.madeOf?.bore);
  const journal = sizeOf(place.journal, trial.madeOf?.journal);
  const parts = warmParts(job, place.family, { bore: bore?.nominal ?? null, journal: journal?.nominal ?? null }, [
    trial.upper.wall,
    trial.lower.wall,
  ]);
  const counted = countedReadings(job, trial, journal);
  const point = journal?.kind === 'read' ? journal : pointOf(journal);
  const stepped = counted.map((one) => ({ one, steps: trialSteps(job, place.family, one, trial, parts) }));
  const measured = measuredClearance(
    stepped.map(({ one, steps }) => ({ ...one, nm: steps?.counts ?? null })),
    point,
  );
  const steps = stepped.flatMap((each) => each.steps ?? []);
  const walls = trial.upper.wall + trial.lower.wall;
  const predicted = bore && journal ? nanometres(bore.nominal - journal.nominal - walls) : null;
  const difference = measured && predicted !== null ? nanometres(measured.nominal - predicted) : null;
  // What was read of a part before it was machined is no reading of it as it is now.
  const then = (part: TriedPart | null) => (isMachined(part) ? `, before ${trial.at}` : '');
  const sizes: TriedSizes = {
    bore,
    journal,
    boreOf: `bore ${housing?.name ?? place.id}${then(housing)}`,
    journalOf: `journal ${place.id}${then(place.journal)}`,
  };
  const known = measured ? measuredBudget(job, trial, steps, measured, place, sizes) : [];
  const areSwapped = isSwappedSince(job.assembly, [place.id], ['upper', 'lower'], trial.at);
  // Halves of one kind that changed places are other halves, each with a wall of its own.
  const at = { id: areSwapped ? `${place.id}, ${trial.at}` : place.id, family: place.family };
  const budget = measured ? differenceBudget(job, trial, at, known, sizes) : [];
  const u = budgetUncertainty(budget);
  const { since } = job.fasteners[place.family];
  const chosen = job.choice?.stations[place.id];
  const areOtherHalves =
    chosen !== undefined && (chosen.upper.shell !== trial.upper.shell || chosen.lower.shell !== trial.lower.shell);
  const isOtherRod =
    FAMILY_TABLE[place.family].housingsMove &&
    (trial.rod !== place.rod || isSwappedSince(job.assembly, [place.id], ['rod'], trial.at));
  const isCorrected = [housing, place.journal].some((part) => isAfter(part?.correctedAt ?? null, trial.at));
  return {
    trial,
    suspect: suspectTrialReadings(job, trial, journal),
    measured,
    steps,
    uMeasured: budgetUncertainty(known),
    measuredBudget: known,
    budget,
    predicted,
    difference,
    u,
    isAsPredicted: difference !== null && isAsPredicted({ difference, u }),
    lookFor: measured && predicted !== null ? whatToLookFor(measured.nominal, predicted, u) : [],
    isVoid: since !== null && trial.at < since ? 'fasteners' : null,
    changed: isOtherRod
      ? 'rod'
      : housing !== null && isSwappedSince(job.assembly, [housing.name], ['cap'], trial.at)
        ? 'cap'
        : isMachined(housing) || isMachined(place.journal)
          ? 'machined'
          : areSwapped
            ? 'swapped'
            : areOtherHalves
              ? 'halves'
              : null,
    isConfirmed: trial.isBelieved && !isCorrected,
  };
}

/** What a reading with the shells in says of the clearance, nm; null where it says nothing. */
function clearanceRead({ nm, mode }: TrialReading, journal: EffectiveSize | null): number | null {
  if (nm === null || mode === 'journal') return nm;
  return journal && nm - journal.nominal;
}

/**
 * The readings of a trial that are far from all others of it and were not confirmed, by their keys: of two the later one. They count
 * nowhere.
 */
export function suspectTrialReadings(
  job: Pick<StationJob, 'instruments' | 'registered' | 'using'>,
  { readings }: Pick<Trial, 'readings'>,
  journal: EffectiveSize | null,
): ReadonlySet<string> {
  const far =
    FAR_APART * Math.SQRT2 * readingUncertainty({ ...instrumentFor(job, 'trials'), setting: nanometres(0) }, 1);
  const read = Object.entries(readings).flatMap(([key, one]) => {
    const clearance = clearanceRead(one, journal);
    return clearance === null ? [] : [{ key, one, clearance }];
  });
  const suspect = read.filter(({ key, one, clearance }) => {
    if (one.confirmed === true) return false;
    const others = read.filter((other) => other.key !== key);
    const isLater = others.length !== 1 || others[0]!.one.at <= one.at;
    return others.length > 0 && isLater && others.every((other) => Math.abs(other.clearance - clearance) > far);
  });
  // Two read in one moment accuse each other: the second one is asked about.
  return new Set((read.length === 2 ? suspect.slice(-1) : suspect).map(({ key }) => key));
}

function countedReadings(job: StationJob, trial: OneTrial, journal: EffectiveSize | null): TrialReading[] {
  const suspect = suspectTrialReadings(job, trial, journal);
  return Object.entries(trial.readings).flatMap(([key, one]) => (suspect.has(key) ? [] : [one]));
}

/** A size that is only marked, as its middle: a band is no scatter of readings. */
function pointOf(size: EffectiveSize | null): EffectiveSize | null {
  return size && { ...size, smallest: size.nominal, largest: size.nominal };
}

/** The trials of a station: the one that stands, and those before it, oldest first. Null and none where nothing was tried. */
export function stationTrials(
  job: StationJob,
  place: Place,
): { readonly tried: StationTrial | null; readonly earlier: readonly StationTrial[] } {
  const trial = job.trials[place.id];
  if (!trial) return { tried: null, earlier: [] };
  return {
    tried: told(job, trial, place),
    earlier: (trial.earlier ?? []).map((one) => told(job, one, place)),
  };
}
