import {
  chanceText,
  FEATURE_TABLE,
  type FitSolution,
  isByTable,
  type JobDocument,
  type JobFit,
  type Reading,
  type Remedy,
  type RemedyKind,
  remedyForJob,
  roughText,
  stationOutcomes,
} from '@fettle/core';
import { Link } from 'react-router';
import { newId } from '../base/newId.js';
import { useClearances } from '../person/useClearances.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import type { Play } from './usePlay.js';

interface ConflictsProps {
  readonly document: JobDocument;
  readonly readings: readonly Reading[];
  readonly plan: FitSolution;
  readonly play: Play;
  readonly asked: JobFit & { ok: true };
}

/** What the button of a remedy says, by what the remedy does. */
const ACTS: Readonly<Record<RemedyKind, string>> = {
  release: 'Unlock',
  'move-rod': 'Unlock rod',
  buy: 'They are in stock now',
  wall: 'They are in stock now',
  rule: 'Change rule',
  limit: 'Change limit',
  regrind: 'Measure after grinding',
};

/** Maximum stations of a remedy listed with their results. */
const MOST_TOLD = 4;

/** What the stations of a remedy come to with it: their clearances and how likely they are inside. */
function LeadsTo({
  document,
  readings,
  stations,
}: Pick<ConflictsProps, 'document' | 'readings'> & { stations: readonly string[] }) {
  const { shown } = useClearances(document.unit);
  const told = stationOutcomes(document, readings, stations.slice(0, MOST_TOLD));
  if (told.length === 0) return null;
  return (
    <small>
      {' '}
      Gives{' '}
      {told
        .map(({ station, clearance, chance }) => {
          const inside = chance === null ? '' : ` (${chanceText(chance)} inside)`;
          return `${station} ${roughText(clearance, shown)}${inside}`;
        })
        .join(', ')}
      .
    </small>
  );
}

function RemedyLine({
  document,
  readings,
  play,
  asked,
  remedy,
  stations,
  isCalledFor,
}: Omit<ConflictsProps, 'plan'> & { remedy: Remedy; stations: readonly string[]; isCalledFor: boolean }) {
  const { said } = useClearances(document.unit);
  const step = remedyForJob(document, asked, remedy, newId);
  const changed = step?.kind === 'change' ? step.change(document) : document;
  return (
    <li style={{ margin: '0.2rem 0' }}>
      {isCalledFor && <strong>By the table: </strong>}
      {said(remedy.message)}
      {step?.kind !== 'grind' && <LeadsTo document={changed} readings={readings} stations={stations} />}{' '}
      {step?.kind === 'change' && (
        <Button onPress={() => play.remedy(step.change, ACTS[remedy.kind].toLowerCase())}>{ACTS[remedy.kind]}</Button>
      )}
      {step?.kind === 'receive' && <Link to="/drawer">Add to workshop stock</Link>}
      {step?.kind === 'grind' && <Link to={`../${FEATURE_TABLE[step.feature].stage}`}>{ACTS.regrind}</Link>}
      {remedy.kind === 'limit' && <small> Check the maker’s data. The change is noted with the limit.</small>}
    </li>
  );
}

/** Why nothing fits, and what was found to help, each one touch away where the fitter can do it here. */
export function Conflicts({ document, readings, plan, play, asked }: ConflictsProps) {
  const { said } = useClearances(document.unit);
  return plan.conflicts.map((conflict) => {
    // What the table calls for comes first; else the cheapest.
    const isPart = (conflict.remedies ?? []).length === 0 && (conflict.partRemedies ?? []).length > 0;
    const remedies = ((isPart ? conflict.partRemedies : conflict.remedies) ?? [])
      .map((remedy) => ({ remedy, isCalledFor: isByTable(document, remedy, conflict.stations) }))
      .sort((one, other) => Number(other.isCalledFor) - Number(one.isCalledFor));
    return (
      <Notice key={conflict.message}>
        <div>
          <p>
            <strong>{said(conflict.message)}</strong>{' '}
            {remedies.length === 0 && conflict.remedy !== undefined && said(conflict.remedy)} {conflict.leftOut}
          </p>
          {isPart && <p>Checked for this fault alone. The other faults need a change of their own:</p>}
          {remedies.length > 0 && (
            <ul aria-label="What would help, checked" style={{ margin: '0.25rem 0 0', paddingLeft: '1.1rem' }}>
              {remedies.map(({ remedy, isCalledFor }) => (
                <RemedyLine
                  key={remedy.message}
                  document={document}
                  readings={readings}
                  play={play}
                  asked={asked}
                  remedy={remedy}
                  stations={remedy.stations.length > 0 ? remedy.stations : conflict.stations}
                  isCalledFor={isCalledFor}
                />
              ))}
            </ul>
          )}
        </div>
      </Notice>
    );
  });
}
