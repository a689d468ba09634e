import type { JobSummary } from '@fettle/core';
import { RotateCcw } from 'lucide-react';
import { today } from '../base/today.js';
import { useLookedAtEvery } from '../live/useLookedAtEvery.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Quiet } from '../ui/Panel.js';
import { api } from '../wire/api.js';

const LOOK_EVERY_MS = 60_000;

/** Closed engines with something that is to be done again by today: they are on no bench, so that nothing else says it. */
export function DueEngines({ onBack }: { readonly onBack: (job: Pick<JobSummary, 'id' | 'version'>) => void }) {
  const { data } = api.useListDueQuery({ until: today() }, useLookedAtEvery(LOOK_EVERY_MS));
  if (!data || data.due.length === 0) return null;
  return (
    <section aria-label="Due on closed engines">
      {data.due.map(({ id, version, name, reminders }) => (
        <Notice
          key={id}
          actions={
            <Button aria-label={`Reopen ${name}, to note it`} onPress={() => onBack({ id, version })}>
              <RotateCcw aria-hidden size={18} />
              Reopen to record
            </Button>
          }
        >
          <strong>{name}</strong>, closed: {reminders.map(({ on, todo }) => `${todo} (${on})`).join('; ')}
        </Notice>
      ))}
      {data.areMore && <Quiet>More are due. These have waited longest.</Quiet>}
    </section>
  );
}
