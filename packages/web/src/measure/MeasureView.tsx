import { FEATURE_TABLE, type Feature, featureOf, partName } from '@fettle/core';
import { useState } from 'react';
import { CleanUpText } from '../codes/CleanUpText.js';
import { useOpenJob } from '../job/JobPage.js';
import { Notice } from '../look/Notice.js';
import { ShaftLine } from '../shaft/ShaftLine.js';
import { MeasuringSettings } from './MeasuringSettings.js';
import { measuringRows } from './measuringRows.js';
import { REASONS, ReadingBar } from './ReadingBar.js';
import { ReadingsFile } from './ReadingsFile.js';
import { useMeasuring } from './useMeasuring.js';
import { useSaveReading } from './useSaveReading.js';

/** Typing the sizes of one feature along the shaft. */
export function MeasureView({ feature }: { readonly feature: Feature }) {
  const job = useOpenJob();
  const [reason, setReason] = useState<string>(REASONS[0]);
  const save = useSaveReading(job, reason);
  const { document, readings } = job;
  const measuring = useMeasuring(job, feature);
  const { parts, current, setCurrent } = measuring;
  const { family, role } = FEATURE_TABLE[feature];
  const isWorn =
    role === 'journal' &&
    document.sheet !== null &&
    parts.some(({ findings }) => findings.some(({ kind, side }) => kind === 'size' && side === 'under'));
  return (
    <>
      <ShaftLine
        layout={document.layout}
        rows={measuringRows(job, feature, measuring, reason)}
        show={family === 'rod' ? 'rods' : 'mains'}
        selected={current ? partName(featureOf(family, 'journal'), current.place.station) : null}
      />
      {isWorn && (
        <Notice>
          <CleanUpText document={document} readings={readings} family={family} />
        </Notice>
      )}
      <ReadingBar
        job={job}
        place={current?.place ?? null}
        text={current?.text ?? ''}
        reason={reason}
        onReason={setReason}
        onTake={(text) => {
          if (!current) return;
          save(current.place, text);
          setCurrent({ ...current, text });
        }}
      />
      <MeasuringSettings job={job} feature={feature} />
      <ReadingsFile job={job} />
    </>
  );
}
