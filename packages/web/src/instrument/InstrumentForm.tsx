import {
  INSTRUMENT_KINDS,
  INSTRUMENT_STATE_WORDS,
  INSTRUMENT_STATES,
  type InstrumentView,
  instrumentKind,
  newInstrument,
  type RegisteredInstrument,
} from '@fettle/core';
import { useState } from 'react';
import styled from 'styled-components';
import { UNIT_OPTIONS } from '../limits/options.js';
import { useBy } from '../person/useBy.js';
import { useDraft } from '../typing/useDraft.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import { type InstrumentText, instrumentOfText, textOfInstrument, textOfKind } from './instrumentText.js';

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(10.5rem, 1fr));
  gap: 0.25rem 0.75rem;
  margin-top: 0.5rem;
  > .whole { grid-column: 1 / -1; }
`;

/** A draft, with the revision that it was begun from. */
interface Draft {
  readonly text: InstrumentText;
  readonly revision: number;
}

interface InstrumentFormProps {
  readonly id: string;
  /** Null for an instrument that is not registered yet. */
  readonly view: InstrumentView | null;
  readonly mayChange: boolean;
  readonly onSaved: () => void;
}

/** What an instrument is and how far it may be off; typed together and saved by one button. */
export function InstrumentForm({ id, view, mayChange, onSaved }: InstrumentFormProps) {
  const by = useBy();
  const [draft, setDraft, clear] = useDraft<Draft>(`instrument.${id}`);
  const [isTried, setTried] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const stored = textOfInstrument(
    view?.instrument ?? (newInstrument('outsideMicrometer', 'mm') as RegisteredInstrument),
  );
  const text = draft?.text ?? stored;
  const read = instrumentOfText(text);
  const faults = read.ok || !isTried ? {} : read.faults;
  const put = (next: InstrumentText) => setDraft({ text: next, revision: draft?.revision ?? view?.revision ?? 0 });
  const set = (part: Partial<InstrumentText>) => put({ ...text, ...part });
  const { hasNeedle, isMaster, word } = instrumentKind(text.kind);
  const field = (box: keyof InstrumentText, label: string, figure = false) => (
    <Field
      label={figure ? `${label}, ${text.unit}` : label}
      figure={figure}
      value={text[box]}
      isReadOnly={!mayChange}
      onChange={(value) => set({ [box]: value })}
      fault={faults[box] ?? null}
    />
  );
  const save = async () => {
    setTried(true);
    setFault(null);
    if (!read.ok) return;
    const revision = draft?.revision ?? view?.revision ?? 0;
    try {
      await tell('putInstrument', { id, body: { revision, by, instrument: read.instrument } });
      if (draft) clear(draft);
      setTried(false);
      onSaved();
    } catch (error) {
      setFault(refusalInWords(error));
    }
  };
  const isBehind = draft !== null && view !== null && draft.revision !== view.revision;
  return (
    <Panel aria-label="Instrument">
      <PanelTitle>{view ? 'Instrument' : 'Register an instrument'}</PanelTitle>
      {isBehind && (
        <Notice actions={<Button onPress={() => clear()}>Discard my changes</Button>}>
          {view.updatedBy} changed this instrument meanwhile. Saving replaces that change.
          <Button $kind="quiet" onPress={() => setDraft({ text, revision: view.revision })}>
            Continue with mine
          </Button>
        </Notice>
      )}
      <Grid>
        <Choice
          label="Kind"
          value={text.kind}
          options={INSTRUMENT_KINDS.map((value) => ({ value, label: instrumentKind(value).word }))}
          isDisabled={!mayChange}
          onChange={(kind) => (view ? set({ kind }) : put(textOfKind(text, kind, text.unit)))}
        />
        {field('number', 'Number')}
        <Choice
          label="Scale unit"
          value={text.unit}
          options={UNIT_OPTIONS}
          isDisabled={!mayChange}
          onChange={(unit) => (view ? set({ unit }) : put(textOfKind(text, text.kind, unit)))}
        />
        {hasNeedle && (
          <Choice
            label="Needle: + means"
            value={text.needle}
            options={[
              { value: '', label: 'not said yet' },
              { value: 'bigger', label: 'bigger' },
              { value: 'smaller', label: 'smaller, as on most bore gauges clockwise' },
            ]}
            isDisabled={!mayChange}
            onChange={(needle) => set({ needle })}
          />
        )}
        {isMaster ? (
          field('size', `Size of the ${word}`, true)
        ) : (
          <>
            {field('low', 'Reads from', true)}
            {field('high', 'Reads to', true)}
          </>
        )}
        {text.kind === 'ballMicrometer' && field('ball', 'Ball', true)}
        {!isMaster && field('resolution', 'Resolution', true)}
        {field('holder', 'Kept by')}
        {field('place', 'Location')}
        <Choice
          label="State"
          value={text.state}
          options={INSTRUMENT_STATES.map((value) => ({ value, label: INSTRUMENT_STATE_WORDS[value] }))}
          isDisabled={!mayChange}
          onChange={(state) => set({ state })}
        />
        {field('months', 'Months between calibrations')}
        {!isMaster && (
          <>
            {field('setting', 'Setting, u', true)}
            {field('repeatability', 'Repeats, u', true)}
            {field('operator', 'Operator, u', true)}
            {field('drift', 'Drift allowed', true)}
            <div className="whole">{field('basis', 'Where the uncertainties come from')}</div>
          </>
        )}
      </Grid>
      {faults.needle && <Notice urgent>{faults.needle}</Notice>}
      {fault && <Notice urgent>{fault}</Notice>}
      {!isMaster && (
        <Quiet>
          u: standard uncertainty. Drift allowed: two zero checks that differ by more make readings suspect.
        </Quiet>
      )}
      {mayChange && (
        <Row style={{ marginTop: '0.5rem' }}>
          <Button $kind="primary" isDisabled={view !== null && draft === null} onPress={() => void save()}>
            {view ? 'Save' : `Register the ${word}`}
          </Button>
          {draft !== null && view !== null && (
            <Button
              onPress={() => {
                clear();
                setTried(false);
              }}
            >
              Discard changes
            </Button>
          )}
        </Row>
      )}
    </Panel>
  );
}
