import {
  type EndPlayReading,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  lengthText,
  momentWord,
  type Nanometres,
  type Unit,
} from '@fettle/core';
import styled from 'styled-components';
import { useClearances } from '../person/useClearances.js';
import { bothUnits } from '../typing/LengthField.js';
import { ReadingList } from '../typing/ReadingList.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { Tick } from '../ui/Tick.js';
import { useDialReading } from './useDialReading.js';
import type { EndPlayWork } from './useEndPlay.js';

const Entry = styled.form`
  display: grid;
  grid-template-columns: minmax(9rem, 1.3fr) minmax(7rem, 0.8fr) minmax(10rem, 1.4fr) auto;
  @media (max-width: 640px) { grid-template-columns: 1fr 1fr; }
  gap: 0.25rem 0.75rem;
  align-items: start;
  margin-top: 0.5rem;
  input { font-size: 1.75rem; min-height: 56px; }
  button { min-height: 56px; }
  .add { margin-top: 1.45rem; min-height: 56px; }
`;

const ANGLES = [
  { value: '0', label: '0°' },
  { value: '180', label: '180°' },
] as const;

interface FarAboveProps {
  readonly nm: Nanometres;
  readonly entry: ReturnType<typeof useDialReading>;
  readonly unit: Unit;
}

/** Asks about a figure far above the limits: one that was likely meant, or right as it is. */
function FarAbove({ nm, entry, unit }: FarAboveProps) {
  const { shown } = useClearances(unit);
  return (
    <Notice>
      <strong>{lengthText(nm, shown)} is far above the limits.</strong>{' '}
      {entry.likely?.map(({ nm: meant, question }) => (
        <Button
          key={meant}
          onPress={() => entry.setText(formatExactLength(meant, unit, INSTRUMENT_DECIMALS[unit]))}
          aria-label={`${question} It is ${lengthText(meant, shown)}`}
        >
          {question} It is {lengthText(meant, shown)}
        </Button>
      ))}{' '}
      <Button onPress={entry.confirm}>Reading is right</Button>
    </Notice>
  );
}

/** The dial, lever to lever: typed large, as often as it is read, and what was read so far. */
export function DialReadings({ job, work }: { readonly job: string; readonly work: EndPlayWork }) {
  const { document, endPlay, removeReading, set } = work;
  const { unit } = document;
  const { shown } = useClearances(unit);
  const entry = useDialReading(job, work);
  const { moment, nm } = entry;
  const said = ({ nm: read, text }: EndPlayReading) => (read === null ? text : lengthText(read, shown));
  return (
    <Panel aria-label="Dial readings">
      <PanelTitle>Dial reading</PanelTitle>
      <Quiet>
        Lever the shaft fully one way, zero the dial, lever it the other way; several times. Keep fingers clear of the
        cheeks.
      </Quiet>
      <Tick isSelected={endPlay.walked} onChange={(walked) => set({ walked })}>
        Walked back and forth first, so that the lubricant is out
      </Tick>
      <Entry
        onSubmit={(event) => {
          event.preventDefault();
          entry.keep();
        }}
      >
        <Choice
          label="When"
          value={moment}
          options={entry.moments.map((value) => ({ value, label: momentWord(value) }))}
          onChange={entry.setMoment}
        />
        <Choice label="Shaft at" value={entry.angle} options={ANGLES} onChange={entry.setAngle} />
        <Field
          label={moment === 'without' ? `Gap, ${unit}` : `End play, ${unit}`}
          figure
          inputMode="decimal"
          value={entry.text}
          onChange={entry.setText}
          fault={entry.fault}
          isLeftOver={entry.isLeftOver}
          keptBy="press “Save reading”"
          hint={nm === null ? ' ' : bothUnits(nm, unit)}
        />
        <Button className="add" $kind="primary" type="submit">
          Save reading
        </Button>
      </Entry>
      {entry.likely && nm !== null && <FarAbove nm={nm} entry={entry} unit={unit} />}
      <ReadingList
        label="End play readings"
        readings={endPlay.readings}
        columns={[
          { head: 'When', cell: (one) => momentWord(one.moment) },
          { head: 'Shaft at', isNumber: true, cell: (one) => `${one.angle}°` },
          { head: 'Reading', isNumber: true, cell: said },
        ]}
        removeLabel={(one, number) => `Remove reading ${number}: ${said(one)}`}
        onRemove={removeReading}
      />
    </Panel>
  );
}
