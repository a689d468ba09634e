import {
  assessReading,
  FEATURE_TABLE,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  instrumentByKey,
  instrumentInUse,
  instrumentWords,
  isCoarse,
  knownInstrument,
  lengthText,
  momentText,
  type Nanometres,
  nanometres,
  needleOf,
  outsideRange,
  parseLength,
  partName,
  READING_REASONS,
  type Reading,
  type ReadingAssessment,
  slotName,
  type TypedHow,
} from '@fettle/core';
import { memo } from 'react';
import styled from 'styled-components';
import type { OpenJob } from '../job/useJob.js';
import { bothUnits } from '../typing/LengthField.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { textsOf } from './readingVerdictKey.js';
import type { EntryStatus, InHand } from './useMeasuring.js';
import { howTyped, type Place, readingAt, settingFor } from './useSaveReading.js';

const Bar = styled.div<{ $isDoubtful: boolean }>`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.25rem 1.25rem;
  min-height: 60px;
  padding: 0.4rem 1rem;
  border: 2px solid ${({ $isDoubtful }) => ($isDoubtful ? 'var(--tight)' : 'var(--line-strong)')};
  border-radius: var(--radius);
  background: var(--surface);
  .where { font-weight: 700; }
  .size { font-size: var(--size-lead); font-weight: 600; }
  .why { display: inline-flex; align-items: center; gap: 0.5rem; margin-left: auto; font-size: var(--size-small); color: var(--ink-soft); }
  .message { flex: 1 1 16rem; font-weight: 600; }
`;

/** Why a reading is changed, the usual one first. */
export const REASONS = READING_REASONS;

interface ReadingBarProps {
  readonly job: OpenJob;
  /** The box in hand, with what stands in it while it is being typed. */
  readonly inHand: InHand | null;
  readonly status: EntryStatus;
  readonly onTake: (text: string) => void;
  /** Says that a suspect reading is right. */
  readonly onConfirm: (reading: Reading) => void;
  readonly reason: string;
  readonly onReason: (reason: string) => void;
}

/** Which way a deviation goes, in words: the sign of a needle is a trap. */
function wayOf(
  { document }: OpenJob,
  place: Place,
  text: string,
  setting: Nanometres | null,
  how: TypedHow,
): string | null {
  const { unit } = document;
  const needle = how.needle ?? needleOf(document, place.feature);
  const parsed = parseLength(text, { unit: how.unit ?? unit, setting, needle });
  if (!parsed.ok || parsed.deviation === null || setting === null) return null;
  if (parsed.deviation === 0) return `as the setting, ${lengthText(setting, unit)}`;
  const by = lengthText(Math.abs(parsed.deviation), unit);
  return `${parsed.deviation > 0 ? 'bigger' : 'smaller'} by ${by} than ${lengthText(setting, unit)}`;
}

/** Why a change is made; not drawn anew with each figure. */
const Reason = memo(({ reason, onReason }: Pick<ReadingBarProps, 'reason' | 'onReason'>) => (
  <Choice
    isLabelHidden
    label="Reason for change"
    value={reason}
    options={REASONS.map((value) => ({ value, label: value }))}
    onChange={onReason}
  />
));

/** What is to be said of a figure: what cannot be right, what the instrument does not reach, what may not be finished; null where nothing is. */
function messageOf(
  { document, readings }: OpenJob,
  { feature }: Place,
  text: string,
  assessment: ReadingAssessment,
  standing: Reading | null,
): string | null {
  if ('message' in assessment) return assessment.message;
  if (assessment.kind === 'empty') return null;
  const { unit } = document;
  const key = instrumentInUse(document, feature);
  const instrument = instrumentByKey(document, key);
  const beyond = outsideRange(instrument, assessment.nm);
  if (beyond !== 0) {
    const name =
      knownInstrument(document, key) || instrument.name === ''
        ? `the ${instrumentWords(document, key)}`
        : instrument.name;
    const side = beyond < 0 ? 'under' : 'over';
    return `${lengthText(nanometres(Math.abs(beyond)), unit)} ${side} ${name}’s range: other instrument, or slip?`;
  }
  const others = readings.filter((reading) => reading !== standing);
  return isCoarse(text, textsOf(others, feature))
    ? 'Fewer digits than the other readings: is it the whole figure?'
    : null;
}

/** What a figure would take the place of. One that a reload left is only kept when that is meant; there may be no keys for it. */
function Instead({
  standing,
  isTyped,
  onTake,
}: Pick<ReadingBarProps, 'onTake'> & { readonly standing: string; readonly isTyped: boolean }) {
  if (isTyped) {
    return (
      <span>
        instead of <span className="figure">{standing}</span>; Escape brings it back
      </span>
    );
  }
  return (
    <>
      <span>Unfinished. Enter saves it.</span>
      <Button onPress={() => onTake(standing)}>Back to {standing}</Button>
    </>
  );
}

const HINTS: Readonly<Record<EntryStatus, string>> = {
  typing: 'Type in a field; leaving it saves. Enter: next empty field. Arrows move.',
  full: 'No empty field left. Use the arrows, or select a field, to change a reading.',
  lost: 'No field was selected: what you typed was not entered. Select a field and type it again.',
};

/** The reading in hand, large: its size in both units, what is doubtful about it, and the likely figure one touch away. */
export function ReadingBar({ job, inHand, status, onTake, onConfirm, reason, onReason }: ReadingBarProps) {
  const { document, readings } = job;
  if (!inHand || status !== 'typing') {
    return (
      <Bar $isDoubtful={status === 'lost'} role={status === 'typing' ? undefined : 'status'}>
        <span>{HINTS[status]}</span>
      </Bar>
    );
  }
  const { place, is } = inHand;
  const standing = readingAt(readings, place);
  // What is kept may have been read again by somebody else since.
  const text = is === 'kept' ? (standing?.text ?? '') : inHand.text;
  const setting = settingFor(job, place, text);
  const how = howTyped(standing, place, text, is === 'typed');
  const assessment = assessReading(
    text,
    setting,
    place.feature,
    document,
    readings.filter((reading) => reading !== standing),
    place.station,
    how,
  );
  const likely = assessment.kind === 'doubtful' || assessment.kind === 'outside' ? assessment.likely : [];
  const message = messageOf(job, place, text, assessment, standing);
  const way = wayOf(job, place, text, setting, how);
  // A suspect figure counts once it is confirmed: one touch, and it is asked once.
  const isSuspect = assessment.kind === 'doubtful' && standing !== null && standing.text === text && is === 'kept';
  return (
    // A screen reader hears of a figure once it is left, not with each key.
    <Bar $isDoubtful={message !== null} aria-live={is === 'typed' ? 'off' : 'polite'}>
      <span className="where">
        {partName(place.feature, place.station)} · {FEATURE_TABLE[place.feature].name} · {slotName(place.slot)}
      </span>
      {'nm' in assessment && <span className="size figure">{bothUnits(assessment.nm, document.unit)}</span>}
      {way && <span>{way}</span>}
      {message && <span className="message">{message}</span>}
      {likely.map(({ nm, question }) => {
        const value = formatExactLength(nm, document.unit, INSTRUMENT_DECIMALS[document.unit]);
        return (
          <Button
            key={nm}
            onPress={() => onTake(value)}
            aria-label={`Use ${value} ${document.unit} instead: ${question}`}
          >
            Use {value}
          </Button>
        );
      })}
      {isSuspect && (
        <Button
          onPress={() => onConfirm(standing)}
          aria-label={`Confirm ${text} at ${partName(place.feature, place.station)}`}
        >
          Confirm {text}
        </Button>
      )}
      {assessment.kind === 'fine' && standing && standing.text === text && (
        <span>
          read by {standing.by}, {momentText(standing.at)}
        </span>
      )}
      {is !== 'kept' && standing && standing.text !== '' && standing.text !== text.trim() && (
        <Instead standing={standing.text} isTyped={is === 'typed'} onTake={onTake} />
      )}
      {standing && standing.text !== '' && (
        <span className="why">
          <span aria-hidden>Reason for change</span>
          <Reason reason={reason} onReason={onReason} />
        </span>
      )}
    </Bar>
  );
}
