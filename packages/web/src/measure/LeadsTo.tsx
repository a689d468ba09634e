import {
  type AcceptedChoice,
  type Candidate,
  CLEARANCE_DECIMALS,
  FAMILY_TABLE,
  type Family,
  formatLength,
  type JobStation,
  nearestCandidate,
  pairVerdict,
  type ShownUnit,
  type StationState,
} from '@fettle/core';
import { type RefObject, useMemo, useRef } from 'react';
import { useAfterFrame } from '../base/useAfterFrame.js';
import { useFreeHalves } from '../drawer/useFreeHalves.js';
import { chosenStations } from '../fit/chosenStations.js';
import { type JobPlan, useJobPlan } from '../fit/useJobPlan.js';
import type { OpenJob } from '../job/useJob.js';
import { useClearances } from '../person/useClearances.js';
import { ShaftLine } from '../shaft/ShaftLine.js';
import { Quiet } from '../ui/Panel.js';
import { StateMark } from '../ui/StateMark.js';
import { type Foreseen, foreseenFor, halvesSoFar } from './foreseen.js';

interface Outcome {
  readonly clearance: string | null;
  readonly state: StationState;
  /** The halves it is with. */
  readonly halves: string;
}

function outcomeOf(
  { document }: OpenJob,
  station: JobStation,
  halves: AcceptedChoice['stations'],
  { verdicts }: ReturnType<typeof chosenStations>,
  unit: ShownUnit,
): Outcome {
  const { shells } = document;
  const text = (value: Candidate['clearance']['nominal']) => formatLength(value, unit, CLEARANCE_DECIMALS[unit]);
  const grade = (id: string) => shells[id]?.grade ?? '';
  const pairText = (upper: string, lower: string) => (upper === lower ? upper : `${upper} over ${lower}`);
  const chosen = halves[station.id];
  const verdict = verdicts.get(station.id)!;
  if (chosen) {
    return {
      clearance: verdict.clearance ? text(verdict.clearance.nominal) : null,
      state: verdict.state,
      halves: pairText(grade(chosen.upper.shell), grade(chosen.lower.shell)),
    };
  }
  const best = nearestCandidate(document, station);
  if (!best) return { clearance: null, state: verdict.state, halves: '' };
  return {
    clearance: text(best.clearance.nominal),
    state: pairVerdict(document, station, best).state,
    halves: pairText(grade(best.upper), grade(best.lower)),
  };
}

/**
 * The halves of the best choice, and until a search that has just begun is over those that were foreseen, or of the one before.
 *
 * @param isCurrent whether the plan is for the figures as they are
 */
function useBestHalves(
  plan: JobPlan,
  isCurrent: boolean,
  foreseen: AcceptedChoice['stations'] | null,
): AcceptedChoice['stations'] {
  const kept = useRef(plan.halves);
  const found = plan.plan !== null || !plan.asked.ok ? plan.halves : null;
  kept.current = halvesSoFar(found, isCurrent, foreseen, kept.current);
  return kept.current;
}

interface LeadsToProps {
  readonly job: OpenJob;
  readonly family: Family;
  /** What the last figure was found to lead to while it was typed. */
  readonly foreseen: RefObject<Foreseen | null>;
}

/**
 * What the sizes that were read so far lead to, station by station: with the accepted halves; with those of the best choice, searched anew with
 * each figure; or, where a station is in neither, with those that come nearest to its aim.
 */
export function LeadsTo({ job, family, foreseen }: LeadsToProps) {
  const { document, readings } = job;
  const { shown } = useClearances(document.unit);
  // The sizes are shown with the halves of the best choice at once; whether others are better now is searched for after that.
  const searched = useAfterFrame(job);
  const plan = useJobPlan(searched.document, searched.readings, useFreeHalves(searched));
  const best = useBestHalves(plan, searched === job, foreseenFor(foreseen.current, job));
  const halves = document.choice?.stations ?? best;
  const chosen = useMemo(() => chosenStations(document, readings, halves), [document, readings, halves]);
  const stations = [...chosen.stations.values()].filter((station) => station.family === family);
  const isUnknown = stations.every(({ bore, journal }) => !bore || !journal);
  // Rods that may go on any pin have their place once the search has found it: until then it is kept free.
  const isToCome =
    plan.asked.ok &&
    plan.plan === null &&
    plan.fault === null &&
    !plan.isCancelled &&
    plan.asked.problem.stations.some((station) => station.family === family);
  if (Object.keys(document.shells).length === 0 || (isUnknown && !isToCome)) return null;
  const outcomes = new Map(stations.map((station) => [station.id, outcomeOf(job, station, halves, chosen, shown)]));
  return (
    <section aria-label="What these sizes lead to">
      <ShaftLine
        label="Result by station"
        layout={document.layout}
        show={FAMILY_TABLE[family].isWithRods ? 'rods' : 'mains'}
        drawingHeight={0}
        rows={[
          {
            key: 'clearance',
            label: (
              <>
                Result<small>clearance, {shown}</small>
              </>
            ),
            cell: ({ key }) => <strong className="figure">{outcomes.get(key)?.clearance ?? '·'}</strong>,
          },
          {
            key: 'halves',
            label: 'Shells',
            cell: ({ key }) => <span style={{ fontSize: 'var(--size-small)' }}>{outcomes.get(key)?.halves}</span>,
          },
          {
            key: 'state',
            label: 'Verdict',
            cell: ({ key }) => {
              const outcome = outcomes.get(key);
              return (
                outcome && (
                  <span style={{ alignSelf: 'center' }}>
                    <StateMark state={outcome.state} />
                  </span>
                )
              );
            },
          },
        ]}
      />
      <Quiet>
        {isUnknown
          ? 'Placing the rods …'
          : document.choice
            ? 'With the accepted shells; stations outside the selection with those nearest target.'
            : stations.some(({ id }) => best[id])
              ? 'With the best selection so far; stations not in it with the shells nearest target.'
              : 'Each station alone, nearest pair. The selection weighs all.'}
      </Quiet>
    </section>
  );
}
