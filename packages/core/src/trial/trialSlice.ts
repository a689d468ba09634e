import { calibrationDue, INSTRUMENT_ROLES, INSTRUMENT_WORDS, type InstrumentRole } from '../measure/instrument.js';
import { familiesOf } from '../part/familiesOf.js';
import { FAMILY_TABLE, type Family } from '../part/family.js';
import { type InstrumentUse, wordsOfUse } from '../reading/instrumentUses.js';
import { usesOwn } from '../reading/readWith.js';
import type { Slice, StageState, Todo } from '../stage/slice.js';
import type { JobStation } from '../station/jobStations.js';
import { isTelling } from '../station/stationOffsets.js';
import { firstToTry } from './firstToTry.js';
import { stripVerdict } from './stripVerdict.js';
import { foundWrong } from './trialCorrections.js';
import type { TrialFacts } from './trialJob.js';
import { sheetOf } from './trialSheet.js';
import { CHANGED_WORDS, FASTENER_WORDS, type TrialState, trialState, WARM_WORDS } from './trialWords.js';

/** True if a station was tried and what it says of the assembly stays, whatever parts it has now. */
function hasLesson({ tried, earlier }: JobStation): boolean {
  return [tried, ...earlier].some(isTelling);
}

function chosenStations({ job, stations }: TrialFacts): readonly JobStation[] {
  return stations.filter(({ id }) => job.choice?.stations[id] !== undefined);
}

/** The stations that are to be read with their shells in, by the method that the fitter follows: of one tried and applied, one a family. */
function wantedOf(facts: TrialFacts): readonly JobStation[] {
  const { job } = facts;
  if (job.trialSchool === 'codes' || job.trialSchool === 'turns') return [];
  const chosen = chosenStations(facts);
  if (job.trialSchool === 'every') return chosen;
  return familiesOf(job).flatMap((family) => {
    const own = chosen.filter((station) => station.family === family);
    return own.some(hasLesson) ? [] : own.slice(0, 1);
  });
}

function isDone(facts: TrialFacts): boolean {
  if (facts.job.trialSchool === 'one') return chosenStations(facts).length > 0 && wantedOf(facts).length === 0;
  const wanted = wantedOf(facts);
  return wanted.length > 0 && wanted.every(({ tried }) => trialState(tried) === 'read');
}

/** The stations that a strip, as all that is known there, says are tight or loose. */
function beyondByStrip({ job, stations }: TrialFacts): { readonly id: string; readonly is: 'tight' | 'loose' }[] {
  return stations.flatMap((station) => {
    const state = stripVerdict(job, station)?.state;
    return state === 'tight' || state === 'loose' ? [{ id: station.id, is: state }] : [];
  });
}

function stateOf(facts: TrialFacts): StageState {
  const states = facts.stations.map(({ tried }) => trialState(tried));
  if (states.some((state) => state === 'off' || state === 'void')) return 'attention';
  if (beyondByStrip(facts).length > 0) return 'attention';
  if (facts.stations.some(({ tried }) => tried !== null && foundWrong(facts.job, tried).length > 0)) return 'attention';
  if (isDone(facts)) return 'done';
  return states.includes('read') || states.includes('swapped') ? 'started' : 'open';
}

function todosOf(facts: TrialFacts): Todo[] {
  const { stations } = facts;
  const inState = (wanted: TrialState) =>
    stations.filter(({ tried }) => trialState(tried) === wanted).map(({ id }) => id);
  const [off, gone] = [inState('off'), inState('void')];
  const wanted = wantedOf(facts);
  const swapped = wanted.filter(({ tried }) => trialState(tried) === 'swapped');
  const left = wanted.filter(({ tried }) => trialState(tried) === 'open').map(({ id }) => id);
  const first = stations.every(({ tried }) => tried === null) ? firstToTry(facts.job, wanted) : null;
  const wrong = stations.flatMap(({ id, tried }) =>
    tried === null ? [] : foundWrong(facts.job, tried).map((gauge) => ({ id, gauge })),
  );
  const todos: string[] = [
    ...[...new Set(wrong.map(({ gauge }) => gauge))].map(
      (gauge) =>
        `Re-read ${wrong.flatMap((one) => (one.gauge === gauge ? [one.id] : [])).join(', ')} with shells in: ${gauge} was found wrong`,
    ),
    ...beyondByStrip(facts).map(({ id, is }) => `${id} is ${is} by strip only: measure its bore and journal`),
    ...(off.length > 0 ? [`Check ${off.join(', ')}: clearance not as predicted`] : []),
    ...(gone.length > 0 ? [`Re-read ${gone.join(', ')} with shells in: trial out of date`] : []),
    ...(swapped.length > 0
      ? [
          `Read ${swapped.map(({ id }) => id).join(', ')} again: ${[...new Set(swapped.map(({ tried }) => CHANGED_WORDS[tried!.changed!]))].join(', ')}`,
        ]
      : []),
    ...(first ? [`Try ${first.station} first: ${first.reason}`] : []),
    ...(left.length > 0 && !first ? [`Read ${left.join(', ')} with the shells in`] : []),
  ];
  return todos.map((todo) => ({ urgency: 'in-order', todo }));
}

/** Trial assembly: what stations read with their shells in, against what their parts let expect, and what that says of the others. */
export const trialSlice: Slice<'trial', TrialFacts> = {
  key: 'trial',
  state: stateOf,
  todos: todosOf,
  reminders: ({ job }) =>
    INSTRUMENT_ROLES.flatMap((role) => {
      const on = calibrationDue(job.instruments[role]);
      const what = [`the ${INSTRUMENT_WORDS[role]}`, job.instruments[role].name]
        .filter((word) => word !== '')
        .join(' ');
      // Those of the workshop are told in its register, and not once more for every engine.
      return on === null || !usesOwn(job, role) ? [] : [{ on, todo: `Have ${what} calibrated` }];
    }),
  sheet: sheetOf,
  placeWords: ([member = '', key = '', field = '']) => {
    if (member === 'trialSchool') return 'checking method';
    if (member === 'expected') return key === '' ? 'offsets expected from other engines' : `offset expected for ${key}`;
    if (member === 'warm') return WARM_WORDS[key] ?? 'running temperature';
    if (member === 'registered') return 'instruments of the workshop';
    if (member === 'using') return key === '' ? 'instruments' : `instrument for ${wordsOfUse(key as InstrumentUse)}`;
    if (member === 'drifts') return 'readings between two zero checks';
    if (member === 'instruments') return INSTRUMENT_WORDS[key as InstrumentRole] ?? 'instruments';
    if (member === 'fasteners') {
      return `${FASTENER_WORDS[field] ?? 'fasteners'} of the ${FAMILY_TABLE[key as Family]?.words ?? 'mains'}`;
    }
    if (member === 'strips') return key === '' ? 'gauging strips' : `gauging strip at ${key}`;
    return key === '' ? 'trials' : `trial of ${key}`;
  },
};
