import { cutText } from '../document/storableText.js';
import { clearanceKey, clearanceLimitsOf } from '../engineType/limits.js';
import type { ChangedRules, Remedy } from '../fit/model/fitSolution.js';
import { FAMILIES, FAMILY_TABLE } from '../part/family.js';
import { type Feature, featureOf, partName } from '../part/feature.js';
import type { JobShell } from '../shell/jobShell.js';
import type { JobFit } from './jobFit.js';
import type { SelectionJob } from './selectionJob.js';

/** What a remedy comes to in a job: a change of it, or something that is done elsewhere. */
export type JobRemedy =
  | { readonly kind: 'change'; readonly change: <Job extends SelectionJob>(job: Job) => Job }
  /** Halves of the workshop: they are put into its drawer. */
  | { readonly kind: 'receive' }
  /** A journal is ground, and then read again. */
  | { readonly kind: 'grind'; readonly feature: Feature };

type Asked = JobFit & { ok: true };

const SOURCE_CHANGED = ' (limit moved here)';

function released(station: string) {
  return <Job extends SelectionJob>(job: Job): Job => {
    const { [station]: _, ...wishes } = job.wishes;
    return { ...job, wishes };
  };
}

function rodLetGo(rod: number) {
  return <Job extends SelectionJob>(job: Job): Job => {
    const kept = job.rods[String(rod)];
    return kept ? { ...job, rods: { ...job.rods, [String(rod)]: { ...kept, pin: null } } } : job;
  };
}

/** Halves that are there now: more of those that are counted, and new ones with walls of their own. */
function withHalves({ shells, newShells = [] }: Remedy, newId: () => string) {
  const made = newShells.map((one): readonly [string, JobShell] => [
    newId(),
    {
      family: one.family,
      series: one.series,
      grade: cutText(one.name, 40),
      half: one.half,
      wall: one.wall,
      ...(one.width === undefined ? {} : { width: one.width }),
      ...(one.undersize === '' ? {} : { undersize: one.undersize }),
      ...(one.positions === undefined ? {} : { positions: [...one.positions] }),
      stock: one.stock,
      line: null,
    },
  ]);
  return <Job extends SelectionJob>(job: Job): Job => {
    const more = shells.flatMap(({ id, count }): (readonly [string, JobShell])[] => {
      const known = job.shells[id];
      // Halves that nobody had counted are counted from now on.
      return known && known.line === null ? [[id, { ...known, stock: (known.stock ?? 0) + count }]] : [];
    });
    return { ...job, shells: { ...job.shells, ...Object.fromEntries([...more, ...made]) } };
  };
}

function withRules({ maxSpread, ...plain }: ChangedRules) {
  return <Job extends SelectionJob>(job: Job): Job => ({
    ...job,
    rules: {
      ...job.rules,
      ...plain,
      ...(maxSpread?.main === undefined ? {} : { maxSpread: maxSpread.main }),
      ...(maxSpread?.rod === undefined ? {} : { maxRodSpread: maxSpread.rod }),
    },
  });
}

/** Number of a main by the id of its station, as its limits are kept; null where it is none. */
function mainOf({ layout }: SelectionJob, station: string | undefined): string | null {
  const numbers = Array.from({ length: layout.mains }, (_, at) => at + 1);
  const found = numbers.find((number) => partName('mainJournal', number) === station);
  return found === undefined ? null : String(found);
}

/** A limit holds for its whole family, or for one main of its own; that it was moved stands beside its source. */
function withLimit(asked: Asked, { stations, limit }: Remedy) {
  const { side, value } = limit!;
  const family = asked.problem.stations.find(({ id }) => id === stations[0])?.family ?? FAMILIES[0];
  const key = clearanceKey(family);
  return <Job extends SelectionJob>(job: Job): Job => {
    const number = FAMILY_TABLE[family].isInLine ? mainOf(job, stations[0]) : null;
    const own = number === null ? undefined : job.mainLimits[number];
    const known = own?.mainClearance ?? clearanceLimitsOf(job.limits, family);
    if (!known) return job;
    const source = known.source.endsWith(SOURCE_CHANGED)
      ? known.source
      : `${cutText(known.source, 200 - SOURCE_CHANGED.length)}${SOURCE_CHANGED}`;
    const moved = { ...known, [side]: value, source };
    return own?.mainClearance && number !== null
      ? { ...job, mainLimits: { ...job.mainLimits, [number]: { ...own, mainClearance: moved } } }
      : { ...job, limits: { ...job.limits, [key]: moved } };
  };
}

/**
 * What a remedy of a conflict comes to in the job that was asked for, from the remedy's data.
 *
 * @param newId makes an id for a half that is new
 * @returns null where the job has nothing that the remedy could be done to
 */
export function remedyForJob(job: SelectionJob, asked: Asked, remedy: Remedy, newId: () => string): JobRemedy | null {
  const [station] = remedy.stations;
  switch (remedy.kind) {
    case 'release':
      return station === undefined ? null : { kind: 'change', change: released(station) };
    case 'move-rod': {
      const [housing] = remedy.housings ?? [];
      const rod = housing === undefined ? undefined : asked.rodNumbers.get(housing);
      return rod === undefined ? null : { kind: 'change', change: rodLetGo(rod) };
    }
    case 'buy':
    case 'wall': {
      const isWorkshops = remedy.shells.some(({ id }) => job.shells[id]?.line != null);
      return isWorkshops ? { kind: 'receive' } : { kind: 'change', change: withHalves(remedy, newId) };
    }
    case 'rule':
      return remedy.rules ? { kind: 'change', change: withRules(remedy.rules) } : null;
    case 'limit':
      return remedy.limit ? { kind: 'change', change: withLimit(asked, remedy) } : null;
    case 'regrind': {
      const family = asked.problem.stations.find(({ id }) => id === station)?.family;
      return family ? { kind: 'grind', feature: featureOf(family, 'journal') } : null;
    }
  }
}
