import {
  aimRuleSchema,
  type JobDocument,
  type LimitKey,
  limitName,
  limitsNeeded,
  partName,
  rodCount,
  throwsText,
  withThrows,
} from '@fettle/core';
import { useState } from 'react';
import styled from 'styled-components';
import { MATERIAL_OPTIONS, UNIT_OPTIONS } from '../bench/options.js';
import { useOpenJob } from '../job/JobPage.js';
import { type ChangeDocument, useChangeDocument } from '../job/useJob.js';
import { Choice } from '../look/Choice.js';
import { Field } from '../look/Field.js';
import { Panel, PanelTitle, Quiet } from '../look/Panel.js';
import { TwoColumns } from '../look/TwoColumns.js';
import { useKeptText } from '../look/useKeptText.js';
import { LengthField } from '../measure/LengthField.js';
import { ShaftDrawing } from '../shaft/ShaftDrawing.js';
import { LimitFields } from './LimitFields.js';
import { type LimitText, readLimit, textOfLimit } from './limitText.js';
import { OriginPanel } from './OriginPanel.js';
import { useDraft } from './useDraft.js';

const Pairs = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0.25rem 0.75rem;
  margin-top: 0.5rem;
  > .whole { grid-column: 1 / -1; }
`;

const Extras = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(9rem, 1fr));
  gap: 0.25rem 0.75rem;
`;

const JOINTS = [
  { value: 'none', label: 'None' },
  { value: 'split-line', label: 'Between the shells’ joint faces' },
  { value: 'saddle', label: 'White metal, under the caps' },
] as const;

/** Limits that a verdict uses where they are given, and does without where they are not. */
const SHAPE_LIMITS: readonly LimitKey[] = ['outOfRound', 'taper', 'endPlay'];

function LimitEditor({
  id,
  name,
  document,
  change,
}: {
  id: string;
  name: LimitKey;
  document: JobDocument;
  change: ChangeDocument;
}) {
  const { unit } = document;
  const stored = textOfLimit(document.limits[name], unit);
  const [draft, setDraft, clearDraft] = useDraft<LimitText>(`${id}.${name}`);
  const [isLeft, setLeft] = useState(false);
  const text = draft ?? stored;
  const read = readLimit(text, unit);
  const leave = () => {
    setLeft(true);
    if (draft === null || Object.keys(read.faults).length > 0) return;
    change((old) => ({ ...old, limits: { ...old.limits, [name]: read.limit } }));
    clearDraft();
  };
  return (
    <LimitFields
      name={limitName(name)}
      unit={unit}
      text={text}
      faults={isLeft && draft !== null ? read.faults : {}}
      onChange={setDraft}
      onLeave={leave}
    />
  );
}

function EngineFields({ id, document, change }: { id: string; document: JobDocument; change: ChangeDocument }) {
  const name = useKeptText({ of: id, part: 'engine', field: 'name' }, document.name);
  const throws = useKeptText({ of: id, part: 'layout', field: 'throws' }, throwsText(document.layout));
  const readThrows = withThrows(document.layout, throws.text);
  const commitName = () => {
    const trimmed = name.text.trim();
    if (trimmed === '') return;
    name.settled(trimmed);
    change((old) => ({ ...old, name: trimmed }));
  };
  const commitThrows = () => {
    if (!readThrows.ok) return;
    throws.settled(throwsText(readThrows.layout));
    change((old) => ({ ...old, layout: readThrows.layout }));
  };
  const { materials, layout } = document;
  const setMaterial = (part: keyof JobDocument['materials']) => (value: JobDocument['materials']['block']) =>
    change((old) => ({ ...old, materials: { ...old.materials, [part]: value } }));
  const mains = [
    { value: '', label: 'Not given' },
    ...Array.from({ length: layout.mains }, (_, at) => ({ value: String(at + 1), label: `Main ${at + 1}` })),
  ];
  return (
    <Panel>
      <PanelTitle>Engine</PanelTitle>
      <Pairs>
        <Field
          label="Name, with its number"
          value={name.text}
          maxLength={80}
          onChange={name.setText}
          onBlur={commitName}
          fault={name.text.trim() === '' ? 'Give the engine a name.' : null}
        />
        <Choice
          label="Measured in"
          value={document.unit}
          options={UNIT_OPTIONS}
          onChange={(unit) => change((old) => ({ ...old, unit }))}
        />
        <Choice label="Block of" value={materials.block} options={MATERIAL_OPTIONS} onChange={setMaterial('block')} />
        <Choice label="Caps of" value={materials.caps} options={MATERIAL_OPTIONS} onChange={setMaterial('caps')} />
        <Choice label="Rods of" value={materials.rods} options={MATERIAL_OPTIONS} onChange={setMaterial('rods')} />
        <Choice
          label="Thrust at"
          value={layout.thrustMain === null ? '' : String(layout.thrustMain)}
          options={mains}
          onChange={(value) =>
            change((old) => ({ ...old, layout: { ...old.layout, thrustMain: value === '' ? null : Number(value) } }))
          }
        />
        <Choice
          label="This job fits"
          value={document.withRods ? 'yes' : 'no'}
          options={[
            { value: 'no', label: 'The mains' },
            { value: 'yes', label: 'The mains and the rods' },
          ]}
          onChange={(value) => change((old) => ({ ...old, withRods: value === 'yes' }))}
        />
        <Choice
          label="Shims at the joints"
          value={document.crush.kind ?? 'none'}
          options={JOINTS}
          onChange={(kind) =>
            change((old) => ({ ...old, crush: { ...old.crush, kind: kind === 'none' ? null : kind } }))
          }
        />
        <Field
          className="whole"
          label="Throws of the pins, degrees, front to rear"
          figure
          value={throws.text}
          onChange={throws.setText}
          onBlur={commitThrows}
          fault={readThrows.ok ? null : readThrows.message}
        />
      </Pairs>
      <ShaftDrawing layout={readThrows.ok ? readThrows.layout : layout} height={96} />
    </Panel>
  );
}

const AIMS = [
  { value: 'middle', label: 'Middle of the limits' },
  { value: 'per-inch', label: '0.001 in per inch of journal' },
  { value: 'figure', label: 'A figure' },
] as const;

type AimKey = 'aim' | 'rodAim';

function AimFields({ id: job, document, change }: { id: string; document: JobDocument; change: ChangeDocument }) {
  const { rules, unit, layout } = document;
  const setRules = (part: Partial<JobDocument['rules']>) =>
    change((old) => ({ ...old, rules: { ...old.rules, ...part } }));
  const keys: readonly { key: AimKey; label: string; figure: string }[] = document.withRods
    ? [
        { key: 'aim', label: 'Mains: clearance aimed at', figure: 'Mains' },
        { key: 'rodAim', label: 'Rods: clearance aimed at', figure: 'Rods' },
      ]
    : [{ key: 'aim', label: 'Clearance aimed at', figure: 'Figure' }];
  const stations = [
    ...Array.from({ length: layout.mains }, (_, at) => partName('mainJournal', at + 1)),
    ...Array.from({ length: document.withRods ? rodCount(layout) : 0 }, (_, at) => partName('pin', at + 1)),
  ];
  return (
    <Panel>
      <PanelTitle>Aim</PanelTitle>
      <Pairs>
        {keys.map(({ key, label, figure }) => {
          const aim = rules[key];
          return [
            <Choice
              key={key}
              label={label}
              value={aim.kind}
              options={AIMS}
              onChange={(kind) =>
                setRules({ [key]: aimRuleSchema.parse(kind === 'figure' ? { kind, clearance: 0 } : { kind }) })
              }
            />,
            aim.kind === 'figure' ? (
              <LengthField
                key={`${key} figure`}
                kept={{ of: job, part: key, field: 'figure' }}
                label={`${figure}, ${unit}`}
                unit={unit}
                value={aim.clearance}
                optional={false}
                onCommit={(clearance) => clearance !== null && setRules({ [key]: { kind: 'figure', clearance } })}
              />
            ) : (
              <span key={`${key} none`} />
            ),
          ];
        })}
      </Pairs>
      <Quiet>Added to the aim at single stations, for instance a little more at the rear main:</Quiet>
      <Extras>
        {stations.map((id) => (
          <LengthField
            key={id}
            kept={{ of: job, part: id, field: 'extra' }}
            label={`${id} extra, ${unit}`}
            unit={unit}
            value={rules.extras[id] ?? null}
            onCommit={(extra) => {
              const { [id]: _, ...others } = rules.extras;
              setRules({ extras: extra === null ? others : { ...others, [id]: extra } });
            }}
          />
        ))}
      </Extras>
    </Panel>
  );
}

function RodField({
  id,
  number,
  document,
  change,
}: {
  id: string;
  number: number;
  document: JobDocument;
  change: ChangeDocument;
}) {
  const rod = document.rods[String(number)] ?? { mark: '', pin: null };
  const mark = useKeptText({ of: id, part: partName('bigEnd', number), field: 'mark' }, rod.mark);
  return (
    <Field
      label={`R${number} mark`}
      value={mark.text}
      maxLength={20}
      onChange={mark.setText}
      onBlur={() => {
        const text = mark.text.trim();
        mark.settled(text);
        if (text === rod.mark) return;
        change((old) => ({ ...old, rods: { ...old.rods, [String(number)]: { ...rod, mark: text } } }));
      }}
    />
  );
}

/** The rods by number, each with the mark that is stamped or scratched on it. */
function RodFields({ id, document, change }: { id: string; document: JobDocument; change: ChangeDocument }) {
  return (
    <Panel>
      <PanelTitle>Rods</PanelTitle>
      <Quiet>
        Numbered as they came out. Write down marks before cleaning: scratched ones vanish. A rod keeps its cap, and may
        go on any pin until it is kept on one in the choosing view.
      </Quiet>
      <Extras>
        {Array.from({ length: rodCount(document.layout) }, (_, at) => at + 1).map((number) => (
          <RodField key={number} id={id} number={number} document={document} change={change} />
        ))}
      </Extras>
    </Panel>
  );
}

/** What the engine is, what its maker's book says, and what is aimed at. */
export function DataSheet() {
  const job = useOpenJob();
  const change = useChangeDocument(job);
  const { document } = job;
  return (
    <TwoColumns>
      <div>
        <Panel>
          <PanelTitle>Limits from the data sheet</PanelTitle>
          <Quiet>
            From the engine maker's current data; local rules and licensed practice come first. A limit that is missing
            is missing in the verdict.
          </Quiet>
          {[
            ...limitsNeeded(document),
            ...SHAPE_LIMITS,
            ...(document.crush.kind === 'split-line' ? (['crush'] as const) : []),
          ].map((name) => (
            <LimitEditor key={name} id={job.id} name={name} document={document} change={change} />
          ))}
        </Panel>
        <AimFields id={job.id} document={document} change={change} />
      </div>
      <div>
        <OriginPanel job={job} />
        <EngineFields id={job.id} document={document} change={change} />
        {document.withRods && <RodFields id={job.id} document={document} change={change} />}
      </div>
    </TwoColumns>
  );
}
