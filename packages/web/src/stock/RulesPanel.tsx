import {
  type JobDocument,
  mainListText,
  RULES,
  type RuleKey,
  type RuleRow,
  readMainList,
  rulesInWords,
} from '@fettle/core';
import type { ChangeDocument } from '../job/useJob.js';
import { useClearances } from '../person/useClearances.js';
import { SettingBox } from '../typing/SettingBox.js';
import { Field } from '../ui/Field.js';
import { Fold } from '../ui/Fold.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { useKeptText } from '../ui/useKeptText.js';

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

interface RulesProps {
  readonly job: string;
  readonly document: JobDocument;
  readonly change: ChangeDocument;
}

/** The box of one rule. */
function RuleBox({
  rule,
  field,
  job,
  document,
  change,
}: RulesProps & { rule: RuleKey; field: NonNullable<RuleRow['field']> }) {
  if (field.kind === 'mains') {
    return <SpreadMains label={field.label} job={job} document={document} change={change} />;
  }
  return (
    <SettingBox
      kept={{ of: job, part: 'rules', field: rule }}
      field={field}
      unit={document.unit}
      value={document.rules[rule]}
      onCommit={(to) => change((old) => ({ ...old, rules: { ...old.rules, [rule]: to } }))}
    />
  );
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
