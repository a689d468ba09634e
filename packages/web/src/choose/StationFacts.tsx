import {
  BELIEVABLE_WEAR,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  type JobDocument,
  type JobStation,
  LIMIT_NAMES,
  type Reading,
  type StationVerdict,
} from '@fettle/core';
import { CleanUpText } from '../codes/CleanUpText.js';
import { chanceText } from '../codes/chanceText.js';
import { disagreementText } from '../codes/disagreementText.js';
import { Quiet } from '../look/Panel.js';
import { FEATURE_WORDS } from '../measure/featureWords.js';

function FindingText({ station, unit }: { station: JobStation; unit: JobDocument['unit'] }) {
  return station.findings.map(({ feature, kind, by, side }) => (
    <p key={`${feature}-${kind}-${side}`}>
      <strong>
        {FEATURE_WORDS[feature]}
        {kind === 'size' ? '' : kind === 'taper' ? ', taper' : ', out-of-round'} {side === 'over' ? 'above' : 'below'}{' '}
        its limit by {formatExactLength(by, unit, INSTRUMENT_DECIMALS[unit])} {unit}.
      </strong>{' '}
      {by > BELIEVABLE_WEAR
        ? 'No wear does that: a figure is in doubt. Read it again.'
        : 'No shell cures it: read it again, then machine or replace the part.'}
    </p>
  ));
}

interface StationFactsProps {
  readonly document: JobDocument;
  readonly station: JobStation;
  readonly readings: readonly Reading[];
  readonly verdict: StationVerdict;
}

/** What is to be known about a station before its clearance: what is outside its limits, what marks say, what cannot be judged. */
export function StationFacts({ document, station, readings, verdict }: StationFactsProps) {
  const { unit } = document;
  const keys =
    station.family === 'rod'
      ? (['bigEnd', 'pin', 'rodClearance'] as const)
      : (['mainBore', 'mainJournal', 'mainClearance'] as const);
  const unjudged = keys.filter((key) => document.limits[key] === null);
  return (
    <>
      <FindingText station={station} unit={unit} />
      {station.undersize && (
        <p>
          The journal is ground to {station.undersize.name} under: only halves for that undersize suit it, and
          undersizes never mix in a station.
        </p>
      )}
      {station.disagreements.map((one) => (
        <Quiet key={one.feature}>
          <strong>{FEATURE_WORDS[one.feature]} and its mark disagree:</strong> {disagreementText(one, unit)}
        </Quiet>
      ))}
      {verdict.inside !== null && (
        <p>
          <strong>Chance to be inside its limits: {chanceText(verdict.inside)}</strong>, each size evenly over what its
          mark or grade leaves open.
        </p>
      )}
      {station.findings.some(({ feature }) => feature === 'mainJournal' || feature === 'pin') && (
        <CleanUpText document={document} readings={readings} family={station.family} />
      )}
      {unjudged.length > 0 && (
        <p>
          Not judged, for the data sheet has no limits:{' '}
          {unjudged.map((key) => LIMIT_NAMES[key].toLowerCase()).join(', ')}.
        </p>
      )}
    </>
  );
}
