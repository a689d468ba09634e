import { JOINT_SIDES } from '@fettle/core';
import styled from 'styled-components';
import { ChoosePieces } from '../endPlay/ChoosePieces.js';
import { NO_CHOICE_WORDS } from '../endPlay/pieceWords.js';
import { useOpenJob } from '../job/JobPage.js';
import { Button } from '../ui/Button.js';
import { Panel, Quiet, Row } from '../ui/Panel.js';
import { TwoColumns } from '../ui/TwoColumns.js';
import { AimPanel } from './CrushAims.js';
import { STATE_WORDS, Verdict } from './CrushVerdict.js';
import { JointDrawing } from './JointDrawing.js';
import { JointFields } from './JointFields.js';
import { type CrushWork, useCrush } from './useCrush.js';

const Joints = styled(Row)`
  button[aria-pressed='true'] { background: var(--accent-soft); border-color: var(--accent); }
`;

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
