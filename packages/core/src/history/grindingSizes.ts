import { type DrawerLine, freeHalves } from '../drawer/workshopDrawer.js';
import type { JobDocument } from '../job/jobDocument.js';
import { jobFacts } from '../job/jobFacts.js';
import type { Family } from '../part/family.js';
import { featureOf } from '../part/feature.js';
import type { Reading } from '../part/reading.js';
import type { JournalSize, WornJournal } from './grindingPlan.js';

/** What is known of the journals of a family, for a grinding plan. */
export interface JournalsToPlan {
  readonly journals: readonly WornJournal[];
  /** The journals that were not read yet: without them there is no plan. */
  readonly unread: readonly string[];
  /** Standard and every undersize of the data sheet; empty where it gives no limits. */
  readonly sizes: readonly JournalSize[];
}

/** The pairs of a size on the shelf, of any grade: which grades they are is chosen after grinding. */
function pairsOnShelf(drawer: readonly DrawerLine[], family: Family, series: string, undersize: string): number {
  const own = drawer.filter(
    ({ half }) => half.family === family && half.series === series && (half.undersize ?? '') === undersize,
  );
  const of = (side: 'upper' | 'lower' | 'either') =>
    own.filter(({ half }) => half.half === side).reduce((sum, line) => sum + freeHalves(line, null), 0);
  const [upper, lower, either] = [of('upper'), of('lower'), of('either')];
  return Math.floor(Math.min((upper + lower + either) / 2, upper + either, lower + either));
}

/** What two halves of a size cost by the workshop's stock, the dearest of its grades; null where no price is known. */
function pairPrice(drawer: readonly DrawerLine[], family: Family, series: string, undersize: string): number | null {
  const prices = drawer.flatMap(({ half }) =>
    half.family === family && half.series === series && (half.undersize ?? '') === undersize && half.price !== null
      ? [half.price]
      : [],
  );
  return prices.length === 0 ? null : 2 * Math.max(...prices);
}

/**
 * The journals of a family as they are, and the sizes that its data sheet has for them, with what the workshop's stock holds and says of prices.
 *
 * @param readings current readings, any order
 */
export function journalsToPlan(
  job: JobDocument,
  readings: readonly Reading[],
  family: Family,
  drawer: readonly DrawerLine[],
): JournalsToPlan {
  const feature = featureOf(family, 'journal');
  const parts = jobFacts(job, readings).parts[feature];
  const codes = job.sheet?.[family];
  const series = codes?.series ?? '';
  const standard = job.limits[feature === 'pin' ? 'pin' : 'mainJournal'];
  const sized = (name: string, { low, high }: { readonly low: number; readonly high: number }): JournalSize => ({
    name,
    low,
    high,
    onShelf: pairsOnShelf(drawer, family, series, name),
    price: pairPrice(drawer, family, series, name),
  });
  return {
    journals: parts.flatMap(({ name, size, findings }): WornJournal[] =>
      size?.kind === 'read'
        ? [
            {
              id: name,
              smallest: size.smallest,
              largest: size.largest,
              isOutOfShape: findings.some(({ kind }) => kind !== 'size'),
            },
          ]
        : [],
    ),
    unread: parts.flatMap(({ name, size }) => (size?.kind === 'read' ? [] : [name])),
    sizes: standard
      ? [sized('', standard), ...(codes?.undersizes ?? []).map(({ name, journal }) => sized(name, journal))]
      : [],
  };
}
