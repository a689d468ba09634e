import { changesBetween, type Json } from '../document/mergeThreeWays.js';
import { type DrawerLine, freeHalves } from '../drawer/workshopDrawer.js';
import type { FitProblem } from '../fit/model/fitProblem.js';
import type { FitSolution } from '../fit/model/fitSolution.js';
import { problemShellOf } from '../fit/model/problemShellOf.js';
import type { Nanometres } from '../measure/nanometres.js';
import type { Reading } from '../part/reading.js';
import type { AcceptedChoice } from '../shell/acceptedChoice.js';
import { shellLabel } from '../shell/half.js';
import { type JobFit, jobFit } from './jobFit.js';
import { plannedHalves } from './plannedHalves.js';
import type { SelectionJob } from './selectionJob.js';

/** An engine that is to be fitted together with others. */
export interface OneOfJobs {
  readonly id: string;
  readonly document: SelectionJob;
  readonly readings: readonly Reading[];
}

/** Why an engine is left out of fitting together. */
export interface JobsLeftOut {
  readonly job: string;
  readonly reason: 'nothing-to-choose' | 'not-on-the-drawer' | 'other-rules' | 'other-unit';
}

/** Engines with one problem over all of them. */
export interface JobsFit {
  /** Null when no engine is left. */
  readonly problem: FitProblem | null;
  readonly jobs: readonly { readonly job: OneOfJobs; readonly name: string; readonly asked: JobFit & { ok: true } }[];
  readonly leftOut: readonly JobsLeftOut[];
}

/** True if two engines have the rules in common that one problem can have only once; mixing can be forbidden station by station. */
function hasSameRules(one: FitProblem, other: FitProblem): boolean {
  const common = ({ rules }: FitProblem) => ({ ...rules, mixedHalves: true }) as unknown as Json;
  return changesBetween(common(one), common(other)).length === 0;
}

/** A copy of an engine that knows the workshop's halves only. */
function onWorkshopHalves(document: SelectionJob): SelectionJob {
  const shells = Object.fromEntries(Object.entries(document.shells).filter(([, { line }]) => line !== null));
  return { ...document, shells };
}

/**
 * One problem over several engines that draw on the workshop's drawer. Halves of an engine's own do not take part. What these
 * engines have reserved themselves is free again for all of them; what others have reserved is not. Engines whose unit or rules
 * differ from the first one's are left out and named: one problem has one unit and one set of rules.
 */
export function jobsFit(all: readonly OneOfJobs[], drawer: readonly DrawerLine[]): JobsFit {
  const ids = new Set(all.map(({ id }) => id));
  const free = new Map(
    drawer.map((line) => {
      const reservations = line.reservations.filter(({ job }) => !ids.has(job));
      return [line.id, freeHalves({ ...line, reservations }, null)] as const;
    }),
  );
  const jobs: { job: OneOfJobs; name: string; asked: JobFit & { ok: true } }[] = [];
  const leftOut: JobsLeftOut[] = [];
  const taken = new Set<string>();
  for (const job of all) {
    const document = onWorkshopHalves(job.document);
    const asked = jobFit(document, job.readings, free);
    const [first] = jobs;
    if (Object.keys(document.shells).length === 0) leftOut.push({ job: job.id, reason: 'not-on-the-drawer' });
    else if (!asked.ok) leftOut.push({ job: job.id, reason: 'nothing-to-choose' });
    else if (first && first.asked.problem.unit !== asked.problem.unit)
      leftOut.push({ job: job.id, reason: 'other-unit' });
    else if (first && !hasSameRules(first.asked.problem, asked.problem)) {
      leftOut.push({ job: job.id, reason: 'other-rules' });
    } else {
      let name = job.document.name;
      for (let copy = 2; taken.has(name); copy += 1) name = `${job.document.name} #${copy}`;
      taken.add(name);
      jobs.push({ job, name, asked });
    }
  }
  const [first] = jobs;
  if (!first) return { problem: null, jobs, leftOut };
  const lines = drawer.filter(({ id }) => jobs.some(({ job }) => drawsOn(job, id)));
  return {
    jobs,
    leftOut,
    problem: {
      unit: first.asked.problem.unit,
      stations: jobs.flatMap(({ job, name, asked }) =>
        asked.problem.stations.map((station) => ({
          ...station,
          id: idAmongJobs(job, station.id),
          name: `${name} ${station.name}`,
          engine: job.id,
        })),
      ),
      housings: jobs.flatMap(({ job, name, asked }) =>
        asked.problem.housings.map((housing) => ({
          ...housing,
          id: idAmongJobs(job, housing.id),
          name: `${name} ${housing.name}`,
          engine: job.id,
          station: housing.station === null ? null : idAmongJobs(job, housing.station),
        })),
      ),
      shells: lines.map(({ id, half }) => problemShellOf(id, shellLabel(half), half, free.get(id) ?? 0)),
      rules: { ...first.asked.problem.rules, mixedHalves: true },
      wishes: {
        hold: jobs.flatMap(({ job, asked }) =>
          asked.problem.wishes.hold.map(({ station, housing, upper, lower }) => ({
            station: idAmongJobs(job, station),
            housing: housing === undefined ? undefined : idAmongJobs(job, housing),
            upper: lineOf(job, upper),
            lower: lineOf(job, lower),
          })),
        ),
        forbid: jobs.flatMap(({ job, asked }) => [
          ...asked.problem.wishes.forbid.map(({ station, housing, shell, mixed }) => ({
            station: idAmongJobs(job, station),
            housing: housing === undefined ? undefined : idAmongJobs(job, housing),
            shell: lineOf(job, shell),
            mixed,
          })),
          ...(job.document.rules.mixedHalves
            ? []
            : asked.problem.stations.map(({ id }) => ({ station: idAmongJobs(job, id), mixed: true as const }))),
          ...lines
            .filter(({ id }) => !drawsOn(job, id))
            .flatMap(({ id: shell, half }) =>
              asked.problem.stations
                .filter(({ family }) => family === half.family)
                .map(({ id }) => ({ station: idAmongJobs(job, id), shell })),
            ),
        ]),
      },
    },
  };
}

/** The id of a station or a housing of one engine in a problem over several. */
function idAmongJobs({ id: job }: OneOfJobs, id: string): string {
  return `${job} ${id}`;
}

/** True if an engine lists a line of the drawer. */
function drawsOn({ document }: OneOfJobs, line: string): boolean {
  return Object.values(document.shells).some((shell) => shell.line === line);
}

/** The drawer's line of a half of the engine's list. */
function lineOf({ document }: OneOfJobs, shell: string | undefined): string | undefined {
  return shell === undefined ? undefined : (document.shells[shell]!.line ?? undefined);
}

/** One engine's part of a plan made together. */
export interface JobsChoice {
  readonly job: OneOfJobs;
  readonly stations: AcceptedChoice['stations'];
  /** Largest minus smallest deviation of its mains; null where there are none. */
  readonly spread: Nanometres | null;
}

/** Shares a plan made together out to its engines, each in its own shells and stations, ready to be accepted. */
export function jobsChoices({ jobs }: JobsFit, plan: FitSolution): JobsChoice[] {
  const planned = new Map(plan.stations.map((station) => [station.id, station]));
  return jobs.map(({ job, asked }) => {
    const shells = new Map(Object.entries(job.document.shells).map(([id, { line }]) => [line, id]));
    const housings = new Map(asked.problem.housings.map(({ id }) => [idAmongJobs(job, id), id]));
    const stations = asked.problem.stations.flatMap(({ id }) => {
      const found = planned.get(idAmongJobs(job, id));
      if (!found) return [];
      const [upper, lower] = [shells.get(found.upper)!, shells.get(found.lower)!];
      return [{ ...found, id, housing: housings.get(found.housing)!, upper, lower }];
    });
    const spread = plan.spread.find(({ engine, family }) => engine === job.id && family === 'main');
    return { job, stations: plannedHalves(job.document, asked, { stations }), spread: spread?.value ?? null };
  });
}

/** What a message about a plan made together calls a kind of half. */
export function drawerLabel(drawer: readonly DrawerLine[], id: string): string {
  const line = drawer.find((one) => one.id === id);
  return line ? shellLabel(line.half) : id;
}
