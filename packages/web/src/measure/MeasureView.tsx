import {
  FAMILY_TABLE,
  FEATURE_TABLE,
  FEATURES,
  type Feature,
  featureOf,
  type Nanometres,
  partName,
} from '@fettle/core';
import { memo, useCallback, useMemo, useState } from 'react';
import { useAfterFrame } from '../base/useAfterFrame.js';
import { useNarrow } from '../base/useNarrow.js';
import { InstrumentNotices } from '../instrument/InstrumentNotices.js';
import { useOpenJob } from '../job/JobPage.js';
import type { OpenJob } from '../job/useJob.js';
import { CleanUpText } from '../shaft/CleanUpText.js';
import { ShaftLine } from '../shaft/ShaftLine.js';
import { Notice } from '../ui/Notice.js';
import { CapsAsk } from './CapsAsk.js';
import { DoubtsNotice } from './DoubtsNotice.js';
import { GaugePanel } from './gauge/GaugePanel.js';
import { LeadsTo } from './LeadsTo.js';
import { MeasuringSettings } from './MeasuringSettings.js';
import { measuringRows } from './measuringRows.js';
import { NeedleMissing, useNeedle } from './NeedleAsk.js';
import { OneCell } from './OneCell.js';
import { REASONS, ReadingBar } from './ReadingBar.js';
import { ReadingsFile } from './ReadingsFile.js';
import { SettingMoved } from './SettingMoved.js';
import { UnitMoved } from './UnitMoved.js';
import { useForeseen } from './useForeseen.js';
import { useMeasuring } from './useMeasuring.js';
import { useKeepAgain, useSaveReading } from './useSaveReading.js';

type Job = { readonly job: Pick<OpenJob, 'id' | 'document'>; readonly feature: Feature };
/** What stands on the document alone is not drawn anew with each figure that is typed. */
const isSameDocument = (one: Job, next: Job) =>
  one.feature === next.feature && one.job.id === next.job.id && one.job.document === next.job.document;

const Consequences = memo(
  LeadsTo,
  (one, next) =>
    one.family === next.family && one.job.document === next.job.document && one.job.readings === next.job.readings,
);
const Caps = memo(CapsAsk, isSameDocument);
/** Features of which nothing is read yet. */
const unreadOf = ({ readings }: Pick<OpenJob, 'readings'>) =>
  FEATURES.filter((feature) => !readings.some((reading) => reading.feature === feature)).join();
const Settings = memo(
  MeasuringSettings,
  (one, next) => isSameDocument(one, next) && unreadOf(one.job) === unreadOf(next.job),
);
const Gauge = memo(GaugePanel, isSameDocument);
const File = memo(ReadingsFile);
const Doubts = memo(DoubtsNotice);
const Instruments = memo(InstrumentNotices);

/** Typing the sizes of one feature along the shaft. */
export function MeasureView({ feature }: { readonly feature: Feature }) {
  const job = useOpenJob();
  const [reason, setReason] = useState<string>(REASONS[0]);
  const { document, readings } = job;
  // What is to be asked about the figures together follows a frame later: the next one is typed meanwhile.
  const settled = useAfterFrame(job);
  const measuring = useMeasuring(job, feature);
  const { slots, parts, current, status, give, placeAt, acts, latest } = measuring;
  // With each key only the bar below is drawn anew.
  const rows = useMemo(
    () => measuringRows({ document, readings }, feature, { slots, parts, placeAt, acts, latest }, reason),
    [document, readings, feature, slots, parts, placeAt, acts, latest, reason],
  );
  const foreseen = useForeseen(job, current);
  // Whoever takes what was likely meant says that the figure was misread.
  const take = useSaveReading(latest, 'misread');
  const save = useSaveReading(latest);
  const keepAgain = useKeepAgain(latest);
  // Deviations typed before their setting size was known become sizes once it is.
  const onSetting = useCallback(
    (setting: Nanometres | null) => {
      for (const reading of latest.current.readings) {
        if (reading.feature === feature && reading.nm === null && reading.text !== '')
          save(reading, reading.text, setting);
      }
    },
    [latest, feature, save],
  );
  const sayNeedle = useNeedle(job, latest);
  const isNarrow = useNarrow();
  const { family, role } = FEATURE_TABLE[feature];
  const isWorn =
    role === 'journal' &&
    document.sheet !== null &&
    parts.some(({ findings }) => findings.some(({ kind, side }) => kind === 'size' && side === 'under'));
  const isBoreOut = role === 'housing' && parts.some(({ findings }) => findings.some(({ kind }) => kind === 'size'));
  return (
    <>
      {isNarrow ? (
        <OneCell key={`one ${feature}`} job={job} feature={feature} measuring={measuring} reason={reason} />
      ) : (
        <ShaftLine
          label={`${FEATURE_TABLE[feature].name} by station`}
          layout={document.layout}
          rows={rows}
          show={FAMILY_TABLE[family].isWithRods ? 'rods' : 'mains'}
          selected={current ? partName(featureOf(family, 'journal'), current.place.station) : null}
        />
      )}
      {isWorn && (
        <Notice>
          <CleanUpText document={document} readings={readings} family={family} />
        </Notice>
      )}
      <ReadingBar
        job={job}
        inHand={current}
        status={status}
        reason={reason}
        onReason={setReason}
        onConfirm={(reading) => keepAgain([reading], { confirmed: true })}
        onTake={(text) => {
          if (!current) return;
          take(current.place, text);
          give(text);
        }}
      />
      <NeedleMissing job={job} onSay={sayNeedle} />
      <UnitMoved job={job} />
      {isBoreOut && (
        <Notice>
          <strong>A bore outside its limits stops the work: no shell cures it.</strong> Too big, and the shells lose
          their crush and cannot pass their heat to the housing. Too small, and the shells buckle. Read it again with
          the cap torqued; if it stays, have it machined.
        </Notice>
      )}
      {role === 'housing' && <Caps job={job} feature={feature} />}
      <SettingMoved
        key={`setting ${feature}`}
        job={job}
        feature={feature}
        onMove={(reading) => save(reading, reading.text, document.measuring.setting[feature])}
      />
      <Doubts job={settled} feature={feature} />
      <Instruments job={settled} feature={feature} />
      <Consequences job={job} family={family} foreseen={foreseen} />
      <Settings job={job} feature={feature} onSetting={onSetting} onNeedle={sayNeedle} />
      <File latest={latest} />
      <Gauge job={job} feature={feature} />
    </>
  );
}
