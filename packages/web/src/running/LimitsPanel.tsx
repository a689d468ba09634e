import {
  otherPressureUnit,
  PRESSURE_MOMENTS,
  PRESSURE_UNITS,
  PRESSURE_WORDS,
  type PressureLimit,
  type PressureMoment,
  type PressureUnit,
  plainNumber,
  pressureEcho,
  pressureLimitText,
} from '@fettle/core';
import { useState } from 'react';
import { useDraft } from '../typing/useDraft.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { FieldPairs, Fold, PlainGroup } from '../ui/Fold.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { lastUnit } from './entryText.js';
import type { RunningWork } from './useRunning.js';

interface LimitText {
  readonly least: string;
  readonly most: string;
  readonly unit: PressureUnit;
  readonly source: string;
}

function textOf(limit: PressureLimit | null, unit: PressureUnit): LimitText {
  return {
    least: limit?.least == null ? '' : String(limit.least),
    most: limit?.most == null ? '' : String(limit.most),
    unit: limit?.unit ?? unit,
    source: limit?.source ?? '',
  };
}

/** What was typed as a limit: null for nothing at all, or what is wrong with it. */
function limitOf({ least, most, unit, source }: LimitText): PressureLimit | null | string {
  const read = (typed: string) => (typed.trim() === '' ? null : plainNumber(typed));
  const [low, high] = [read(least), read(most)];
  if (low === null && high === null) return source.trim() === '' ? null : 'Enter a minimum, a maximum, or both.';
  if ([low, high].some((one) => one !== null && !(one >= 0 && one <= 100_000))) return 'Enter pressures, such as 1.5.';
  if (low !== null && high !== null && low > high) return 'The maximum is below the minimum: swap them.';
  if (source.trim() === '') return 'Enter the source: book and page.';
  return { least: low, most: high, unit, source: source.trim() };
}

function MomentLimit({ work, moment }: { readonly work: RunningWork; readonly moment: PressureMoment }) {
  const { job, running, document } = work;
  const limit = running.limits[moment] ?? null;
  const [draft, setDraft, clear] = useDraft<LimitText>(`pressure.${job.id}.${moment}`);
  const [fault, setFault] = useState<string | null>(null);
  const text = draft ?? textOf(limit, lastUnit(document));
  const set = (part: Partial<LimitText>) => setDraft({ ...text, ...part });
  const save = () => {
    const read = limitOf(text);
    if (typeof read === 'string') return setFault(read);
    setFault(null);
    work.setLimit(moment, read);
    clear();
  };
  const echo = (value: number | null) =>
    limit === null || value === null
      ? undefined
      : pressureEcho({ value, unit: limit.unit }, otherPressureUnit(limit.unit));
  return (
    <Fold open={draft !== null || undefined}>
      <summary>
        Oil pressure {PRESSURE_WORDS[moment]}: {limit === null ? 'no limit' : pressureLimitText(limit)}
      </summary>
      <PlainGroup aria-label={`Limit of the oil pressure ${PRESSURE_WORDS[moment]}`}>
        <FieldPairs>
          <Field
            label="Least"
            figure
            inputMode="decimal"
            value={text.least}
            onChange={(least) => set({ least })}
            hint={echo(limit?.least ?? null)}
          />
          <Field
            label="Most"
            figure
            inputMode="decimal"
            value={text.most}
            onChange={(most) => set({ most })}
            hint={echo(limit?.most ?? null)}
          />
          <Choice
            label="In"
            value={text.unit}
            options={PRESSURE_UNITS.map((value) => ({ value, label: value }))}
            onChange={(unit) => set({ unit })}
          />
          <Field
            label="Source"
            value={text.source}
            maxLength={200}
            placeholder="book, page; speed and temperature"
            onChange={(source) => set({ source })}
          />
        </FieldPairs>
        {fault && <p role="alert">{fault}</p>}
        <Row style={{ marginTop: '0.4rem' }}>
          <Button onPress={save}>Save limit</Button>
        </Row>
      </PlainGroup>
    </Fold>
  );
}

/** The limits of the oil pressure, out of the engine maker’s data. */
export function LimitsPanel({ work }: { readonly work: RunningWork }) {
  return (
    <Panel aria-label="Limits of the oil pressure">
      <PanelTitle>Limits of the oil pressure</PanelTitle>
      {PRESSURE_MOMENTS.map((moment) => (
        <MomentLimit key={moment} work={work} moment={moment} />
      ))}
      <Quiet>From the engine maker’s data, with the speed that they hold for. The next build takes them over.</Quiet>
    </Panel>
  );
}
