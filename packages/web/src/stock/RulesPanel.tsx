import { hasBanks, type JobDocument, mainListText, readMainList, rulesInWords, USUAL_LIMIT_SHARE } from '@fettle/core';
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
function SpreadMains({ job, document, change }: { job: string; document: JobDocument; change: ChangeDocument }) {
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
      label="Spread among mains, as 1-3; empty for all"
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

/** The rules by which the halves of this engine are paired. */
export function RulesPanel({ job, document, change }: { job: string; document: JobDocument; change: ChangeDocument }) {
  const { rules, unit } = document;
  const { said } = useClearances(unit);
  const set = (part: Partial<JobDocument['rules']>) => change((old) => ({ ...old, rules: { ...old.rules, ...part } }));
  const yesNo = [
    { value: 'yes', label: 'Allowed' },
    { value: 'no', label: 'Not allowed' },
  ] as const;
  return (
    <Panel aria-label="Selection rules">
      <PanelTitle>Selection rules</PanelTitle>
      <Fold>
        <summary>{said(rulesInWords(document))}</summary>
        <Row style={{ alignItems: 'start', display: 'grid', gridTemplateColumns: '1fr 1fr', marginTop: '0.5rem' }}>
          <Choice
            label="Two walls in one main"
            value={rules.mixedHalves ? 'yes' : 'no'}
            options={yesNo}
            onChange={(value) => set({ mixedHalves: value === 'yes' })}
          />
          <Choice
            label="Two series in one main"
            value={rules.acrossSeries ? 'yes' : 'no'}
            options={yesNo}
            onChange={(value) => set({ acrossSeries: value === 'yes' })}
          />
          <Choice
            label="Thinner shell goes"
            value={rules.thinnerHalf}
            options={[
              { value: 'either', label: 'either side' },
              { value: 'upper', label: 'block side' },
              { value: 'lower', label: 'cap side' },
            ]}
            onChange={(thinnerHalf) => set({ thinnerHalf })}
          />
          {document.withRods && hasBanks(document.layout) && (
            <Choice
              label="Rods may change banks"
              value={rules.rodsAcrossBanks === true ? 'yes' : 'no'}
              options={yesNo}
              onChange={(value) => set({ rodsAcrossBanks: value === 'yes' })}
            />
          )}
          <LengthField
            kept={{ of: job, part: 'rules', field: 'maxWallStep' }}
            label={`Wall step at most, ${unit}`}
            unit={unit}
            value={rules.maxWallStep}
            optional={false}
            check={notNegative}
            onCommit={(maxWallStep) => maxWallStep !== null && set({ maxWallStep })}
          />
          <LengthField
            kept={{ of: job, part: 'rules', field: 'maxSpread' }}
            label={document.withRods ? `Mains: largest spread, ${unit}` : `Largest spread, ${unit}`}
            unit={unit}
            value={rules.maxSpread}
            check={notNegative}
            onCommit={(maxSpread) => set({ maxSpread })}
          />
          <SpreadMains job={job} document={document} change={change} />
          {document.withRods && (
            <LengthField
              kept={{ of: job, part: 'rules', field: 'maxRodSpread' }}
              label={`Rods: largest spread, ${unit}`}
              unit={unit}
              value={rules.maxRodSpread}
              check={notNegative}
              onCommit={(maxRodSpread) => set({ maxRodSpread })}
            />
          )}
          <NumberField
            kept={{ of: job, part: 'rules', field: 'tightWeight' }}
            label="A shortfall weighs, times"
            value={rules.tightWeight}
            most={1000}
            onCommit={(tightWeight) => set({ tightWeight })}
          />
          <NumberField
            kept={{ of: job, part: 'rules', field: 'mixedPenalty' }}
            label="A mixed main costs, µm²"
            value={rules.mixedPenalty}
            most={1_000_000}
            onCommit={(mixedPenalty) => set({ mixedPenalty })}
          />
          <NumberField
            kept={{ of: job, part: 'rules', field: 'closeFraction' }}
            label="Close to a limit, % of range"
            value={Math.round(rules.closeFraction * 1000) / 10}
            most={50}
            onCommit={(percent) => set({ closeFraction: percent / 100 })}
          />
          <NumberField
            kept={{ of: job, part: 'rules', field: 'limitShare' }}
            label="A remedy moves a limit at most, % of range"
            value={Math.round((rules.limitShare ?? USUAL_LIMIT_SHARE) * 1000) / 10}
            most={1000}
            onCommit={(percent) => set({ limitShare: percent / 100 })}
          />
        </Row>
        {document.withRods && hasBanks(document.layout) && (
          <Quiet>
            Rods stay on their bank unless you allow otherwise: with two rods on a pin their oil holes, offsets and
            chamfers have a side.
          </Quiet>
        )}
        <Quiet>
          Cap side is the default for an aluminium block with iron or steel caps, as the block opens more when hot. A
          shortfall weighs more than the same excess: too tight seizes a bearing, too loose costs noise and flow. The
          cost of a mixed pair is a square: 4 µm² is as bad as 2 µm off target. Spread is that of the deviations along
          the shaft; blank: no limit.
        </Quiet>
      </Fold>
    </Panel>
  );
}
