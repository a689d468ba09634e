import type { JobSummary } from '@fettle/core';
import { RotateCcw } from 'lucide-react';
import { useState } from 'react';
import { useLookedAtEvery } from '../live/useLookedAtEvery.js';
import { Button } from '../ui/Button.js';
import { Panel, Quiet, Row } from '../ui/Panel.js';
import { api } from '../wire/api.js';
import { List } from './EnginePage.js';

const LOOK_EVERY_MS = 30_000;
/** Closed engines shown at first, the last closed first: those are the ones looked for. */
const FEW = 5;
const MANY = 200;

/** Engines that were taken off the benches: everything in them is kept, and they can be brought back. */
export function TakenOff({ onBack }: { readonly onBack: (job: JobSummary) => void }) {
  const [most, setMost] = useState(FEW);
  const { data } = api.useListJobsQuery({ deleted: 'true', most }, useLookedAtEvery(LOOK_EVERY_MS));
  if (!data || data.jobs.length === 0) return null;
  return (
    <Panel aria-label="Closed engines">
      <Quiet>Closed engines. Their data is kept.</Quiet>
      <List>
        {data.jobs.map((job) => (
          <li key={job.id}>
            <Row>
              <strong>{job.name}</strong>
              <Button $kind="quiet" aria-label={`Reopen ${job.name}`} onPress={() => onBack(job)}>
                <RotateCcw aria-hidden size={18} />
                Reopen
              </Button>
            </Row>
          </li>
        ))}
      </List>
      {data.goesOn !== null && most < MANY && <Button onPress={() => setMost(MANY)}>Show more</Button>}
    </Panel>
  );
}
