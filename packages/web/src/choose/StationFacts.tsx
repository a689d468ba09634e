import type { Reading } from '@fettle/core';
import {
  BELIEVABLE_WEAR,
  chanceText,
  FEATURE_TABLE,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  type JobDocument,
  type JobStation,
  limitName,
  limitsOfFamily,
  type StationVerdict,
} from '@fettle/core';
import { disagreementText } from '../codes/disagreementText.js';
import { CleanUpText } from '../shaft/CleanUpText.js';
import { Quiet } from '../ui/Panel.js';

function FindingText({ station, unit }: { station: JobStation; unit: JobDocument['unit'] }) {
  return station.findings.map(({ feature, kind, by, side }) => (
    <p key={`${feature}-${kind}-${side}`}>
      <strong>
        {FEATURE_TABLE[feature].name}
        {kind === 'size' ? '' : kind === 'taper' ? ', taper' : ', out-of-round'} {side === 'over' ? 'above' : 'below'}{' '}
        its limit by {formatExactLength(by, unit, INSTRUMENT_DECIMALS[unit])} {unit}.
      </strong>{' '}
      {by > BELIEVABLE_WEAR[unit]
        ? 'No wear does that: a reading is suspect. Measure again.'
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
  const unjudged = limitsOfFamily(station.family).filter((key) => document.limits[key] === null);
  return (
    <>
      <FindingText station={station} unit={unit} />
      {station.undersize && (
        <p>The journal is ground {station.undersize.name} under: use only shells of that undersize.</p>
      )}
      {station.disagreements.map((one) => (
        <Quiet key={one.feature}>
          <strong>{FEATURE_TABLE[one.feature].name} and its mark disagree:</strong> {disagreementText(one, unit)}
        </Quiet>
      ))}
      {verdict.inside !== null && (
        <p>
          <strong>Chance of being in limits: {chanceText(verdict.inside)}</strong>, sizes even over their bands.
        </p>
      )}
      {verdict.inside === null && verdict.chance !== null && (
        <Quiet>Chance of being in limits, from the uncertainty: {chanceText(verdict.chance)}.</Quiet>
      )}
      {station.isOutdated && (
        <p>
          <strong>The bore was measured with other fasteners than those fitted now.</strong> Measure it again.
        </p>
      )}
      {station.findings.some(({ feature }) => FEATURE_TABLE[feature].role === 'journal') && (
        <CleanUpText document={document} readings={readings} family={station.family} />
      )}
      {unjudged.length > 0 && (
        <p>Not judged, no limits: {unjudged.map((key) => limitName(key).toLowerCase()).join(', ')}.</p>
      )}
    </>
  );
}
