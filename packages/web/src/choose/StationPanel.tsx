import {
  type AcceptedChoice,
  correctionWords,
  endPlayOfHalves,
  FAMILY_TABLE,
  FEATURE_TABLE,
  type JobDocument,
  type JobStation,
  lengthText,
  momentText,
  type Reading,
  readingModeWord,
  readingSteps,
  rodLabel,
  type StationVerdict,
  sizeAtReference,
  slotName,
  thrustFlanges,
} from '@fettle/core';
import styled from 'styled-components';
import { BudgetTable } from '../fit/BudgetTable.js';
import { moreOff } from '../fit/meanOff.js';
import type { JobPlan } from '../fit/useJobPlan.js';
import { useClearances } from '../person/useClearances.js';
import { DetailPanel } from '../ui/DetailPanel.js';
import { Quiet } from '../ui/Panel.js';
import { StateMark } from '../ui/StateMark.js';
import { Barred } from './Barred.js';
import { CandidateTable } from './CandidateTable.js';
import { DrawnChance } from './DrawnChance.js';
import { StationActs } from './StationActs.js';
import { StationFacts } from './StationFacts.js';
import { StationSum } from './StationSum.js';
import type { Play } from './usePlay.js';
import { type StationChoices, useStationChoices } from './useStationChoices.js';

const Readings = styled.ul`
  font-size: var(--size-small);
  color: var(--ink-soft);
`;

interface StationPanelProps {
  /** Id of the engine. */
  readonly job: string;
  readonly document: JobDocument;
  readonly station: JobStation;
  readonly readings: readonly Reading[];
  readonly halves: AcceptedChoice['stations'][string] | null;
  readonly verdict: StationVerdict;
  readonly plan: JobPlan;
  readonly play: Play;
  readonly onClose: () => void;
}

interface NextBestProps {
  readonly document: JobDocument;
  readonly choices: StationChoices;
}

function NextBest({ document, choices: { nextBest, best } }: NextBestProps) {
  const { shown } = useClearances(document.unit);
  if (!nextBest || best === null) return null;
  const grade = (id: string) => document.shells[id]?.grade ?? id;
  const more = moreOff(nextBest.meanOff, best, shown);
  return (
    <Quiet>
      Next best here: {nextBest.rod !== null && `${rodLabel(document, nextBest.rod)} with `}
      {grade(nextBest.upper)} over {grade(nextBest.lower)},{' '}
      {more === null ? (
        'as near target on average.'
      ) : (
        <>
          <span className="figure">{more.text}</span> {more.isFurther ? 'further off' : 'nearer'} target on average
          {!more.isFurther && ', with more short of it'}.
        </>
      )}
    </Quiet>
  );
}

/** The readings that stand behind a station's two sizes. */
function ReadingsBehind({ document, station, readings }: Pick<StationPanelProps, 'document' | 'station' | 'readings'>) {
  const own = readings.filter(({ feature, station: number, text }) => {
    if (text === '') return false;
    const { family, role } = FEATURE_TABLE[feature];
    const isOfRod = FAMILY_TABLE[family].housingsMove && role === 'housing';
    return family === station.family && number === (isOfRod ? station.rod : station.number);
  });
  return (
    <details>
      <summary>{own.length} readings behind it</summary>
      <Readings>
        {own.map((reading) => (
          <li key={reading.id}>
            {FEATURE_TABLE[reading.feature].name} {slotName(reading.slot).toLowerCase()}:{' '}
            <span className="figure">{reading.text}</span>
            {reading.setting !== null &&
              /^[+\-−]/u.test(reading.text) &&
              ` from ${lengthText(reading.setting, document.unit)}`}
            , {reading.by}, {momentText(reading.at)}
            {reading.taken && reading.taken.instrument !== '' && `, ${reading.taken.instrument}`}
            {reading.taken?.mode !== undefined && `, ${readingModeWord(reading.taken.mode)}`}
            {correctedText(document, reading)}
            {reading.taken?.celsius != null &&
              `, at ${reading.taken.celsius} °C: ${lengthText(sizeAtReference(document, reading) ?? 0, document.unit)} at 20 °C`}
          </li>
        ))}
      </Readings>
    </details>
  );
}

/** What a reading was corrected by for its instrument, and what is to be known of that; empty where there is nothing. */
function correctedText(document: JobDocument, reading: Reading): string {
  const steps = readingSteps(document, reading);
  const words = steps ? correctionWords(document, steps) : '';
  return words === '' ? '' : `, ${words}`;
}

/** The end play with the halves of the thrust main, where their flanges set it: the two are one choice. */
function FlangedEndPlay({ document, station, halves }: Pick<StationPanelProps, 'document' | 'station' | 'halves'>) {
  const flanges = thrustFlanges(document);
  const { shown: unit } = useClearances(document.unit);
  if (flanges?.station !== station.id) return null;
  const left = halves && endPlayOfHalves(document, halves);
  const limits = `${lengthText(flanges.limit.low, unit)} to ${lengthText(flanges.limit.high, unit)}`;
  return (
    <p>
      <strong>
        End play with these: {left === null ? 'no flange' : <span className="figure">{lengthText(left, unit)}</span>}
      </strong>
      {left !== null && left < flanges.limit.low && ', too tight'}
      {left !== null && left > flanges.limit.high && ', too loose'}. Limits {limits}, target{' '}
      {lengthText(flanges.aim, unit)};{' '}
      {flanges.weight === 0 ? 'used only to split ties.' : 'weighed against the clearance.'}
    </p>
  );
}

/** One station opened up: the sum as on paper, what stands behind each figure, and what the other pairs would give. */
export function StationPanel(props: StationPanelProps) {
  const { job, document, station, readings, halves, verdict, plan, play, onClose } = props;
  const { unit } = document;
  const isRod = FAMILY_TABLE[station.family].housingsMove;
  const choices = useStationChoices(station, halves, plan);
  const { shown } = useClearances(unit);
  return (
    <DetailPanel
      label={isRod ? `Crankpin ${station.number}` : `Main ${station.number}`}
      title={`${station.id}${isRod && station.rod !== null ? ` · ${rodLabel(document, station.rod)}` : ''}`}
      mark={<StateMark state={verdict.state} />}
      onClose={onClose}
    >
      <StationFacts document={document} station={station} readings={readings} verdict={verdict} />
      <StationSum document={document} station={station} halves={halves} verdict={verdict} unit={unit} />
      {verdict.budget && <BudgetTable of={`the clearance of ${station.id}`} budget={verdict.budget} unit={shown} />}
      <DrawnChance document={document} station={station} halves={halves} />
      <FlangedEndPlay document={document} halves={halves} station={station} />
      <NextBest document={document} choices={choices} />
      <StationActs job={job} document={document} station={station} halves={halves} play={play} />
      <CandidateTable station={station} document={document} halves={halves} choices={choices} />
      <Barred document={document} station={station} play={play} />
      <ReadingsBehind document={document} station={station} readings={readings} />
    </DetailPanel>
  );
}
