import { familiesOf } from '@fettle/core';
import { useOpenJob } from '../job/JobPage.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { UnitMoved } from '../measure/UnitMoved.js';
import { OwnFigures } from '../torque/OwnFigures.js';
import { useTorque } from '../torque/useTorque.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { AimFields } from './AimFields.js';
import { EngineFields } from './EngineFields.js';
import { OriginPanel } from './OriginPanel.js';
import { RodFields } from './RodFields.js';
import { LimitsPanel } from './SheetLimits.js';

/** Torques with the other limits of the sheet; the stage Torque tightens by them. */
function TighteningPanel({ job }: { job: OpenJob }) {
  const work = useTorque(job);
  const families = familiesOf(job.document);
  return (
    <Panel aria-label="Tightening figures">
      <PanelTitle>Tightening figures</PanelTitle>
      <Quiet>
        Torque, angle or stretch from the book, with its source. Figures of an engine type are under Torque.
      </Quiet>
      {families.map((family) => (
        <OwnFigures key={family} job={job.id} family={family} work={work} isWanted={false} />
      ))}
    </Panel>
  );
}

/** What the engine is, what its maker's book says, and what is aimed at. */
export function DataSheet() {
  const job = useOpenJob();
  const change = useChangeDocument(job);
  const { document } = job;
  return (
    <>
      <EngineFields id={job.id} document={document} change={change} />
      <UnitMoved job={job} />
      <LimitsPanel id={job.id} document={document} change={change} />
      <AimFields id={job.id} document={document} change={change} />
      <TighteningPanel job={job} />
      {document.withRods && <RodFields id={job.id} document={document} change={change} />}
      <OriginPanel job={job} />
    </>
  );
}
