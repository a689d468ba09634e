import {
  fastenerFigures,
  momentText,
  plainNumber,
  type RecheckState,
  recheckDueText,
  recheckStates,
} from '@fettle/core';
import { RotateCcw, SquareCheckBig, Trash2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { today } from '../base/today.js';
import { useDraft } from '../typing/useDraft.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import type { RunningWork } from './useRunning.js';

const List = styled.ul`
  li { display: flex; align-items: center; gap: 0.6rem; padding: 0.3rem 0.25rem; border-top: var(--rule) solid var(--line); }
  li > div { flex: 1; min-width: 0; overflow-wrap: anywhere; }
`;

const Fields = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0.25rem 0.75rem;
  align-items: start;
  > .whole { grid-column: 1 / -1; }
`;

/** What is usually done again after a build: common practice; the day or the run is the engine maker’s. */
const USUAL = [
  'Change oil and filter, look in the filter for metal',
  'Re-torque, where the engine maker asks for it',
  'Read oil pressure hot',
  'Read end play',
] as const;

function RecheckLine({ work, one }: { readonly work: RunningWork; readonly one: RecheckState }) {
  const isDue = one.done === null && (one.isRunDue || (one.on !== null && one.on <= today()));
  return (
    <li>
      {one.done && <SquareCheckBig aria-hidden size={20} color="var(--inside)" />}
      <div>
        <strong>{one.what}</strong>
        <Quiet style={isDue ? { color: 'var(--tight)', fontWeight: 700 } : {}}>
          {one.done
            ? `done, ${one.done.by}, ${momentText(one.done.at)}`
            : `${isDue ? 'due ' : ''}${recheckDueText(one, work.running.unit)}`}
        </Quiet>
      </div>
      {one.done === null ? (
        <Button aria-label={`Done: ${one.what}`} onPress={() => work.doneRecheck(one.key, '')}>
          Done
        </Button>
      ) : (
        <Button $kind="quiet" aria-label={`Not done: ${one.what}`} onPress={() => work.doneRecheck(one.key, null)}>
          <RotateCcw aria-hidden size={18} />
        </Button>
      )}
      <Button $kind="quiet" aria-label={`Remove: ${one.what}`} onPress={() => work.removeRecheck(one.key)}>
        <Trash2 aria-hidden size={18} />
      </Button>
    </li>
  );
}

interface RecheckText {
  readonly what: string;
  readonly on: string;
  readonly run: string;
}

/** What is to be done again after the build, on a day or after a run; it comes up by itself on its day. */
export function RechecksPanel({ work }: { readonly work: RunningWork }) {
  const { job, document, running } = work;
  const [draft, setDraft, clear] = useDraft<RecheckText>(`recheck.${job.id}`);
  const [fault, setFault] = useState<string | null>(null);
  const text = draft ?? { what: '', on: '', run: '' };
  const set = (part: Partial<RecheckText>) => setDraft({ ...text, ...part });
  const add = () => {
    const what = text.what.trim();
    const run = text.run.trim() === '' ? null : plainNumber(text.run);
    const on = text.on === '' ? null : text.on;
    if (what === '') return setFault('Enter the task.');
    if (run !== null && !(run >= 0 && run <= 1e7))
      return setFault(`Enter ${running.unit} since the build, such as 20.`);
    if (on === null && run === null) return setFault('Enter a day, a run, or both.');
    setFault(null);
    work.addRecheck({ what, on, run });
    clear();
  };
  const isTurned = fastenerFigures(document).some(
    ({ from, fasteners }) =>
      from !== 'missing' &&
      fasteners.some(({ tightening }) => tightening?.school === 'angle' || tightening?.school === 'stretch'),
  );
  return (
    <Panel aria-label="Re-checks">
      <PanelTitle>Re-checks</PanelTitle>
      <List aria-label="Re-checks">
        {recheckStates(running).map((one) => (
          <RecheckLine key={one.key} work={work} one={one} />
        ))}
      </List>
      <Fields role="group" aria-label="Re-check">
        <div className="whole">
          <Choice
            label="Usual"
            value={USUAL.find((one) => one === text.what) ?? ''}
            options={[{ value: '', label: 'other' }, ...USUAL.map((value) => ({ value, label: value }))]}
            onChange={(what) => set({ what })}
          />
        </div>
        <div className="whole">
          <Field label="What" value={text.what} maxLength={120} onChange={(what) => set({ what })} />
        </div>
        <Field label="On" type="date" value={text.on} onChange={(on) => set({ on })} />
        <Field
          label={`Or at, ${running.unit}`}
          figure
          inputMode="decimal"
          value={text.run}
          onChange={(run) => set({ run })}
        />
      </Fields>
      {fault && <Notice urgent>{fault}</Notice>}
      <Row style={{ margin: '0.5rem 0' }}>
        <Button onPress={add}>Add to the list</Button>
      </Row>
      <Quiet>
        {isTurned && (
          <strong>
            Bolts that were turned by an angle or stretched are not torqued again unless the engine maker says so.{' '}
          </strong>
        )}
        Shown under Engines on its day, for a closed engine too; by run, with the next reading. An oil pressure outside
        its limits comes first.
      </Quiet>
    </Panel>
  );
}
