import {
  type JobDocument,
  mainListText,
  type Nanometres,
  RULES,
  type RuleField,
  type RuleKey,
  readMainList,
  rulesInWords,
} from '@fettle/core';
import type { ChangeDocument } from '../job/useJob.js';
import { useClearances } from '../person/useClearances.js';
import { LengthField } from '../typing/LengthField.js';
import { NumberField } from '../typing/NumberField.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Fold } from '../ui/Fold.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { useKeptText } from '../ui/useKeptText.js';

function notNegative(value: number): string | null {
  return value >= 0 ? null : 'Enter 0 or more.';
}

/** The mains among which the largest spread holds: front mains are often wanted alike, while the rear one is given more. */
function SpreadMains({ label, job, document, change }: RulesProps & { label: string }) {
  const { spreadMains } = document.rules;
  const stored = spreadMains == null ? '' : mainListText(spreadMains);
  const { text, setText, settled, isLeftOver } = useKeptText({ of: job, part: 'rules', field: 'spreadMains' }, stored);
  const read = readMainList(text, document.layout.mains);
  const fault = !read.ok
    ? read.message
    : read.mains.length === 1
      ? 'One main has no spread: give two or more, or leave it empty for all.'
      : null;
  return (
    <Field
      label={label}
      figure
      inputMode="text"
      value={text}
      onChange={setText}
      isLeftOver={isLeftOver}
      fault={fault}
      onBlur={() => {
        if (fault !== null || !read.ok) return;
        settled(mainListText(read.mains));
        if (mainListText(read.mains) === stored) return;
        const mains = read.mains.length === 0 ? null : read.mains;
        change((old) => ({ ...old, rules: { ...old.rules, spreadMains: mains } }));
      }}
    />
  );
}

const YES_NO = [
  { value: 'yes', label: 'Allowed' },
  { value: 'no', label: 'Not allowed' },
] as const;

interface RulesProps {
  readonly job: string;
  readonly document: JobDocument;
  readonly change: ChangeDocument;
}

/** A share as per cent, to a tenth. */
const percentOf = (share: number) => Math.round(share * 1000) / 10;

/** The box of one rule, by the kind of its field. */
function RuleBox({ rule, field, job, document, change }: RulesProps & { rule: RuleKey; field: RuleField }) {
  const { rules, unit } = document;
  const value: unknown = rules[rule];
  const set = (to: unknown) => change((old) => ({ ...old, rules: { ...old.rules, [rule]: to } }));
  const kept = { of: job, part: 'rules', field: rule };
  switch (field.kind) {
    case 'yes-no':
      return (
        <Choice
          label={field.label}
          value={value === true ? 'yes' : 'no'}
          options={YES_NO}
          onChange={(to) => set(to === 'yes')}
        />
      );
    case 'one-of':
      return <Choice label={field.label} value={String(value)} options={field.options} onChange={set} />;
    case 'length':
      return (
        <LengthField
          kept={kept}
          label={`${field.label}, ${unit}`}
          unit={unit}
          value={value as Nanometres | null}
          optional={field.isOptional}
          check={notNegative}
          onCommit={(to) => (field.isOptional || to !== null) && set(to)}
        />
      );
    case 'number':
      return <NumberField kept={kept} label={field.label} value={Number(value)} most={field.most} onCommit={set} />;
    case 'percent':
      return (
        <NumberField
          kept={kept}
          label={field.label}
          value={percentOf((value as number | undefined) ?? field.shown ?? 0)}
          most={field.most}
          onCommit={(percent) => set(percent / 100)}
        />
      );
    case 'mains':
      return <SpreadMains label={field.label} job={job} document={document} change={change} />;
  }
}

/** The rules by which the halves of this engine are paired: a box a row of their table. */
export function RulesPanel({ job, document, change }: RulesProps) {
  const { said } = useClearances(document.unit);
  const own = RULES.filter(([, { isOf }]) => isOf?.(document) !== false);
  return (
    <Panel aria-label="Selection rules">
      <PanelTitle>Selection rules</PanelTitle>
      <Fold>
        <summary>{said(rulesInWords(document))}</summary>
        <Row style={{ alignItems: 'start', display: 'grid', gridTemplateColumns: '1fr 1fr', marginTop: '0.5rem' }}>
          {own.map(
            ([rule, { field }]) =>
              field && <RuleBox key={rule} rule={rule} field={field} job={job} document={document} change={change} />,
          )}
        </Row>
        {own.map(([rule, { help }]) => help && <Quiet key={rule}>{help}</Quiet>)}
      </Fold>
    </Panel>
  );
}
