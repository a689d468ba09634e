import { assessReading, FEATURE_TABLE, formatExactLength, INSTRUMENT_DECIMALS, partName, slotName } from '@fettle/core';
import { format } from 'date-fns';
import styled from 'styled-components';
import type { OpenJob } from '../job/useJob.js';
import { Button } from '../look/Button.js';
import { bothUnits } from './LengthField.js';
import { type Place, readingAt, settingFor } from './useSaveReading.js';

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
  .message { flex: 1 1 16rem; font-weight: 600; }
`;

interface ReadingBarProps {
  readonly job: OpenJob;
  readonly place: Place | null;
  /** What stands in the cell while it is being typed. */
  readonly text: string;
  readonly onTake: (text: string) => void;
}

/** The reading in hand, large: its size in both units, what is doubtful about it, and the likely figure one touch away. */
export function ReadingBar({ job, place, text, onTake }: ReadingBarProps) {
  const { document, readings } = job;
  if (!place) {
    return (
      <Bar $isDoubtful={false}>
        <span>
          Touch a box and type. Enter goes to the next reading, arrows move, a reading is saved when it is left.
        </span>
      </Bar>
    );
  }
  const standing = readingAt(readings, place);
  const setting = settingFor(job, place, text);
  const assessment = assessReading(
    text,
    setting,
    place.feature,
    document,
    readings.filter((reading) => reading !== standing),
  );
  const likely = assessment.kind === 'doubtful' || assessment.kind === 'outside' ? assessment.likely : [];
  const message = 'message' in assessment ? assessment.message : null;
  return (
    <Bar $isDoubtful={message !== null} aria-live="polite">
      <span className="where">
        {partName(place.feature, place.station)} · {FEATURE_TABLE[place.feature].name} · {slotName(place.slot)}
      </span>
      {'nm' in assessment && <span className="size figure">{bothUnits(assessment.nm, document.unit)}</span>}
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
      {assessment.kind === 'fine' && standing && standing.text === text && (
        <span>
          read by {standing.by}, {format(new Date(standing.at), 'd MMM HH:mm')}
        </span>
      )}
    </Bar>
  );
}
