import {
  cleanUp,
  clearanceLimitsOf,
  FAMILY_TABLE,
  type Family,
  FEATURE_TABLE,
  featureOf,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  type JobDocument,
  mainStations,
  measuredParts,
  type Nanometres,
  nanometres,
  partName,
  type Reading,
  shellsAfterGrinding,
} from '@fettle/core';
import { Link } from 'react-router';
import { IntervalBar } from './IntervalBar.js';

interface CleanUpTextProps {
  readonly document: JobDocument;
  readonly readings: readonly Reading[];
  readonly family: Family;
}

/** The undersize that worn journals would clean up at, and the halves that would then suit; or that the sheet has none. */
export function CleanUpText({ document, readings, family }: CleanUpTextProps) {
  const { unit, sheet, limits } = document;
  const feature = featureOf(family, 'journal');
  const journals = measuredParts(document, readings, feature);
  const measured = journals.flatMap(({ size }) => (size?.kind === 'read' ? [size.smallest] : []));
  const undersizes = sheet?.[family].undersizes ?? [];
  const found = cleanUp(measured, undersizes);
  const exact = (value: Nanometres) => `${formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit])} ${unit}`;
  if (undersizes.length === 0) return <p>The data sheet names no undersize it could be ground to.</p>;
  if (!found) return <p>It is below every undersize of the data sheet: another shaft, or a repair its maker allows.</p>;
  const { undersize, leastCut } = found;
  const clearance = clearanceLimitsOf(limits, family);
  const middle = clearance && nanometres(Math.round((clearance.low + clearance.high) / 2));
  const bores = FAMILY_TABLE[family].isInLine ? mainStations(document, readings) : [];
  const suited =
    clearance && middle !== null
      ? bores.flatMap(({ id, bore }) => {
          const halves =
            bore && shellsAfterGrinding({ low: bore.smallest, high: bore.largest }, undersize, clearance, middle);
          return halves ? [{ id, halves }] : [];
        })
      : [];
  return (
    <div>
      <p>
        <strong>
          Ground to {undersize.name} under ({exact(undersize.journal.low)} to {exact(undersize.journal.high)}) it would
          clean up
        </strong>
        , with all {FEATURE_TABLE[feature].words} ground alike; the most worn (
        {journals
          .filter(({ size }) => size && size.smallest === Math.min(...measured))
          .map(({ number }) => partName(feature, number))
          .join(', ')}
        ) loses at least {exact(leastCut)}. The maker and the grinder decide on grinding.{' '}
        <Link to="../grinding">Grinding plan</Link>
      </p>
      {suited.length > 0 && (
        <ul aria-label="Shells after grinding">
          {suited.map(({ id, halves }) => (
            <li key={id} style={{ display: 'grid', gridTemplateColumns: '3rem 1fr 9rem', gap: '0.5rem' }}>
              <strong>{id}</strong>
              <span>
                {halves.upper === halves.lower ? halves.upper : `${halves.upper} upper, ${halves.lower} lower`}
              </span>
              <span>
                <IntervalBar interval={halves.interval} limits={clearance} unit={unit} />
              </span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
