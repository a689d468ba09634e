import { lengthText, type Nanometres } from '@fettle/core';
import { useClearances } from '../person/useClearances.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { StateMark } from '../ui/StateMark.js';
import { Advice } from './CrushAdviceText.js';
import type { CrushWork } from './useCrush.js';

/** Joints settle: so many days later they are read again. Common practice. */
export const RECHECK_DAYS = 3;

export const STATE_WORDS = {
  inside: 'inside',
  tight: 'too tight',
  loose: 'too loose',
  'not-square': 'not square',
} as const;

export function Verdict({ work }: { work: CrushWork }) {
  const { document, state, read, limits, place, joint } = work;
  const kind = place?.kind;
  const { shown } = useClearances(document.unit);
  const text = (value: Nanometres) => lengthText(value, shown);
  const value =
    kind === 'saddle'
      ? joint.clearance === null
        ? null
        : text(joint.clearance)
      : read?.shared
        ? `${text(read.shared.low)} to ${text(read.shared.high)}`
        : null;
  return (
    <Panel aria-label="Result">
      <PanelTitle>
        {kind === 'saddle' ? 'Oil clearance' : 'Crush'} at {work.station}
      </PanelTitle>
      {value !== null && (
        <Row>
          <span
            className="figure"
            style={{ fontSize: 'clamp(1.25rem, 6vw, 1.75rem)', fontWeight: 700, whiteSpace: 'normal' }}
          >
            {value}
          </span>
          {state && state !== 'not-square' && <StateMark state={state} />}
        </Row>
      )}
      {state === 'not-square' && (
        <Notice>
          The joint is not square: the crush ranges of its sides do not overlap. Seat cap and shells again, then re-read
          both sides.
        </Notice>
      )}
      {value === null && state !== 'not-square' && (
        <Quiet>
          {kind === 'saddle'
            ? 'Read the oil clearance with the shims that are in.'
            : kind === 'plain'
              ? 'Tighten both sides, slacken one, and try feelers in the joint at that side; then the other.'
              : 'Tighten both sides, slacken one, and try feelers on both faces of the shim at that side; then the other. One face is enough where the shim was pressed to the other.'}
        </Quiet>
      )}
      <Advice work={work} />
      <Quiet>
        {limits
          ? `Limits ${text(limits.low)} to ${text(limits.high)}: ${limits.source}.`
          : 'No limits on the data sheet: not judged, and nothing can be selected.'}
      </Quiet>
    </Panel>
  );
}
