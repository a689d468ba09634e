import {
  expansionOf,
  FEATURE_TABLE,
  type Feature,
  instrumentFor,
  lengthText,
  mattersAt,
  nanometres,
  plainNumber,
  soakAdvice,
} from '@fettle/core';
import type { OpenJob } from '../job/useJob.js';
import { Field } from '../ui/Field.js';
import { FieldPairs, Fold } from '../ui/Fold.js';
import { Quiet } from '../ui/Panel.js';
import { useKeptText } from '../ui/useKeptText.js';

interface SoakAdviceProps {
  readonly job: Pick<OpenJob, 'id' | 'document'>;
  readonly feature: Feature;
}

const BOXES = [
  { field: 'before', label: 'Part earlier, °C' },
  { field: 'minutes', label: 'Minutes ago' },
  { field: 'now', label: 'Part now, °C' },
  { field: 'around', label: 'Room or instrument, °C' },
] as const;
type Box = (typeof BOXES)[number]['field'];

function useBox(job: string, field: Box) {
  const { text, setText } = useKeptText({ of: job, part: 'soak', field }, '');
  const value = plainNumber(text, true);
  return { text, setText, value: Number.isNaN(value) ? null : value };
}

/** Minutes as one says them. */
function timeText(minutes: number): string {
  const whole = Math.ceil(minutes);
  return whole < 90 ? `${whole} minutes` : `${Math.floor(whole / 60)} h ${String(whole % 60).padStart(2, '0')} min`;
}

/** How long a part is left until it is near enough to the temperature of what it is measured with. */
export function SoakAdvice({ job, feature }: SoakAdviceProps) {
  const { document } = job;
  const boxes: Readonly<Record<Box, ReturnType<typeof useBox>>> = {
    before: useBox(job.id, 'before'),
    minutes: useBox(job.id, 'minutes'),
    now: useBox(job.id, 'now'),
    around: useBox(job.id, 'around'),
  };
  const { words } = FEATURE_TABLE[feature];
  const alpha = expansionOf(document, feature);
  const limit = document.limits[feature];
  const half = nanometres(Math.max(1, Math.round(instrumentFor(document, feature).resolution / 2)));
  const matters = alpha === null || limit === null ? null : mattersAt(half, limit.low, alpha);
  const values = Object.values(boxes).map(({ value }) => value);
  const isWhole = values.every((value) => value !== null);
  const advice =
    isWhole && matters !== null
      ? soakAdvice(
          {
            before: boxes.before.value!,
            now: boxes.now.value!,
            minutes: boxes.minutes.value!,
            around: boxes.around.value!,
          },
          matters,
        )
      : null;
  return (
    <Fold>
      <summary>How long to let the {words} soak</summary>
      <FieldPairs>
        {BOXES.map(({ field, label }) => {
          const { text, setText, value } = boxes[field];
          return (
            <Field
              key={field}
              label={label}
              figure
              inputMode="text"
              value={text}
              onChange={setText}
              fault={text.trim() !== '' && value === null ? 'Enter a number.' : null}
            />
          );
        })}
      </FieldPairs>
      {matters === null ? (
        <Quiet>
          {alpha === null
            ? 'Enter the housing material on the data sheet: the expansion depends on it.'
            : `Enter the limits of the ${words} on the data sheet: how much a degree matters depends on the size.`}
        </Quiet>
      ) : (
        <p role="status">
          {advice?.kind === 'ready' && <strong>Near enough: read now.</strong>}
          {advice?.kind === 'wait' && (
            <>
              <strong>Wait {timeText(advice.minutes)}.</strong> The part comes to the room with a time constant of{' '}
              {timeText(advice.timeConstant)}.
            </>
          )}
          {advice?.kind === 'unknown' &&
            'By these temperatures the part does not approach the room’s. Read them again.'}{' '}
          <Quiet as="span">
            {matters.toFixed(1)} °C changes the size by {lengthText(half, document.unit)}, half the instrument’s
            resolution.
          </Quiet>
        </p>
      )}
    </Fold>
  );
}
