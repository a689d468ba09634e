import {
  formatExactLength,
  GAUGE_MODES,
  INSTRUMENT_DECIMALS,
  instrumentFor,
  lengthText,
  MODE_WORDS,
  nanometres,
  parseLength,
  trialLength,
} from '@fettle/core';
import { useState } from 'react';
import styled from 'styled-components';
import { NeedleAsk } from '../measure/NeedleAsk.js';
import { bothUnits } from '../typing/LengthField.js';
import { ReadingList } from '../typing/ReadingList.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Quiet } from '../ui/Panel.js';
import { useKeptText } from '../ui/useKeptText.js';
import type { TrialWork } from './useTrial.js';

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

const MODE_HINTS = {
  journal: 'What the needle shows is the clearance.',
  setting: 'The bore of the shells, or + and − from the setting size.',
  bore: 'Micrometer reading that brings the needle back to zero.',
} as const;

/** One reading with the shells in: how the gauge was zeroed, and the figure, typed large. */
export function TrialEntry({ job, work }: { readonly job: string; readonly work: TrialWork }) {
  const { document, open, mode, setMode, lastSetting, add, remove, confirmReading } = work;
  const { unit } = document;
  const { id, tried } = open.station;
  const stored = lastSetting === null ? '' : formatExactLength(lastSetting, unit, INSTRUMENT_DECIMALS[unit]);
  const typed = useKeptText({ of: job, part: `trial ${id}`, field: 'reading' }, '');
  const zero = useKeptText({ of: job, part: 'trial', field: 'setting' }, stored);
  const [isTried, setTried] = useState(false);
  const readZero = parseLength(zero.text, { unit, signed: 'sign' });
  const setting = readZero.ok && readZero.nm > 0 ? readZero.nm : null;
  const at = mode === 'journal' ? nanometres(0) : mode === 'setting' ? setting : null;
  const { needle, name: gauge } = instrumentFor(document, 'trials');
  const parsed = parseLength(typed.text, { unit, setting: at, needle });
  const nm = trialLength(typed.text, { unit, mode, setting, needle });
  // The sign of a needle is a trap: which way it goes is said in words.
  const way =
    parsed.ok && parsed.deviation !== null && mode === 'setting'
      ? `, ${parsed.deviation < 0 ? 'smaller' : 'bigger'} than the setting`
      : '';
  const keep = () => {
    setTried(true);
    if (nm === null) return;
    add({ text: typed.text.trim(), mode, setting: mode === 'setting' ? setting : null, needle, nm });
    typed.settled('');
    if (setting !== null) zero.settled(formatExactLength(setting, unit, INSTRUMENT_DECIMALS[unit]));
    setTried(false);
  };
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
            fault={zero.text.trim() !== '' && !readZero.ok ? readZero.message : null}
          />
        ) : (
          <span />
        )}
        <div className="reading">
          <Field
            label={`${id}, shells in, bolt direction, ${unit}`}
            figure
            inputMode="text"
            value={typed.text}
            onChange={typed.setText}
            isLeftOver={typed.isLeftOver}
            keptBy="press “Save reading”"
            fault={isTried && typed.text.trim() !== '' && !parsed.ok ? parsed.message : null}
            hint={
              nm === null
                ? MODE_HINTS[mode]
                : `${mode === 'journal' ? 'Clearance' : 'Bore'} ${bothUnits(nm, unit)}${way}`
            }
          />
          <Button className="add" $kind="primary" type="submit">
            Save reading
          </Button>
        </div>
      </Entry>
      {!parsed.ok && parsed.code === 'no-needle' && <NeedleAsk name={gauge} onSay={work.sayNeedle} />}
      <ReadingList
        label={`Readings at ${id} with the shells in`}
        readings={tried?.trial.readings ?? {}}
        columns={[
          {
            head: 'Gauge',
            cell: (one) => (
              <>
                {MODE_WORDS[one.mode]}
                {one.setting !== null && <Quiet as="span"> {lengthText(one.setting, unit)}</Quiet>}
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
    </>
  );
}
