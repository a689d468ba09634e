import { GAUGE_MODES, lengthText, MODE_WORDS } from '@fettle/core';
import styled from 'styled-components';
import { NeedleAsk } from '../measure/NeedleAsk.js';
import { ReadingList } from '../typing/ReadingList.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Quiet } from '../ui/Panel.js';
import type { TrialWork } from './useTrial.js';
import { useTrialEntry } from './useTrialEntry.js';

const Entry = styled.form`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0.25rem 0.75rem;
  align-items: start;
  margin-top: 0.5rem;
  .reading { grid-column: 1 / -1; display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 0.75rem; align-items: start; }
  .reading input { font-size: 1.75rem; min-height: 56px; }
  .add { margin-top: 1.45rem; min-height: 56px; }
`;

const Suspect = styled.span`
  display: block;
  font-family: var(--text);
  font-weight: 600;
  white-space: normal;
  color: var(--tight);
`;

/** Every reading of the open station, with what is far from the others. */
function Readings({ work }: { readonly work: TrialWork }) {
  const { document, open, remove, confirmReading } = work;
  const { id, tried } = open.station;
  return (
    <ReadingList
      label={`Readings at ${id} with the shells in`}
      readings={tried?.trial.readings ?? {}}
      columns={[
        {
          head: 'Gauge',
          cell: (one) => (
            <>
              {MODE_WORDS[one.mode]}
              {one.setting !== null && <Quiet as="span"> {lengthText(one.setting, document.unit)}</Quiet>}
            </>
          ),
        },
        {
          head: 'Reading',
          isNumber: true,
          cell: (one, key) => (
            <>
              {one.text}
              {tried?.suspect.has(key) && (
                <Suspect>
                  Far from the others: not counted.{' '}
                  <Button aria-label={`Confirm ${one.text} at ${id}`} onPress={() => confirmReading(key)}>
                    Confirm
                  </Button>
                </Suspect>
              )}
            </>
          ),
        },
      ]}
      removeLabel={(one, number) => `Remove reading ${number} at ${id}: ${one.text}`}
      onRemove={remove}
    />
  );
}

/** One reading with the shells in: how the gauge was zeroed, and the figure, typed large. */
export function TrialEntry({ job, work }: { readonly job: string; readonly work: TrialWork }) {
  const { document, open, mode, setMode } = work;
  const { unit } = document;
  const { typed, zero, zeroFault, fault, hint, gaugeToAsk, keep } = useTrialEntry(job, work);
  return (
    <>
      <Entry
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <Choice
          label="Gauge zeroed"
          value={mode}
          options={GAUGE_MODES.map((value) => ({ value, label: MODE_WORDS[value].replace('zeroed ', '') }))}
          onChange={setMode}
        />
        {mode === 'setting' ? (
          <Field
            label={`Setting size, ${unit}`}
            figure
            inputMode="decimal"
            value={zero.text}
            onChange={zero.setText}
            isLeftOver={zero.isLeftOver}
            keptBy="saved with the reading"
            fault={zeroFault}
          />
        ) : (
          <span />
        )}
        <div className="reading">
          <Field
            label={`${open.station.id}, shells in, bolt direction, ${unit}`}
            figure
            inputMode="text"
            value={typed.text}
            onChange={typed.setText}
            isLeftOver={typed.isLeftOver}
            keptBy="press “Save reading”"
            fault={fault}
            hint={hint}
          />
          <Button className="add" $kind="primary" type="submit">
            Save reading
          </Button>
        </div>
      </Entry>
      {gaugeToAsk !== null && <NeedleAsk name={gaugeToAsk} onSay={work.sayNeedle} />}
      <Readings work={work} />
    </>
  );
}
