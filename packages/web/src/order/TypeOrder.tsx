import { jobOfType } from '@fettle/core';
import { useMemo } from 'react';
import { useOpenType } from '../engineType/useOpenType.js';
import { Panel } from '../ui/Panel.js';
import { OrderAdvisor } from './OrderAdvisor.js';

/** What to have on the shelf before any engine of a type is opened. */
export function TypeOrder() {
  const { id, type } = useOpenType();
  const job = useMemo(
    () => type && jobOfType(type.name, type, { type: id, revision: 1 }, type.rod.grades.length > 0),
    [id, type],
  );
  return job ? (
    <OrderAdvisor id={id} document={job} readings={[]} name={`any ${job.name}`} />
  ) : (
    <Panel>The layout of the sheet cannot be read yet; put it right first.</Panel>
  );
}
