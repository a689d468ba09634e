import { featureOf, rodCount } from '@fettle/core';
import { useState } from 'react';
import { useLatest } from '../app/useLatest.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { useDraft } from '../limits/useDraft.js';
import { Button } from '../look/Button.js';
import { Choice } from '../look/Choice.js';
import { Field } from '../look/Field.js';
import { Panel, PanelTitle, Quiet, Row } from '../look/Panel.js';
import { useSaveReading } from '../measure/useSaveReading.js';

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
      if (feature === featureOf('rod', 'housing') && String(station) === rod && text !== '')
        save({ feature, station, slot }, '');
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
    setTold(`R${rod} is another rod now: its readings are taken back, and the rods are matched anew.`);
    clearDraft();
  };
  return (
    <Panel>
      <PanelTitle>Another rod was fitted</PanelTitle>
      <Quiet>
        A replaced rod has a mark and a size of its own. Its readings are taken back (they stay in the history), and the
        accepted choice of the rods is opened again.
      </Quiet>
      <Row style={{ alignItems: 'end' }}>
        <Choice
          label="Rod"
          value={rod}
          options={numbers.map((value) => ({ value, label: `R${value} ${document.rods[value]?.mark ?? ''}` }))}
          onChange={(next) => set({ rod: next })}
        />
        <Field label="Mark of the new rod" value={mark} maxLength={20} onChange={(next) => set({ mark: next })} />
        <Button onPress={replace}>It is replaced</Button>
      </Row>
      {told && <p role="status">{told}</p>}
    </Panel>
  );
}
