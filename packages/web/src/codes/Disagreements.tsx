import {
  bandsOf,
  codedFeatures,
  FEATURE_TABLE,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  measuredParts,
} from '@fettle/core';
import type { OpenJob } from '../job/useJob.js';
import { Notice } from '../ui/Notice.js';
import { disagreementText } from './disagreementText.js';

/** Where readings and marks disagree, with what may be behind it. */
export function Disagreements({ job }: { job: OpenJob }) {
  const { document, readings } = job;
  const { unit } = document;
  const parts = codedFeatures(document).flatMap((feature) =>
    measuredParts(document, readings, feature).filter(({ disagreement }) => disagreement !== null),
  );
  const size = (value: Parameters<typeof formatExactLength>[0]) =>
    `${formatExactLength(value, unit, INSTRUMENT_DECIMALS[unit])} ${unit}`;
  if (parts.length === 0) return null;
  return (
    <Notice>
      <p>
        <strong>
          {parts.length === 1 ? 'One part does not match its mark.' : `${parts.length} parts do not match their marks.`}
        </strong>
      </p>
      <ul aria-label="Readings against marks">
        {parts.map(({ name, feature, mark, size: read, disagreement }) => {
          const band = bandsOf(document.sheet, feature).find((one) => one.mark === mark)!;
          return (
            <li key={`${feature} ${name}`} style={{ marginTop: '0.3rem' }}>
              <strong>
                {name}, {FEATURE_TABLE[feature].name.toLowerCase()}:
              </strong>{' '}
              measured {size(read!.nominal)}, mark {mark} means {size(band.low)} to {size(band.high)}:{' '}
              {disagreementText(disagreement!, unit)}
            </li>
          );
        })}
      </ul>
    </Notice>
  );
}
