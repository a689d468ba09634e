import {
  type EndPlayReading,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  lengthText,
  likelyFigures,
  type Moment,
  momentWord,
  parseLength,
} from '@fettle/core';
import { useState } from 'react';
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
import { useKeptChoice } from '../ui/useKeptChoice.js';
import { useKeptText } from '../ui/useKeptText.js';
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

const MOMENTS_OF: Readonly<Record<'stack' | 'faces', readonly Moment[]>> = {
  stack: ['without', 'fitted'],
  faces: ['found', 'seated', 'fitted'],
};

/** A reading so many times the high limit is looked at again: a decimal slip, or a dial that turned once more. */
const FAR = 3;

/** The dial, lever to lever: typed large, as often as it is read, and what was read so far. */
export function DialReadings({ job, work }: { readonly job: string; readonly work: EndPlayWork }) {
  const { document, endPlay, kind, limit, addReading, removeReading, set } = work;
  const { unit } = document;
  const { shown } = useClearances(document.unit);
  const moments = MOMENTS_OF[kind === 'rings' ? 'stack' : 'faces'];
  // What was picked holds until the work has gone on: with a choice accepted, the next reading is one with its pieces in.
  const place = { of: job, part: `endPlay ${work.moment}` };
  const [moment, setMoment, momentKept] = useKeptChoice({ ...place, field: 'moment' }, work.moment, moments);
  const [angle, setAngle, angleKept] = useKeptChoice({ ...place, field: 'angle' }, '0', ['0', '180'] as const);
  const [isTried, setTried] = useState(false);
  const { text, setText, settled, isLeftOver } = useKeptText({ of: job, part: 'endPlay', field: 'reading' }, '');
  const parsed = parseLength(text, { unit, signed: 'sign' });
  const fault = !parsed.ok
    ? isTried && text.trim() !== ''
      ? parsed.message
      : null
    : parsed.nm < 0
      ? 'End play cannot be negative: zero the dial at one end.'
      : null;
  // What cannot be an end play counts nowhere until it is said to be right.
  const likely =
    parsed.ok && parsed.nm >= 0 && limit !== null && moment !== 'without'
      ? likelyFigures(parsed.nm, unit, { low: 0, high: FAR * limit.high })
      : null;
  const [sure, setSure] = useState<string | null>(null);
  const isAsked = likely !== null && sure !== text;
  const add = () => {
    setTried(true);
    if (!parsed.ok || parsed.nm < 0 || isAsked) return;
    addReading(moment, angle === '0' ? 0 : 180, text, parsed.nm);
    settled('');
    momentKept(moment);
    angleKept(angle);
    setTried(false);
  };
  const said = ({ nm, text: typed }: EndPlayReading) => (nm === null ? typed : lengthText(nm, shown));
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
          add();
        }}
      >
        <Choice
          label="When"
          value={moment}
          options={moments.map((value) => ({ value, label: momentWord(value) }))}
          onChange={setMoment}
        />
        <Choice
          label="Shaft at"
          value={angle}
          options={[
            { value: '0', label: '0°' },
            { value: '180', label: '180°' },
          ]}
          onChange={setAngle}
        />
        <Field
          label={moment === 'without' ? `Gap, ${unit}` : `End play, ${unit}`}
          figure
          inputMode="decimal"
          value={text}
          onChange={setText}
          fault={fault}
          isLeftOver={isLeftOver}
          keptBy="press “Save reading”"
          hint={parsed.ok ? bothUnits(parsed.nm, unit) : ' '}
        />
        <Button className="add" $kind="primary" type="submit">
          Save reading
        </Button>
      </Entry>
      {isAsked && parsed.ok && (
        <Notice>
          <strong>{lengthText(parsed.nm, shown)} is far above the limits.</strong>{' '}
          {likely.map(({ nm, question }) => (
            <Button
              key={nm}
              onPress={() => setText(formatExactLength(nm, unit, INSTRUMENT_DECIMALS[unit]))}
              aria-label={`${question} It is ${lengthText(nm, shown)}`}
            >
              {question} It is {lengthText(nm, shown)}
            </Button>
          ))}{' '}
          <Button onPress={() => setSure(text)}>Reading is right</Button>
        </Notice>
      )}
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
