import { PRESSURE_MOMENTS, PRESSURE_UNITS, PRESSURE_WORDS, parseLength } from '@fettle/core';
import { useState } from 'react';
import styled from 'styled-components';
import { today } from '../base/today.js';
import { bothUnits } from '../typing/LengthField.js';
import { useDraft } from '../typing/useDraft.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { PlainGroup } from '../ui/Fold.js';
import { Notice } from '../ui/Notice.js';
import { Row } from '../ui/Panel.js';
import { blankEntry, type EntryText, entryOfText, lastUnit } from './entryText.js';
import type { RunningWork } from './useRunning.js';

const Fields = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(8.5rem, 1fr));
  gap: 0.25rem 0.75rem;
  align-items: start;
  margin-top: 0.5rem;
`;

/** A reading after the build, typed and kept on this device until it is saved. */
export function EntryForm({ work }: { readonly work: RunningWork }) {
  const { job, document, running } = work;
  const [draft, setDraft, clear] = useDraft<EntryText>(`running.${job.id}`);
  const [isTried, setTried] = useState(false);
  const text = draft ?? blankEntry(today(), lastUnit(document));
  const read = entryOfText(text, document, work.stamp());
  const faults = read.ok || !isTried ? null : read.faults;
  const set = (part: Partial<EntryText>) => setDraft({ ...text, ...part });
  const save = () => {
    setTried(true);
    if (!read.ok) return;
    work.addEntry(read.entry);
    clear();
    setTried(false);
  };
  const endPlay = parseLength(text.endPlay, { unit: document.unit, signed: 'sign' });
  return (
    <PlainGroup aria-label="Reading after the build">
      <Fields>
        <Field
          label="Day"
          type="date"
          value={text.on}
          onChange={(on) => set({ on })}
          fault={faults?.get('on') ?? null}
        />
        <Field
          label={`Run since the build, ${running.unit}`}
          figure
          inputMode="decimal"
          value={text.run}
          onChange={(run) => set({ run })}
          fault={faults?.get('run') ?? null}
        />
        <Choice
          label="Pressure unit"
          value={text.unit}
          options={PRESSURE_UNITS.map((value) => ({ value, label: value }))}
          onChange={(unit) => set({ unit })}
        />
      </Fields>
      <Fields>
        {PRESSURE_MOMENTS.flatMap((moment) => {
          const own = text.pressures[moment] ?? { value: '', rpm: '' };
          const setOwn = (part: Partial<typeof own>) =>
            set({ pressures: { ...text.pressures, [moment]: { ...own, ...part } } });
          return [
            <Field
              key={moment}
              label={`Oil pressure ${PRESSURE_WORDS[moment]}`}
              figure
              inputMode="decimal"
              value={own.value}
              onChange={(value) => setOwn({ value })}
              fault={faults?.get(`${moment} value`) ?? null}
            />,
            <Field
              key={`${moment} rpm`}
              label={`rpm, ${PRESSURE_WORDS[moment]}`}
              figure
              inputMode="numeric"
              value={own.rpm}
              onChange={(rpm) => setOwn({ rpm })}
              fault={faults?.get(`${moment} rpm`) ?? null}
            />,
          ];
        })}
        <Field
          label="Hot oil, °C"
          figure
          inputMode="decimal"
          value={text.celsius}
          onChange={(celsius) => set({ celsius })}
          fault={faults?.get('celsius') ?? null}
        />
        <Field
          label={`End play, ${document.unit}`}
          figure
          inputMode="decimal"
          value={text.endPlay}
          onChange={(value) => set({ endPlay: value })}
          fault={faults?.get('endPlay') ?? null}
          hint={endPlay.ok ? bothUnits(endPlay.nm, document.unit) : undefined}
        />
      </Fields>
      <Field label="Notes" value={text.words} maxLength={500} onChange={(words) => set({ words })} />
      {faults?.has('all') && <Notice urgent>{faults.get('all')}</Notice>}
      <Row style={{ marginTop: '0.5rem' }}>
        <Button $kind="primary" onPress={save}>
          Save reading
        </Button>
      </Row>
    </PlainGroup>
  );
}
