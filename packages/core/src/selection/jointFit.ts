import { changesBetween, type Json } from '../document/mergeThreeWays.js';
import { type DrawerLine, freeHalves } from '../drawer/workshopDrawer.js';
import type { FitPlan } from '../fit/format/fitPlan.js';
import type { FitRequestInput } from '../fit/format/fitRequest.js';
import { fitShellOf } from '../fit/format/fitShellOf.js';
import { lengthOfNumber } from '../measure/lengthOfNumber.js';
import type { Reading } from '../part/reading.js';
import type { AcceptedChoice } from '../shell/acceptedChoice.js';
import { shellLabel } from '../shell/half.js';
import { type JobFit, jobFit, plannedHalves } from './jobFit.js';
import type { SelectionJob } from './selectionJob.js';

/** An engine that is to be fitted together with others. */
export interface JointJob {
  readonly id: string;
  readonly document: SelectionJob;
  readonly readings: readonly Reading[];
}

/** Why an engine is left out of fitting together. */
export interface JointLeftOut {
  readonly job: string;
  readonly reason: 'nothing-to-choose' | 'not-on-the-drawer' | 'other-rules' | 'other-unit';
}

/** Engines with one fit request over all of them. */
export interface JointFit {
  /** Null when no engine is left. */
  readonly request: FitRequestInput | null;
  readonly jobs: readonly { readonly job: JointJob; readonly name: string; readonly asked: JobFit & { ok: true } }[];
  readonly leftOut: readonly JointLeftOut[];
}

/** Whether two engines have the rules in common that one request can have only once; mixing can be forbidden station by station. */
function hasSameRules(one: FitRequestInput, other: FitRequestInput): boolean {
  const common = ({ rules }: FitRequestInput) => ({ ...rules, mixedHalves: true }) as Json;
  return changesBetween(common(one), common(other)).length === 0;
}

/** A copy of an engine that knows the workshop's halves only. */
function onWorkshopHalves(document: SelectionJob): SelectionJob {
  const shells = Object.fromEntries(Object.entries(document.shells).filter(([, { line }]) => line !== null));
  return { ...document, shells };
}

/**
 * One fit request over several engines that draw on the workshop's drawer. Halves of an engine's own do not take part. What these
 * engines have reserved themselves is free again for all of them; what others have reserved is not. Engines whose unit or rules
 * differ from the first one's are left out and named: one request has one unit and one set of rules.
 */
export function jointFit(all: readonly JointJob[], drawer: readonly DrawerLine[]): JointFit {
  const ids = new Set(all.map(({ id }) => id));
  const free = new Map(
    drawer.map((line) => {
      const reservations = line.reservations.filter(({ job }) => !ids.has(job));
      return [line.id, freeHalves({ ...line, reservations }, null)] as const;
    }),
  );
  const jobs: { job: JointJob; name: string; asked: JobFit & { ok: true } }[] = [];
  const leftOut: JointLeftOut[] = [];
  const taken = new Set<string>();
  for (const job of all) {
    const document = onWorkshopHalves(job.document);
    const asked = jobFit(document, job.readings, free);
    const [first] = jobs;
    if (Object.keys(document.shells).length === 0) leftOut.push({ job: job.id, reason: 'not-on-the-drawer' });
    else if (!asked.ok) leftOut.push({ job: job.id, reason: 'nothing-to-choose' });
    else if (first && first.asked.request.unit !== asked.request.unit)
      leftOut.push({ job: job.id, reason: 'other-unit' });
    else if (first && !hasSameRules(first.asked.request, asked.request)) {
      leftOut.push({ job: job.id, reason: 'other-rules' });
    } else {
      let name = job.document.name;
      for (let copy = 2; taken.has(name); copy += 1) name = `${job.document.name} #${copy}`;
      taken.add(name);
      jobs.push({ job, name, asked });
    }
  }
  const [first] = jobs;
  if (!first) return { request: null, jobs, leftOut };
  const used = new Set(jobs.flatMap(({ job }) => Object.values(job.document.shells).flatMap(({ line }) => line ?? [])));
  const { unit } = first.asked.request;
  return {
    jobs,
    leftOut,
    request: {
      format: 'fettle.fit-request/1',
      unit,
      stations: jobs.flatMap(({ job, name, asked }) =>
        asked.request.stations.map((station) => ({ ...station, id: jointName(name, station.id), engine: job.id })),
      ),
      housings: jobs.flatMap(({ job, name, asked }) =>
        asked.request.housings.map((housing) => ({
          ...housing,
          id: jointName(name, housing.id),
          engine: job.id,
          station: housing.station == null ? null : jointName(name, housing.station),
        })),
      ),
      shells: drawer
        .filter(({ id }) => used.has(id))
        .map(({ id, half }) => fitShellOf(id, half, unit, free.get(id) ?? 0)),
      rules: { ...first.asked.request.rules, mixedHalves: true },
      wishes: {
        hold: jobs.flatMap(({ job, name, asked }) =>
          (asked.request.wishes?.hold ?? []).map((hold) => ({
            ...hold,
            ...inLines(job, asked, hold),
            station: jointName(name, hold.station),
          })),
        ),
        forbid: jobs.flatMap(({ job, name, asked }) => [
          ...(asked.request.wishes?.forbid ?? []).map((forbid) => ({
            ...forbid,
            ...inLines(job, asked, forbid),
            station: jointName(name, forbid.station),
          })),
          ...(job.document.rules.mixedHalves
            ? []
            : asked.request.stations.map(({ id }) => ({ station: jointName(name, id), mixed: true as const }))),
          ...strangers(job, drawer, used).flatMap(({ id: shell, half }) =>
            asked.request.stations
              .filter(({ family }) => family === half.family)
              .map(({ id }) => ({ station: jointName(name, id), shell })),
          ),
        ]),
      },
    },
  };
}

/** What a station or a housing of an engine is called in a request over several. */
function jointName(engine: string, id: string): string {
  return `${engine} ${id}`;
}

/** Kinds of half that other engines draw on and this one does not. */
function strangers(job: JointJob, drawer: readonly DrawerLine[], used: ReadonlySet<string>): DrawerLine[] {
  const own = new Set(Object.values(job.document.shells).map(({ line }) => line));
  return drawer.filter(({ id }) => used.has(id) && !own.has(id));
}

/** The shells of a wish by the drawer's ids instead of the engine's names. */
function inLines(
  job: JointJob,
  asked: JobFit & { ok: true },
  wish: { upper?: string | undefined; lower?: string | undefined; shell?: string | undefined },
): { upper?: string; lower?: string; shell?: string } {
  const lineOf = (name: string) => job.document.shells[asked.shellIds.get(name) ?? '']?.line ?? name;
  return {
    ...(wish.upper === undefined ? {} : { upper: lineOf(wish.upper) }),
    ...(wish.lower === undefined ? {} : { lower: lineOf(wish.lower) }),
    ...(wish.shell === undefined ? {} : { shell: lineOf(wish.shell) }),
  };
}

/** One engine's part of a plan made together. */
export interface JointChoice {
  readonly job: JointJob;
  readonly stations: AcceptedChoice['stations'];
  /** Largest minus smallest deviation of its mains, nm; null where there are none. */
  readonly spread: number | null;
}

/** Shares a plan made together out to its engines, each in its own shells and stations, ready to be accepted. */
export function jointChoices({ jobs }: JointFit, plan: FitPlan): JointChoice[] {
  return jobs.map(({ job, name, asked }) => {
    const nameOf = new Map([...asked.shellIds].map(([label, id]) => [job.document.shells[id]!.line, label]));
    const housings = new Map(asked.request.housings.map(({ id }) => [jointName(name, id), id]));
    const own = asked.request.stations.flatMap(({ id }) => {
      const planned = plan.stations.find((station) => station.id === jointName(name, id));
      if (!planned) return [];
      return [
        {
          ...planned,
          id,
          housing: housings.get(planned.housing)!,
          upper: nameOf.get(planned.upper)!,
          lower: nameOf.get(planned.lower)!,
        },
      ];
    });
    const found = plan.spread.find(({ engine, family }) => engine === job.id && family === 'main');
    return {
      job,
      stations: plannedHalves(job.document, asked, { ...plan, stations: own }),
      spread: found ? lengthOfNumber(found.value, plan.unit) : null,
    };
  });
}

/** What a message about a plan made together calls a kind of half. */
export function drawerLabel(drawer: readonly DrawerLine[], id: string): string {
  const line = drawer.find((one) => one.id === id);
  return line ? shellLabel(line.half) : id;
}
