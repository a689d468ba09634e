import { likelyFigures, type Moment, type Nanometres, parseLength } from '@fettle/core';
import { useState } from 'react';
import { useKeptChoice } from '../ui/useKeptChoice.js';
import { useKeptText } from '../ui/useKeptText.js';
import type { EndPlayWork } from './useEndPlay.js';

const MOMENTS_OF: Readonly<Record<'stack' | 'faces', readonly Moment[]>> = {
  stack: ['without', 'fitted'],
  faces: ['found', 'seated', 'fitted'],
};

/** A reading so many times the high limit is looked at again: a decimal slip, or a dial that turned once more. */
const FAR = 3;

/** A dial reading while it is typed: when, with the shaft at which angle, and the figure. */
export function useDialReading(job: string, { document, kind, limit, addReading, moment: now }: EndPlayWork) {
  const { unit } = document;
  const moments = MOMENTS_OF[kind === 'rings' ? 'stack' : 'faces'];
  // What was picked holds until the work has gone on: with a choice accepted, the next reading is one with its pieces in.
  const place = { of: job, part: `endPlay ${now}` };
  const [moment, setMoment, momentKept] = useKeptChoice({ ...place, field: 'moment' }, now, moments);
  const [angle, setAngle, angleKept] = useKeptChoice({ ...place, field: 'angle' }, '0', ['0', '180'] as const);
  const [isTried, setTried] = useState(false);
  const { text, setText, settled, isLeftOver } = useKeptText({ of: job, part: 'endPlay', field: 'reading' }, '');
  // What cannot be an end play counts nowhere until it is said to be right.
  const [sure, setSure] = useState<string | null>(null);
  const parsed = parseLength(text, { unit, signed: 'sign' });
  const nm: Nanometres | null = parsed.ok ? parsed.nm : null;
  const isUnreadable = !parsed.ok && isTried && text.trim() !== '';
  const isNegative = nm !== null && nm < 0;
  const likely =
    nm !== null && !isNegative && limit !== null && moment !== 'without' && sure !== text
      ? likelyFigures(nm, unit, { low: 0, high: FAR * limit.high })
      : null;
  return {
    moments,
    moment,
    setMoment,
    angle,
    setAngle,
    text,
    setText,
    isLeftOver,
    /** What was typed, as a length; null where it cannot be read. */
    nm,
    fault: isUnreadable ? parsed.message : isNegative ? 'End play cannot be negative: zero the dial at one end.' : null,
    /** Figures that were likely meant, where what was typed is far above the limits; null where nothing is asked. */
    likely,
    confirm: () => setSure(text),
    /** Saves the reading; where it cannot be read, says so from then on. */
    keep: () => {
      setTried(true);
      if (nm === null || isNegative || likely !== null) return;
      addReading(moment, angle === '0' ? 0 : 180, text, nm);
      settled('');
      momentKept(moment);
      angleKept(angle);
      setTried(false);
    },
  };
}
