import {
  type CrushAdvice,
  crushAdvice,
  FAMILY_TABLE,
  JOINT_SIDES,
  lengthText,
  momentText,
  type Nanometres,
  saddleAdvice,
  type Unit,
} from '@fettle/core';
import { addDays, format } from 'date-fns';
import styled from 'styled-components';
import { today } from '../base/today.js';
import { ChoosePieces } from '../endPlay/ChoosePieces.js';
import { PassesTable } from '../endPlay/PassesTable.js';
import { NO_CHOICE_WORDS } from '../endPlay/pieceWords.js';
import { useOpenJob } from '../job/JobPage.js';
import { useClearances } from '../person/useClearances.js';
import { LengthField } from '../typing/LengthField.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../ui/Panel.js';
import { StateMark } from '../ui/StateMark.js';
import { TwoColumns } from '../ui/TwoColumns.js';
import { JointDrawing } from './JointDrawing.js';
import { type CrushWork, useCrush } from './useCrush.js';

const Joints = styled(Row)`
  button[aria-pressed='true'] { background: var(--accent-soft); border-color: var(--accent); }
`;

const Sides = styled(Table)`
  th[scope='row'] { font-size: 1rem; color: var(--ink); vertical-align: middle; }
  td { padding: 0.2rem 0.4rem; }
`;

/** Joints settle: so many days later they are read again. Common practice. */
const RECHECK_DAYS = 3;

const STATE_WORDS = { inside: 'inside', tight: 'too tight', loose: 'too loose', 'not-square': 'not square' } as const;

function JointPicker({ work }: { work: CrushWork }) {
  return (
    <Joints role="group" aria-label="Joints">
      {work.stations.map(({ station, state }) => (
        <Button
          key={station}
          aria-pressed={station === work.station}
          aria-label={`Joint ${station}, ${state === null ? 'not read' : STATE_WORDS[state]}`}
          onPress={() => work.open(station)}
        >
          {station}
          <span>{state === null ? '' : STATE_WORDS[state]}</span>
        </Button>
      ))}
    </Joints>
  );
}

function JointFields({ job, work }: { job: string; work: CrushWork }) {
  const { document, joint, station, place, set, setSide } = work;
  const kind = place?.kind;
  const { unit } = document;
  const field = (
    name: string,
    label: string,
    value: Nanometres | null,
    onCommit: (value: Nanometres | null) => void,
  ) => (
    <LengthField
      key={`${station} ${name}`}
      kept={{ of: job, part: `joint ${station}`, field: name }}
      compact
      label={`${label}, ${unit}`}
      unit={unit}
      value={value}
      check={(nm) => (nm < 0 ? 'Enter 0 or more.' : null)}
      onCommit={onCommit}
    />
  );
  const rows = [
    ...(kind === 'saddle'
      ? []
      : ([
          ['go', 'Feeler that goes in'],
          ['noGo', 'Next one, which does not'],
        ] as const)),
    ...(kind === 'split-line'
      ? ([
          ['otherGo', 'Other face of the shim: goes in'],
          ['otherNoGo', 'Other face: does not'],
        ] as const)
      : []),
    ...(kind === 'plain' ? [] : [['shim', 'Shim there now; 0 for none'] as const]),
  ];
  return (
    <>
      <Sides aria-label={`Joint ${station}`}>
        <thead>
          <tr>
            <th>{unit === 'mm' ? 'Millimetres' : 'Inches'}</th>
            <th>Left</th>
            <th>Right</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([key, label]) => (
            <tr key={key}>
              <th scope="row">{label}</th>
              {JOINT_SIDES.map((side) => (
                <td key={side}>
                  {field(
                    `${side} ${key}`,
                    `${station} ${side}: ${label.toLowerCase()}`,
                    joint[side][key] ?? null,
                    (value) => setSide(side, { [key]: value }),
                  )}
                </td>
              ))}
            </tr>
          ))}
          {kind === 'saddle' && (
            <tr>
              <th scope="row">Oil clearance, in the bolt direction</th>
              <td colSpan={2}>
                {field('clearance', `${station}: oil clearance`, joint.clearance, (clearance) => set({ clearance }))}
              </td>
            </tr>
          )}
        </tbody>
      </Sides>
      <Row style={{ marginTop: '0.5rem' }}>
        {joint.recheck === null ? (
          <Button onPress={() => set({ recheck: format(addDays(new Date(), RECHECK_DAYS), 'yyyy-MM-dd') })}>
            Remind to read it again in {RECHECK_DAYS} days
          </Button>
        ) : (
          <>
            <Quiet>
              To be read again on {momentText(`${joint.recheck}T12:00`, 'day')}
              {joint.recheck <= today() && ': that is now'}.
            </Quiet>
            <Button $kind="quiet" onPress={() => set({ recheck: null })}>
              Done
            </Button>
          </>
        )}
      </Row>
    </>
  );
}

/** What brings white metal to its target, side by side; a verdict where the shims do not reach. */
function SaddleText({ work }: { work: CrushWork }) {
  const { document, limits, joint, aim } = work;
  const { shown } = useClearances(document.unit);
  const advice = limits && saddleAdvice(joint, limits, aim);
  if (!advice) return null;
  const text = (value: number) => lengthText(Math.abs(value), shown);
  const { eachSide, left, right, fromFaces } = advice;
  if (eachSide === 0) return <p>On target: leave the shims as they are.</p>;
  return (
    <>
      <p>
        To reach the target, {eachSide < 0 ? 'take' : 'put'} <strong className="figure">{text(eachSide)}</strong>{' '}
        {eachSide < 0 ? 'from' : 'into'} each side
        {left !== null &&
          right !== null &&
          fromFaces === 0 &&
          `, which leaves ${text(left)} of shim at the left and ${text(right)} at the right`}
      </p>
      {fromFaces > 0 && (
        <Notice>
          Shims are not enough: with all of them out, {text(fromFaces)} more must come off the joint faces of the cap,
          if the engine maker allows it; otherwise remetal the bearing.
        </Notice>
      )}
    </>
  );
}

/** What brings the crush to its target: a plan of dressing, thicker shims, or what to look for at plain shells. */
function CrushText({ advice, unit }: { readonly advice: CrushAdvice; readonly unit: Unit }) {
  const { shown } = useClearances(unit);
  const total = <strong className="figure">{lengthText(advice.total, shown)}</strong>;
  switch (advice.kind) {
    case 'dress':
      return (
        <>
          <p>
            Dress the shims: {total} in all, half from each side, on a flat plate. Measure the crush after each pass.
          </p>
          <PassesTable
            label="Dressing plan"
            off="Off each shim"
            unit={unit}
            passes={advice.passes.map(({ perSide, expected }) => ({ off: perSide, expected }))}
          />
        </>
      );
    case 'beyond-shims':
      return (
        <Notice>
          {total} would come off, which is more than the shims have. Fit other shells, or read the bore again.
        </Notice>
      );
    case 'thicker':
      return <p>Fit shims {total} thicker in all, half of it at each side.</p>;
    case 'shells':
      return (
        <Notice>
          {total} {advice.way === 'too-much' ? 'over' : 'under'} the target.{' '}
          {advice.way === 'too-much'
            ? 'Too much crush buckles the shell. Read the bore again with the cap torqued, then try other shells. File no joint face unless the engine maker says so.'
            : 'With too little crush the shell can turn and cannot pass its heat on. Read the bore again, then try other shells; if the bore is too big, have it machined.'}
        </Notice>
      );
  }
}

function Advice({ work }: { work: CrushWork }) {
  const { document, limits, place, joint, aim } = work;
  if (!place || limits === null) return null;
  if (place.kind === 'saddle') return <SaddleText work={work} />;
  const advice = crushAdvice(joint, place.kind, limits, aim, document.unit);
  return advice && <CrushText advice={advice} unit={document.unit} />;
}

function Verdict({ work }: { work: CrushWork }) {
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

/** What is aimed at, at the joints of one family. */
function AimPanel({ job, work }: { job: string; work: CrushWork }) {
  const { document, crush, place, setAll } = work;
  // Big ends beside mains of white metal, or of white metal themselves, go to the middle of their limits.
  if (
    place === null ||
    (FAMILY_TABLE[place.family].housingsMove && (place.kind === 'saddle' || crush.kind === 'saddle'))
  )
    return null;
  const what = FAMILY_TABLE[place.family].heldBy[1];
  const own = document.materials[what];
  return (
    <Panel>
      <PanelTitle>Target</PanelTitle>
      <LengthField
        kept={{ of: job, part: 'crush', field: 'aim' }}
        label={`Target at every joint (blank: mid-limits), ${document.unit}`}
        unit={document.unit}
        value={crush.aim}
        onCommit={(aim) => setAll({ aim })}
      />
      {place.kind !== 'saddle' && (
        <LengthField
          kept={{ of: job, part: 'crush', field: 'aimAluminium' }}
          label={`Target under aluminium caps (blank: the same), ${document.unit}`}
          unit={document.unit}
          value={crush.aimAluminium}
          onCommit={(aimAluminium) => setAll({ aimAluminium })}
        />
      )}
      {place.kind !== 'saddle' && (
        <Quiet>
          {own === 'unknown' ? `What the ${what} are made of is not on the data sheet.` : `The ${what} are of ${own}.`}{' '}
          Caps of aluminium want more crush than those of iron; the data sheet decides.
        </Quiet>
      )}
    </Panel>
  );
}

/** The joints of an engine: read side against side, and brought to their target. */
export function CrushView() {
  const job = useOpenJob();
  const work = useCrush(job);
  const { place, asked, joint, station, document } = work;
  const isIn =
    joint.choice?.chosen.every((one) =>
      JOINT_SIDES.every((side) => side !== one.place || joint[side].shim === one.thickness),
    ) ?? true;
  if (place === null) {
    return (
      <Panel>
        <Quiet>Nothing is read at the joints of this engine. Its data sheet says which joints are read.</Quiet>
      </Panel>
    );
  }
  return (
    <TwoColumns>
      <div>
        <Panel>
          <JointPicker work={work} />
          <JointDrawing unit={document.unit} station={station} kind={place.kind} joint={joint} read={work.read} />
          <JointFields job={job.id} work={work} />
        </Panel>
        <AimPanel job={job.id} work={work} />
      </div>
      <div>
        <Verdict work={work} />
        {place.kind !== 'plain' && (
          <ChoosePieces
            work={work}
            choice={joint.choice}
            onPutIn={isIn ? undefined : work.putIn}
            title={`Shims at ${station}`}
            missing={
              asked.ok
                ? null
                : asked.reason === 'no-fitted'
                  ? 'Enter the shims that are in now; 0 for none.'
                  : NO_CHOICE_WORDS[asked.reason]
            }
          />
        )}
      </div>
    </TwoColumns>
  );
}
