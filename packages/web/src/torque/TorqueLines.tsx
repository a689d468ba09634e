import {
  FASTENER_PLACES,
  type FastenerPlace,
  PLACE_TABLE,
  TIGHTENING_WORDS,
  type Tightening,
  TORQUE_UNITS,
  torqueUnitWord,
  type Unit,
} from '@fettle/core';
import { Plus, Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { BLANK_TORQUE_LINE, readTorqueLine, type TorqueLineFaults, type TorqueLineText } from './torqueLineText.js';

const Line = styled.fieldset`
  border: 0;
  min-width: 0;
  padding: 0.5rem 0 0.75rem;
  border-bottom: var(--rule) solid var(--line);
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(7.5rem, 1fr));
  gap: 0.25rem 0.6rem;
  align-items: start;
  > .two { grid-column: span 2; }
  > .end { align-self: center; justify-self: end; }
  @media (max-width: 640px) { grid-template-columns: repeat(2, minmax(0, 1fr)); }
`;

const SCHOOLS: readonly { value: Tightening['school'] | ''; label: string }[] = [
  { value: '', label: 'words only' },
  ...(Object.keys(TIGHTENING_WORDS) as Tightening['school'][]).map((value) => ({
    value,
    label: TIGHTENING_WORDS[value].name,
  })),
];

interface TorqueLinesProps {
  readonly lines: readonly TorqueLineText[];
  /** What is wrong with each, shown where it is given. */
  readonly faults: readonly TorqueLineFaults[];
  /** Unit of a stretch. */
  readonly unit: Unit;
  /** The places that can be chosen; all of them where it is left out. */
  readonly places?: readonly FastenerPlace[];
  readonly onChange: (lines: readonly TorqueLineText[]) => void;
}

interface TorqueLineProps {
  readonly number: number;
  readonly line: TorqueLineText;
  readonly faults: TorqueLineFaults;
  readonly unit: Unit;
  readonly places: readonly FastenerPlace[];
  readonly onChange: (part: Partial<TorqueLineText>) => void;
  readonly onRemove: () => void;
}

/** One fastener: its place, how it is tightened, and by which source. */
function TorqueLine({ number, line, faults, unit, places, onChange, onRemove }: TorqueLineProps) {
  const name = `Fastener ${number}`;
  const { torque } = readTorqueLine(line, unit);
  const field = (
    key: Exclude<keyof TorqueLineText, 'place' | 'school' | 'unit'>,
    label: string,
    { most = 20, className = '', placeholder = '' }: { most?: number; className?: string; placeholder?: string } = {},
  ) => (
    <Field
      label={
        <>
          <span className="visually-hidden">{name}: </span>
          {label}
        </>
      }
      className={className}
      figure={most === 20}
      value={line[key]}
      maxLength={most}
      placeholder={placeholder}
      onChange={(value) => onChange({ [key]: value })}
      fault={faults[key] ?? null}
    />
  );
  return (
    <Line aria-label={line.fastener === '' ? name : `${name}: ${line.fastener}`}>
      {field('fastener', 'Fastener', { most: 60, className: 'two' })}
      <div className="two">
        <Choice
          label={`${name} sits at`}
          value={line.place}
          options={places.map((value) => ({ value, label: PLACE_TABLE[value].name }))}
          onChange={(place) => onChange({ place })}
        />
      </div>
      {line.place !== 'other' && field('perCap', 'Bolts per cap')}
      <div className="two">
        <Choice
          label={`${name} is tightened by`}
          value={line.school}
          options={SCHOOLS}
          onChange={(school) => onChange({ school })}
        />
      </div>
      {line.school !== '' && (
        <Choice
          label={`${name} in`}
          value={line.unit}
          options={TORQUE_UNITS.map((value) => ({ value, label: torqueUnitWord(value) }))}
          onChange={(value) => onChange({ unit: value })}
        />
      )}
      {(line.school === 'snug' || line.school === 'stretch') &&
        field('snug', line.school === 'snug' ? 'Snug first' : 'Snug first, if any')}
      {line.school !== '' && line.school !== 'stretch' && (
        <>
          {field('final', line.school === 'angle' ? 'Torque first' : 'Final torque')}
          {field('stages', 'Stages (3, or 30, 55)')}
        </>
      )}
      {line.school === 'angle' && field('angles', 'Angles, degrees')}
      {line.school === 'stretch' && (
        <>
          {field('low', `Stretch from, ${unit}`)}
          {field('high', `Stretch to, ${unit}`)}
        </>
      )}
      {field('steps', 'Steps in words', {
        most: 120,
        className: 'two',
        placeholder: torque?.steps ?? 'as 30 · 55 N·m, then 60°',
      })}
      {field('lubricant', 'Lubricated with', { most: 60, className: 'two' })}
      {field('source', 'Source: book, page', { most: 200, className: 'two' })}
      <Button $kind="quiet" className="end" aria-label={`Remove fastener ${number}`} onPress={onRemove}>
        <Trash2 aria-hidden size={18} />
      </Button>
    </Line>
  );
}

/** Fasteners with their steps as figures: place and count, method, unit, lubricant and source; the steps are echoed as they will be done. */
export function TorqueLines({ lines, faults, unit, places = FASTENER_PLACES, onChange }: TorqueLinesProps) {
  return (
    <>
      {lines.map((line, at) => (
        <TorqueLine
          // biome-ignore lint/suspicious/noArrayIndexKey: a line is its place in the list
          key={at}
          number={at + 1}
          line={line}
          faults={faults[at] ?? {}}
          unit={unit}
          places={places}
          onChange={(part) => onChange(lines.map((other, place) => (place === at ? { ...other, ...part } : other)))}
          onRemove={() => onChange(lines.filter((_, place) => place !== at))}
        />
      ))}
      <Button
        style={{ marginTop: '0.5rem' }}
        onPress={() => onChange([...lines, { ...BLANK_TORQUE_LINE, place: places[0] ?? 'other' }])}
      >
        <Plus aria-hidden size={18} />
        Add a fastener
      </Button>
    </>
  );
}
