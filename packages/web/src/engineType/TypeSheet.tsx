import { FEATURE_TABLE, FEATURES, LIMIT_KEYS, limitName, THRUST_KINDS, THRUST_PLACE, THRUST_TABLE } from '@fettle/core';
import { Download } from 'lucide-react';
import styled from 'styled-components';
import { LimitsTable } from '../limits/LimitsTable.js';
import { EMPTY_LIMIT } from '../limits/limitText.js';
import { JOINT_OPTIONS, MATERIAL_OPTIONS, UNIT_OPTIONS } from '../limits/options.js';
import { saveAs } from '../saving/saveAs.js';
import { ShaftDrawing } from '../shaft/ShaftDrawing.js';
import { TorqueLines } from '../torque/TorqueLines.js';
import type { TorqueLineFaults } from '../torque/torqueLineText.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { TwoColumns } from '../ui/TwoColumns.js';
import { mainName, PlacedLimits, placedKey } from './PlacedLimits.js';
import { type OpenType, useOpenType } from './TypePage.js';
import { FIGURE_KEYS, type FigureKey, inUnit, limitFaultsAt, type TypeText } from './typeText.js';

const Sixths = styled.div`
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  gap: 0.25rem 0.75rem;
  margin-top: 0.5rem;
  > * { grid-column: span 2; }
  > .half { grid-column: span 3; }
  > .whole { grid-column: 1 / -1; }
`;

const RowLine = styled.div`
  display: grid;
  grid-template-columns: 1.2fr 1fr 1.6fr;
  gap: 0.25rem 0.75rem;
  align-items: end;
  margin-top: 0.35rem;
`;

const END_OPTIONS = [
  { value: 'front', label: 'the front' },
  { value: 'rear', label: 'the rear' },
] as const;

const THRUSTS = [
  { value: 'unknown' as const, label: 'Not given' },
  ...THRUST_KINDS.map((value) => ({ value, label: THRUST_TABLE[value].name })),
];

function LayoutPanel({ open }: { open: OpenType }) {
  const { text, change, faults, type } = open;
  const set = (part: Partial<TypeText>) => change((old) => ({ ...old, ...part }));
  const field = (key: 'name' | 'note' | 'mains' | 'rods' | 'thrustMain' | 'throws', label: string, className = '') => (
    <Field
      label={label}
      className={className}
      figure={key !== 'name' && key !== 'note'}
      value={text[key]}
      maxLength={key === 'note' ? 500 : 80}
      onChange={(value) => set({ [key]: value })}
      fault={key === 'name' && text.name === '' ? null : (faults[key] ?? null)}
    />
  );
  const material = (part: keyof TypeText['materials'], label: string) => (
    <Choice
      label={label}
      value={text.materials[part]}
      options={MATERIAL_OPTIONS}
      onChange={(value) => set({ materials: { ...text.materials, [part]: value } })}
    />
  );
  return (
    <Panel>
      <PanelTitle>Engine</PanelTitle>
      <Sixths>
        {field('name', 'Name of the type', 'whole')}
        {field('note', 'Note, such as years or variants', 'whole')}
        {field('mains', 'Mains')}
        {field('rods', 'Rods')}
        {field('thrustMain', 'Thrust at main')}
        <div className="half">
          <Choice
            label="Rods on each pin"
            value={text.rodsPerPin}
            options={[
              { value: '1', label: 'One (in line)' },
              { value: '2', label: 'Two side by side (V)' },
            ]}
            onChange={(rodsPerPin) => set({ rodsPerPin })}
          />
        </div>
        <div className="half">
          <Choice
            label="Thrust taken by"
            value={text.thrustKind}
            options={THRUSTS}
            onChange={(thrustKind) => set({ thrustKind })}
          />
        </div>
        {field('throws', 'Crank throws, degrees, front to rear (blank: usual)', 'whole')}
        <div className="half">
          <Choice
            label="Units (figures are converted)"
            value={text.unit}
            options={UNIT_OPTIONS}
            onChange={(unit) => change((old) => inUnit(old, unit))}
          />
        </div>
        <div className="half">
          <Choice
            label="The book views it from"
            value={text.viewFrom}
            options={END_OPTIONS}
            onChange={(viewFrom) => set({ viewFrom })}
          />
        </div>
        {material('block', 'Block of')}
        {material('caps', 'Caps of')}
        {material('rods', 'Rods of')}
      </Sixths>
      {type && <ShaftDrawing layout={type.layout} height={96} />}
    </Panel>
  );
}

const Sevenths = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(6.5rem, 1fr));
  gap: 0.25rem 0.5rem;
  margin-top: 0.75rem;
`;

/** Names of mains that take halves of their own. */
function PlaceNames({ open, mains, thrustMain }: { open: OpenType; mains: number; thrustMain: number | null }) {
  const { text, change, faults } = open;
  return (
    <>
      <Sevenths role="group" aria-label="Positions with their own shells">
        {Array.from({ length: mains }, (_, at) => String(at + 1)).map((number) => (
          <Field
            key={number}
            label={`Place of M${number}`}
            value={text.places[number] ?? ''}
            maxLength={20}
            placeholder={Number(number) === thrustMain ? THRUST_PLACE : ''}
            onChange={(typed) => change((old) => ({ ...old, places: { ...old.places, [number]: typed } }))}
            fault={faults[`places.${number}`] ?? null}
          />
        ))}
      </Sevenths>
      <Quiet>A main that takes its own shells has a name, such as rear; its shells and grades use that name.</Quiet>
    </>
  );
}

function LimitsPanel({ open }: { open: OpenType }) {
  const { text, change, faults, type } = open;
  const { mains, thrustMain } = type?.layout ?? { mains: Number(text.mains) || 1, thrustMain: null };
  return (
    <Panel>
      <PanelTitle>Limits from the data sheet</PanelTitle>
      <Quiet>
        From the engine maker's current data, each with book and page; local rules and licensed practice come first.
        What is left empty is missing in every verdict.
      </Quiet>
      <LimitsTable
        rows={[
          ...LIMIT_KEYS.map((key) => ({
            key: key as string,
            name: limitName(key),
            text: text.limits[key],
            faults: limitFaultsAt(faults, `limits.${key}`),
          })),
          ...text.mainLimits.map(({ number, key, text: typed }) => ({
            key: placedKey(number, key),
            name: `${limitName(key)}, main ${number}`,
            note: `only at ${mainName(number, mains, thrustMain)}`,
            text: typed,
            faults: limitFaultsAt(faults, `mainLimits.${placedKey(number, key)}`),
          })),
        ]}
        unit={text.unit}
        onChange={(row, limit) =>
          change((old) =>
            LIMIT_KEYS.some((key) => key === row)
              ? { ...old, limits: { ...old.limits, [row]: limit } }
              : {
                  ...old,
                  mainLimits: old.mainLimits.map((one) =>
                    placedKey(one.number, one.key) === row ? { ...one, text: limit } : one,
                  ),
                },
          )
        }
      />
      <PlacedLimits
        mains={mains}
        thrustMain={thrustMain}
        keys={text.mainLimits.map(({ number, key }) => placedKey(number, key))}
        onAdd={(number, key) =>
          change((old) => ({ ...old, mainLimits: [...old.mainLimits, { number, key, text: EMPTY_LIMIT }] }))
        }
      />
      <PlaceNames open={open} mains={mains} thrustMain={thrustMain} />
    </Panel>
  );
}

const FIGURES: Readonly<Record<FigureKey, string>> = {
  endPlayAim: 'Target end play',
  crushAim: 'Target crush',
  crushAimAluminium: 'Crush under aluminium caps',
  settle: 'A stack of rings settles',
};

/** End play and crush, beside their limits: what is aimed at, what settles, and where there are shims. */
function ThrustPanel({ open }: { open: OpenType }) {
  const { text, change, faults } = open;
  return (
    <Panel>
      <PanelTitle>End play and crush</PanelTitle>
      <Quiet>Blank targets are mid-limits. Settling is what was seen on engines of this type.</Quiet>
      <Sixths>
        {FIGURE_KEYS.map((key) => (
          <Field
            key={key}
            label={`${FIGURES[key]}, ${text.unit}`}
            figure
            value={text.figures[key]}
            onChange={(value) => change((old) => ({ ...old, figures: { ...old.figures, [key]: value } }))}
            fault={faults[`figures.${key}`] ?? null}
          />
        ))}
        {(['joints', 'rodJoints'] as const).map((key) => (
          <div key={key} className="half">
            <Choice
              label={key === 'joints' ? 'Joints of the mains' : 'Joints of the big ends'}
              value={text[key] ?? 'none'}
              options={JOINT_OPTIONS}
              onChange={(kind) => change((old) => ({ ...old, [key]: kind === 'none' ? null : kind }))}
            />
          </div>
        ))}
      </Sixths>
    </Panel>
  );
}

function TorquePanel({ open }: { open: OpenType }) {
  const { text, change, faults } = open;
  const own = (at: number): TorqueLineFaults =>
    Object.fromEntries(
      Object.entries(faults).flatMap(([place, message]) => {
        const [list, which, key] = place.split('.');
        return list === 'torque' && which === String(at) && key !== undefined ? [[key, message]] : [];
      }),
    );
  return (
    <Panel>
      <PanelTitle>Torque</PanelTitle>
      <Quiet>
        Where the fasteners sit and how they are tightened, as figures: passes are then ticked off at the engine. The
        maker's current figures decide.
      </Quiet>
      <TorqueLines
        lines={text.torque}
        faults={text.torque.map((_, at) => own(at))}
        unit={text.unit}
        onChange={(torque) => change((old) => ({ ...old, torque }))}
      />
    </Panel>
  );
}

function RowsPanel({ open }: { open: OpenType }) {
  const { text, change } = open;
  return (
    <Panel>
      <PanelTitle>Stamped rows</PanelTitle>
      <Quiet>How marks are stamped: what a row starts with, and which end its first mark belongs to.</Quiet>
      {FEATURES.map((feature) => {
        const row = text.rows[feature];
        const set = (part: Partial<typeof row>) =>
          change((old) => ({ ...old, rows: { ...old.rows, [feature]: { ...row, ...part, isUsed: true } } }));
        const word = FEATURE_TABLE[feature].name;
        return (
          <RowLine key={feature}>
            <Choice
              label={`${word}: marks`}
              value={row.isUsed ? 'row' : 'none'}
              options={[
                { value: 'none', label: 'No row' },
                { value: 'row', label: FEATURE_TABLE[feature].marked === 'each' ? 'On each rod' : 'In a row' },
              ]}
              onChange={(value) =>
                change((old) => ({ ...old, rows: { ...old.rows, [feature]: { ...row, isUsed: value === 'row' } } }))
              }
            />
            <Field
              label={`${word}: row starts with`}
              value={row.prefix}
              maxLength={6}
              onChange={(prefix) => set({ prefix })}
            />
            <Choice
              label={`${word}: first mark belongs to`}
              value={row.first}
              options={END_OPTIONS}
              onChange={(first) => set({ first })}
            />
          </RowLine>
        );
      })}
    </Panel>
  );
}

/** What the type is, what its maker's book says, and how its marks are stamped. */
export function TypeSheet() {
  const open = useOpenType();
  const { type, faults } = open;
  const isWhole = type !== null && Object.keys(faults).length === 0;
  return (
    <TwoColumns>
      <div>
        <LimitsPanel open={open} />
        <ThrustPanel open={open} />
        <TorquePanel open={open} />
      </div>
      <div>
        <LayoutPanel open={open} />
        <RowsPanel open={open} />
        <Panel>
          <PanelTitle>File</PanelTitle>
          <Quiet>
            An open format, described in docs/formats: take it to another workshop, or store it with the book.
          </Quiet>
          <Row>
            <Button
              isDisabled={!isWhole}
              onPress={() => type && saveAs(`${type.name}.json`, 'application/json', JSON.stringify(type, null, 2))}
            >
              <Download aria-hidden size={18} />
              Save as JSON
            </Button>
          </Row>
        </Panel>
      </div>
    </TwoColumns>
  );
}
