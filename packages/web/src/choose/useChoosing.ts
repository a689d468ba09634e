import {
  type AcceptedChoice,
  FAMILY_TABLE,
  type FitSolution,
  type JobStation,
  plannedHalves,
  rodCount,
  type ShaftShow,
} from '@fettle/core';
import { useMemo, useState } from 'react';
import { useQuery } from '../base/useQuery.js';
import { useFreeHalves } from '../drawer/useFreeHalves.js';
import { type ChosenStations, chosenStations } from '../fit/chosenStations.js';
import { type JobPlan, useJobPlan } from '../fit/useJobPlan.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { useBy } from '../person/useBy.js';
import { useClearances } from '../person/useClearances.js';
import { doubtsOf } from './doubtsOf.js';
import { readSince } from './readSince.js';
import { type SelectionFacts, selectionFacts } from './selectionFacts.js';
import { type Play, usePlay } from './usePlay.js';

/** With more columns than this, mains and rods are first shown one family at a time. */
const MOST_COLUMNS = 10;

export interface Choosing {
  readonly plan: JobPlan;
  readonly play: Play;
  /** Which of the two choices the line shows. */
  readonly showing: 'best' | 'accepted';
  readonly showWhich: (which: 'best' | 'accepted') => void;
  readonly halves: AcceptedChoice['stations'];
  readonly chosen: ChosenStations;
  /** Which families have columns, and the stations that they make. */
  readonly show: ShaftShow;
  readonly setShow: (show: ShaftShow) => void;
  readonly visible: readonly JobStation[];
  /** The station that is opened up. */
  readonly open: JobStation | null;
  readonly setOpen: (station: string | null) => void;
  readonly accept: () => void;
  /** Accepts a plan that is not the best one. */
  readonly take: (taken: FitSolution, what: string) => void;
  /** Takes the acceptance back; what was reserved goes back to the drawer. */
  readonly withdraw: () => void;
  /** What the selection that the line shows comes to. */
  readonly facts: SelectionFacts;
  /** What is to be known of the best choice before it is accepted. */
  readonly doubts: readonly string[];
  /** Stations of which a part was read again since the choice was accepted. */
  readonly readAgain: ReadonlySet<string>;
  /** Halves of the workshop that this engine may take; null while they are not known. */
  readonly free: ReadonlyMap<string, number> | null;
}

/** The choice of an engine while it is being made: the best plan, the accepted one, which of them is looked at, and what is tried out. */
export function useChoosing(job: OpenJob): Choosing {
  const change = useChangeDocument(job);
  const play = usePlay(job);
  const by = useBy();
  const { document, readings } = job;
  const { shown: clearances } = useClearances(document.unit);
  const { layout, choice, withRods } = document;
  const [selected, setOpen] = useQuery('station');
  const [wanted, showWhich] = useState<'best' | 'accepted'>('accepted');
  const [show, setShow] = useState<ShaftShow>(layout.mains + rodCount(layout) > MOST_COLUMNS ? 'mains' : 'both');
  const free = useFreeHalves(job);
  const plan = useJobPlan(document, readings, free);
  const showing = choice ? wanted : 'best';
  const halves = showing === 'accepted' ? (choice?.stations ?? {}) : plan.halves;
  const chosen = useMemo(() => chosenStations(document, readings, halves), [document, readings, halves]);
  // Pins carry other rods in the best choice than in the accepted one.
  const doubts = useMemo(() => {
    const { stations } = showing === 'best' ? chosen : chosenStations(document, readings, plan.halves);
    return doubtsOf(document, stations, plan.halves, clearances);
  }, [showing, chosen, document, readings, plan.halves, clearances]);
  const facts = useMemo(() => selectionFacts(document, chosen.stations, halves), [document, chosen, halves]);
  const readAgain = useMemo(() => readSince(chosen.stations, readings, choice), [chosen, readings, choice]);
  const shownAs = withRods ? show : 'mains';
  const visible = [...chosen.stations.values()].filter(
    ({ family }) => shownAs === 'both' || FAMILY_TABLE[family].words === shownAs,
  );
  // Whoever plays wants to see the new best choice, not the accepted one.
  const looking =
    <Step extends unknown[]>(step: (...with_: Step) => void) =>
    (...with_: Step) => {
      showWhich('best');
      step(...with_);
    };
  return {
    plan,
    play: {
      ...play,
      wish: looking(play.wish),
      lockRod: looking(play.lockRod),
      setExtra: looking(play.setExtra),
      remedy: looking(play.remedy),
    },
    showing,
    showWhich,
    halves,
    chosen,
    show: shownAs,
    setShow,
    visible,
    open: (selected !== null && chosen.stations.get(selected)) || null,
    setOpen,
    accept: () => {
      showWhich('accepted');
      change((old) => ({ ...old, choice: { at: new Date().toISOString(), by, stations: plan.halves } }));
    },
    take: (taken, what) => {
      if (!plan.asked.ok) return;
      const stations = plannedHalves(document, plan.asked, taken);
      showWhich('accepted');
      change((old) => ({ ...old, choice: { at: new Date().toISOString(), by, stations } }), `selection used: ${what}`);
    },
    withdraw: () => {
      showWhich('best');
      change((old) => ({ ...old, choice: null }), 'acceptance withdrawn');
    },
    facts,
    doubts,
    readAgain,
    free,
  };
}
