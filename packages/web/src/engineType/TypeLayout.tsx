import { THRUST_KINDS, THRUST_PLACE, THRUST_TABLE } from '@fettle/core';
import styled from 'styled-components';
import { MATERIAL_OPTIONS, UNIT_OPTIONS } from '../limits/options.js';
import { ShaftDrawing } from '../shaft/ShaftDrawing.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { inUnit, type TypeText } from './typeText.js';
import type { OpenType } from './useOpenType.js';

export const Sixths = styled.div`
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  gap: 0.25rem 0.75rem;
  margin-top: 0.5rem;
  > * { grid-column: span 2; }
  > .half { grid-column: span 3; }
  > .whole { grid-column: 1 / -1; }
`;

export const END_OPTIONS = [
  { value: 'front', label: 'the front' },
  { value: 'rear', label: 'the rear' },
] as const;

const THRUSTS = [
  { value: 'unknown' as const, label: 'Not given' },
  ...THRUST_KINDS.map((value) => ({ value, label: THRUST_TABLE[value].name })),
];

export function LayoutPanel({ open }: { open: OpenType }) {
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
export function PlaceNames({ open, mains, thrustMain }: { open: OpenType; mains: number; thrustMain: number | null }) {
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
