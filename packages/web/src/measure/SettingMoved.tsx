import { FEATURE_TABLE, type Feature, lengthText, type Reading } from '@fettle/core';
import { useState } from 'react';
import { localNote, setLocalNote } from '../base/localNotes.js';
import type { OpenJob } from '../job/useJob.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { isDeviation } from './useSaveReading.js';

interface SettingMovedProps {
  readonly job: OpenJob;
  readonly feature: Feature;
  /** Counts a deviation from the setting size of now. */
  readonly onMove: (reading: Reading) => void;
}

/** Where somebody has said that what was typed on another setting size stays as it is: for this setting size, on this device. */
function keptKey(job: string, feature: Feature): string {
  return ['fettle.kept-on', job, feature].join('/');
}

/** Deviations that were typed on another setting size than the gauge has now: asked about, never counted anew unasked. */
export function SettingMoved({ job, feature, onMove }: SettingMovedProps) {
  const { unit, measuring } = job.document;
  const setting = measuring.setting[feature];
  const key = keptKey(job.id, feature);
  const [kept, setKept] = useState(() => localNote(key));
  const old = job.readings.filter(
    (one) => one.feature === feature && isDeviation(one.text) && one.setting !== null && one.setting !== setting,
  );
  if (setting === null || old.length === 0 || kept === String(setting)) return null;
  const sizes = [...new Set(old.map((one) => one.setting!))].map((size) => lengthText(size, unit)).join(' and ');
  const what = old.length === 1 ? 'One deviation was' : `${old.length} deviations were`;
  return (
    <Notice
      actions={
        <>
          <Button
            onPress={() => {
              setLocalNote(key, String(setting));
              setKept(String(setting));
            }}
          >
            Leave {old.length === 1 ? 'it' : 'them'} on {sizes}
          </Button>
          <Button onPress={() => old.forEach(onMove)}>
            Count {old.length === 1 ? 'it' : 'them'} from {lengthText(setting, unit)}
          </Button>
        </>
      }
    >
      {what} typed for {FEATURE_TABLE[feature].words} on {sizes}; the setting size is now {lengthText(setting, unit)}.
      Was the gauge reset, or the size mistyped?
    </Notice>
  );
}
