import type { z } from 'zod';
import { clearanceAim } from '../clearance/clearanceAim.js';
import { bandsOf } from '../codes/markedBands.js';
import type { DrawerLine } from '../drawer/workshopDrawer.js';
import { freeHalves, isSameLine } from '../drawer/workshopDrawer.js';
import { clearanceKey, clearanceLimitsOf, type LimitKey, limitAt } from '../engineType/limits.js';
import { fitShellOf } from '../fit/format/fitShellOf.js';
import { problemShellOf } from '../fit/model/problemShellOf.js';
import { type EffectiveSize, middleOf, possibleSizes, readingsSpread } from '../measure/effectiveSize.js';
import { numberOfLength } from '../measure/formatLength.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { SizeBand } from '../measure/sizeBand.js';
import { type KitQuestion, kitQuestionSchema } from '../order/kitQuestion.js';
import { FAMILY_TABLE, type Family } from '../part/family.js';
import type { Feature } from '../part/feature.js';
import { featureOf, partName } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import { type MeasuredPart, measuredParts } from '../reading/measuredParts.js';
import { countsInSpread } from '../selection/countsInSpread.js';
import { hasRoom, scatterOf } from '../selection/readyStations.js';
import { shellLabel } from '../shell/half.js';
import type { JobShell } from '../shell/jobShell.js';
import { pinnedRods } from '../station/jobStations.js';
import type { JobDocument } from './jobDocument.js';
import { shellsOfSheet } from './jobOfType.js';

/** What a data sheet lacks for the question: a limit, or the grades of a family. */
export type KitGap = LimitKey | { readonly gradesOf: Family };

/** A band of a data sheet with how many parts of this workshop carried its mark. */
export interface SeenMark {
  readonly low: number;
  readonly high: number;
  readonly count: number;
}

/** What is asked of an order, beside the engine itself. */
export interface KitWishes {
  readonly families: readonly Family[];
  readonly rules: NonNullable<z.input<typeof kitQuestionSchema>['rules']>;
  readonly engines: number;
  readonly seed: number;
  /** How often each band of a feature was seen in this workshop; left out: bands are drawn evenly. */
  readonly seen?: Readonly<Partial<Record<Feature, readonly SeenMark[]>>>;
  /** The workshop's halves, which need not be ordered. */
  readonly drawer: readonly DrawerLine[];
}

export type KitAsked =
  | {
      readonly ok: true;
      readonly question: KitQuestion;
      /** From the ids of the question to the halves they stand for. */
      readonly shells: ReadonlyMap<string, JobShell>;
      /** Stations left out, for a size outside the data sheet keeps every shell from them. */
      readonly blocked: readonly string[];
    }
  | {
      readonly ok: false;
      /** What the data sheet lacks: limits, or the grades of a family; nothing where every station is blocked. */
      readonly missing: readonly KitGap[];
    };

/** All that a feature's size may be: from the smallest to the largest of its marks' bands, or its limits where it has no marks. */
function wholeBand(job: JobDocument, feature: Feature, number: number | null): SizeBand | null {
  const bands = bandsOf(job.sheet, feature);
  if (bands.length > 0) {
    const low = Math.min(...bands.map((band) => band.low));
    const high = Math.max(...bands.map((band) => band.high));
    return { low: nanometres(low), high: nanometres(high) };
  }
  const limit = limitAt(job, feature, number);
  return limit && { low: limit.low, high: limit.high };
}

function bandOf({ low, high }: Pick<SeenMark, 'low' | 'high'>): SizeBand {
  return { low: nanometres(low), high: nanometres(high) };
}

interface Place {
  readonly id: string;
  readonly family: Family;
  readonly bore: SizeBand;
  readonly journal: SizeBand;
  readonly low: Nanometres;
  readonly high: Nanometres;
  readonly aim: Nanometres;
  readonly fixed: boolean;
  /** True if it counts in the spread of its family. */
  readonly inSpread: boolean;
  /** The features of which nothing is known there but the bands of the data sheet, where it was told how often those were seen. */
  readonly boreSeen: Feature | null;
  readonly journalSeen: Feature | null;
  /** Smallest and largest reading; null where there are none, or all alike. */
  readonly boreReadings: SizeBand | null;
  readonly journalReadings: SizeBand | null;
}

function question(
  unit: KitQuestion['unit'],
  places: readonly Place[],
  halves: readonly JobShell[],
  wishes: KitWishes,
  prices: (shell: JobShell) => number,
): Omit<KitAsked & { ok: true }, 'blocked'> {
  const length = (value: Nanometres) => numberOfLength(value, unit);
  const band = ({ low, high }: SizeBand) => ({ low: length(low), high: length(high) });
  const onShelf = (shell: JobShell) =>
    wishes.drawer
      .filter(({ half }) => isSameLine(half, { ...shell, number: undefined }))
      .reduce((sum, line) => sum + freeHalves(line, null), 0);
  const shells = new Map(halves.map((shell) => [shellLabel(shell), shell]));
  return {
    ok: true,
    shells,
    question: kitQuestionSchema.parse({
      format: 'fettle.kit-question/1',
      unit,
      stations: places.map(
        ({ id, family, bore, journal, low, high, aim, fixed, inSpread, boreReadings, journalReadings, ...place }) => ({
          id,
          family,
          bore: band(bore),
          journal: band(journal),
          aim: length(aim),
          low: length(low),
          high: length(high),
          fixed,
          inSpread,
          ...(place.boreSeen ? { boreSeen: place.boreSeen } : {}),
          ...(place.journalSeen ? { journalSeen: place.journalSeen } : {}),
          ...(boreReadings ? { boreReadings: band(boreReadings) } : {}),
          ...(journalReadings ? { journalReadings: band(journalReadings) } : {}),
        }),
      ),
      shells: [...shells].map(([label, shell]) => ({
        ...fitShellOf(problemShellOf(label, label, shell, onShelf(shell)), unit),
        price: prices(shell),
      })),
      seen: Object.fromEntries(
        Object.entries(wishes.seen ?? {}).map(([feature, bands]) => [
          feature,
          bands.map(({ count, ...one }) => ({ ...band(bandOf(one)), count })),
        ]),
      ),
      rules: wishes.rules,
      engines: wishes.engines,
      seed: wishes.seed,
    }),
  };
}

/** What one half costs: as the drawer says for its kind; 0 where nobody has entered it. */
function priceIn(drawer: readonly DrawerLine[]) {
  return (shell: JobShell) =>
    drawer.find(({ half }) => isSameLine(half, { ...shell, number: undefined }))?.half.price ?? 0;
}

/**
 * The question which halves an engine needs, from all that is known of it: readings count as they are, marks by their bands, the rest
 * by all that the data sheet allows. With no readings and no marks it is the question for any engine of the type.
 */
export function kitQuestionOfJob(job: JobDocument, readings: readonly Reading[], wishes: KitWishes): KitAsked {
  const missing: KitGap[] = [];
  const places: Place[] = [];
  const blocked: string[] = [];
  const undersizes = new Map<Family, Set<string | null>>();
  for (const family of wishes.families) {
    if (!clearanceLimitsOf(job.limits, family)) missing.push(clearanceKey(family));
    if ((job.sheet?.[family].grades.length ?? 0) === 0) missing.push({ gradesOf: family });
    const whole = ([featureOf(family, 'housing'), featureOf(family, 'journal')] as const).map((feature) => {
      const band = wholeBand(job, feature, null);
      if (!band) missing.push(feature);
      return band;
    });
    if (!clearanceLimitsOf(job.limits, family) || whole.includes(null)) continue;
    const housings = measuredParts(job, readings, featureOf(family, 'housing'));
    const journals = measuredParts(job, readings, featureOf(family, 'journal'));
    const { housingsMove } = FAMILY_TABLE[family];
    const placed = housingsMove ? pinnedRods(job) : {};
    const kept = new Set(Object.values(placed));
    const open = housings.filter(({ number }) => !kept.has(number));
    const sized = ({ size, feature, number }: MeasuredPart): SizeBand =>
      size === null ? wholeBand(job, feature, number)! : possibleSizes(size);
    const seenOf = ({ size, feature }: MeasuredPart) =>
      size === null && bandsOf(job.sheet, feature).length > 0 && wishes.seen?.[feature] ? feature : null;
    const spreadOf = (size: EffectiveSize | null) => size && readingsSpread(size);
    undersizes.set(family, new Set(journals.map(({ undersize }) => undersize?.name ?? null)));
    for (const journal of journals) {
      const own = housings[(housingsMove ? (placed[journal.name] ?? 0) : journal.number) - 1];
      const housing = own ?? open.shift();
      if (!housing) continue;
      const clearance = limitAt(job, clearanceKey(family), journal.number)!;
      const findings = [...housing.findings, ...journal.findings];
      if (findings.length > 0 || !hasRoom(clearance, scatterOf(housing), scatterOf(journal))) {
        blocked.push(partName(featureOf(family, 'journal'), journal.number));
        continue;
      }
      const extra = job.rules.extras[journal.name] ?? nanometres(0);
      const aim = job.rules[FAMILY_TABLE[family].aim];
      const shaft = sized(journal);
      places.push({
        id: partName(featureOf(family, 'journal'), journal.number),
        family,
        bore: sized(housing),
        journal: shaft,
        ...clearance,
        boreSeen: seenOf(housing),
        journalSeen: seenOf(journal),
        boreReadings: spreadOf(housing.size),
        journalReadings: spreadOf(journal.size),
        aim: clearanceAim(aim, clearance, middleOf(shaft), extra)!,
        fixed: own !== undefined,
        inSpread: countsInSpread(job.rules, { family, number: journal.number }),
      });
    }
  }
  if (missing.length > 0 || !job.sheet) return { ok: false, missing };
  const halves = [...undersizes].flatMap(([family, names]) =>
    [...names].flatMap((name) => shellsOfSheet(job.sheet!, family, name)),
  );
  if (places.length === 0) return { ok: false, missing: [] };
  return { ...question(job.unit, places, halves, wishes, priceIn(wishes.drawer)), blocked };
}
