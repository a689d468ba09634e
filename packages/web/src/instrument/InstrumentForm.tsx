import {
  INSTRUMENT_KINDS,
  INSTRUMENT_STATE_WORDS,
  INSTRUMENT_STATES,
  type InstrumentView,
  instrumentKind,
} from '@fettle/core';
import styled from 'styled-components';
import { UNIT_OPTIONS } from '../limits/options.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { type InstrumentText, textOfKind } from './instrumentText.js';
import { type InstrumentDraft, useInstrumentForm } from './useInstrumentForm.js';

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(10.5rem, 1fr));
  gap: 0.25rem 0.75rem;
  margin-top: 0.5rem;
  > .whole { grid-column: 1 / -1; }
`;

const NEEDLE_OPTIONS = [
  { value: '', label: 'not said yet' },
  { value: 'bigger', label: 'bigger' },
  { value: 'smaller', label: 'smaller, as on most bore gauges clockwise' },
] as const;

interface InstrumentFormProps {
  readonly id: string;
  /** Null for an instrument that is not registered yet. */
  readonly view: InstrumentView | null;
  readonly mayChange: boolean;
  readonly onSaved: () => void;
}

interface BoxesProps {
  readonly draft: InstrumentDraft;
  readonly isNew: boolean;
  readonly mayChange: boolean;
}

function Boxes({ draft: { text, faults, put, set }, isNew, mayChange }: BoxesProps) {
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
  return (
    <Grid>
      <Choice
        label="Kind"
        value={text.kind}
        options={INSTRUMENT_KINDS.map((value) => ({ value, label: instrumentKind(value).word }))}
        isDisabled={!mayChange}
        onChange={(kind) => (isNew ? put(textOfKind(text, kind, text.unit)) : set({ kind }))}
      />
      {field('number', 'Number')}
      <Choice
        label="Scale unit"
        value={text.unit}
        options={UNIT_OPTIONS}
        isDisabled={!mayChange}
        onChange={(unit) => (isNew ? put(textOfKind(text, text.kind, unit)) : set({ unit }))}
      />
      {hasNeedle && (
        <Choice
          label="Needle: + means"
          value={text.needle}
          options={NEEDLE_OPTIONS}
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
  );
}

/** What an instrument is and how far it may be off; typed together and saved by one button. */
export function InstrumentForm({ id, view, mayChange, onSaved }: InstrumentFormProps) {
  const draft = useInstrumentForm(id, view, onSaved);
  const { isMaster, word } = instrumentKind(draft.text.kind);
  return (
    <Panel aria-label="Instrument">
      <PanelTitle>{view ? 'Instrument' : 'Register an instrument'}</PanelTitle>
      {draft.isBehind && (
        <Notice actions={<Button onPress={draft.discard}>Discard my changes</Button>}>
          {view?.updatedBy} changed this instrument meanwhile. Saving replaces that change.
          <Button $kind="quiet" onPress={draft.goOn}>
            Continue with mine
          </Button>
        </Notice>
      )}
      <Boxes draft={draft} isNew={view === null} mayChange={mayChange} />
      {draft.faults.needle && <Notice urgent>{draft.faults.needle}</Notice>}
      {draft.fault && <Notice urgent>{draft.fault}</Notice>}
      {!isMaster && (
        <Quiet>
          u: standard uncertainty. Drift allowed: two zero checks that differ by more make readings suspect.
        </Quiet>
      )}
      {mayChange && (
        <Row style={{ marginTop: '0.5rem' }}>
          <Button $kind="primary" isDisabled={view !== null && !draft.isTyped} onPress={() => void draft.save()}>
            {view ? 'Save' : `Register the ${word}`}
          </Button>
          {draft.isTyped && view !== null && <Button onPress={draft.discard}>Discard changes</Button>}
        </Row>
      )}
    </Panel>
  );
}
