import {
  type Candidate,
  CLEARANCE_DECIMALS,
  type Family,
  formatLength,
  type JobStation,
  nearestCandidate,
  pairVerdict,
  type StationState,
} from '@fettle/core';
import { useMemo } from 'react';
import { chosenStations } from '../choose/chosenStations.js';
import type { OpenJob } from '../job/useJob.js';
import { Quiet } from '../look/Panel.js';
import { StateMark } from '../look/StateMark.js';
import { ShaftLine } from '../shaft/ShaftLine.js';

interface Outcome {
  readonly clearance: string | null;
  readonly state: StationState;
  /** The halves it is with. */
  readonly halves: string;
}

function outcomeOf(
  { document }: OpenJob,
  station: JobStation,
  { candidates, verdicts }: ReturnType<typeof chosenStations>,
): Outcome {
  const { unit, shells, choice } = document;
  const text = (value: Candidate['clearance']['nominal']) => formatLength(value, unit, CLEARANCE_DECIMALS[unit]);
  const grade = (id: string) => shells[id]?.grade ?? '';
  const pairText = (upper: string, lower: string) => (upper === lower ? upper : `${upper} over ${lower}`);
  const accepted = choice?.stations[station.id];
  const verdict = verdicts.get(station.id)!;
  if (accepted) {
    return {
      clearance: verdict.clearance ? text(verdict.clearance.nominal) : null,
      state: verdict.state,
      halves: pairText(grade(accepted.upper.shell), grade(accepted.lower.shell)),
    };
  }
  const best = nearestCandidate(candidates.get(station.id) ?? []);
  if (!best) return { clearance: null, state: verdict.state, halves: '' };
  return {
    clearance: text(best.clearance.nominal),
    state: pairVerdict(document, station, best).state,
    halves: pairText(grade(best.upper), grade(best.lower)),
  };
}

/** What the sizes that were read so far lead to, station by station: with the accepted halves, or with those that come nearest to the aim. */
export function LeadsTo({ job, family }: { readonly job: OpenJob; readonly family: Family }) {
  const { document, readings } = job;
  const chosen = useMemo(
    () => chosenStations(document, readings, document.choice?.stations ?? {}),
    [document, readings],
  );
  const stations = [...chosen.stations.values()].filter((station) => station.family === family);
  if (Object.keys(document.shells).length === 0 || stations.every(({ bore, journal }) => !bore || !journal))
    return null;
  const outcomes = new Map(stations.map((station) => [station.id, outcomeOf(job, station, chosen)]));
  return (
    <section aria-label="What these sizes lead to">
      <ShaftLine
        layout={document.layout}
        show={family === 'rod' ? 'rods' : 'mains'}
        drawingHeight={0}
        rows={[
          {
            key: 'clearance',
            label: (
              <>
                Leads to
                <small>clearance, {document.unit}</small>
              </>
            ),
            cell: ({ key }) => <strong className="figure">{outcomes.get(key)?.clearance ?? '·'}</strong>,
          },
          {
            key: 'halves',
            label: 'With',
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
        {document.choice
          ? 'With the accepted halves; a station that is not in the choice with those nearest to its aim.'
          : 'Each station alone with the halves nearest to its aim; the choice weighs all of them, and what is in the drawer.'}
      </Quiet>
    </section>
  );
}
