import { rodCount } from '@fettle/core';
import { useState } from 'react';
import { useLatest } from '../base/useLatest.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { useSaveReading } from '../measure/useSaveReading.js';
import { useDraft } from '../typing/useDraft.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';

/** What is being said of it. */
interface Replaced {
  /** Number of the rod. */
  readonly rod: string;
  readonly mark: string;
}
const BLANK: Replaced = { rod: '1', mark: '' };

/** A rod that is replaced by another: its mark, its size and its place start anew, and the matching with them. */
export function ReplaceRod({ job }: { job: OpenJob }) {
  const change = useChangeDocument(job);
  const save = useSaveReading(useLatest(job));
  const { document } = job;
  const [draft, setDraft, clearDraft] = useDraft<Replaced>(`replaced.${job.id}`);
  const { rod, mark } = draft ?? BLANK;
  const set = (part: Partial<Replaced>) => setDraft((now) => ({ ...(now ?? BLANK), ...part }));
  const [told, setTold] = useState<string | null>(null);
  const numbers = Array.from({ length: rodCount(document.layout) }, (_, at) => String(at + 1));
  const replace = () => {
    for (const { feature, station, slot, text } of job.readings) {
      if (feature === 'bigEnd' && String(station) === rod && text !== '') save({ feature, station, slot }, '');
    }
    change((old) => {
      const stations = Object.fromEntries(
        // A main has no rod; what stands on a pin is opened again.
        Object.entries(old.choice?.stations ?? {}).filter(([, one]) => one.rod === null),
      );
      return {
        ...old,
        rods: { ...old.rods, [rod]: { mark: mark.trim(), pin: null } },
        choice: old.choice && (Object.keys(stations).length > 0 ? { ...old.choice, stations } : null),
      };
    });
    setTold(`R${rod} is a new rod: its readings are removed, and the rods are matched again.`);
    clearDraft();
  };
  return (
    <Panel>
      <PanelTitle>Fit another rod</PanelTitle>
      <Quiet>
        A new rod has its own mark and size. The old readings are removed (History keeps them), and the accepted
        selection of the rods is withdrawn.
      </Quiet>
      <Row style={{ alignItems: 'end' }}>
        <Choice
          label="Rod"
          value={rod}
          options={numbers.map((value) => ({ value, label: `R${value} ${document.rods[value]?.mark ?? ''}` }))}
          onChange={(next) => set({ rod: next })}
        />
        <Field label="Mark of the new rod" value={mark} maxLength={20} onChange={(next) => set({ mark: next })} />
        <Button onPress={replace}>Replace rod</Button>
      </Row>
      {told && <p role="status">{told}</p>}
    </Panel>
  );
}
