import {
  FAMILIES,
  FAMILY_TABLE,
  type Family,
  type JobShell,
  lengthText,
  type Nanometres,
  type Span,
  type Unit,
} from '@fettle/core';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { SlipAsk } from '../typing/ClashAsk.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Quiet, Row } from '../ui/Panel.js';
import type { FamilyText } from './familyText.js';
import type { Sides } from './halfOptions.js';
import { type FamilyEntry, type Graded, useFamilyForm } from './useFamilyForm.js';

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 0.25rem 0.75rem;
  margin: 0.75rem 0;
  padding: 0.75rem;
  background: var(--sunken);
  border-radius: var(--radius);
  > .half { grid-column: span 2; }
  > .three { grid-column: span 3; }
  > .whole { grid-column: 1 / -1; }
`;

/** The families that halves may be for, in a list. */
const FOR_FAMILIES = FAMILIES.map((value) => ({ value, label: `the ${FAMILY_TABLE[value].words}` }));

export interface FamilyFormProps {
  /** What the half-typed form is kept under. */
  readonly id: string;
  readonly unit: Unit;
  /** True if rod halves can be entered too. */
  readonly withRods: boolean;
  /** True if a count may be left empty for as many as wanted. */
  readonly isCounted: boolean;
  /** True if its first box takes the focus when it opens: somebody asked for it. */
  readonly isFocused?: boolean;
  /** What the first wall of a family can be: what lies outside is asked about before it is added. */
  readonly spanOf: (family: Family) => Span;
  /** The wall that brings mid-limits to the target, by the data sheet; null without limits, or where nothing is known of an engine. */
  readonly wallOf?: (family: Family) => Nanometres | null;
  readonly options: readonly { value: Sides; label: string }[];
  readonly onAdd: (shells: readonly JobShell[]) => void;
}

function slipAsk({ slips, text, set, confirm }: FamilyEntry, box: Graded) {
  const likely = slips[box];
  return (
    likely && (
      <SlipAsk
        said={text[box]}
        likely={likely}
        onLikely={(value) => set({ [box]: value })}
        onSure={() => confirm(box)}
      />
    )
  );
}

/** Quick entry of a graded family: first wall, step, count. */
export function FamilyForm(props: FamilyFormProps) {
  const { unit, withRods, isCounted, wallOf, options } = props;
  const entry = useFamilyForm(props);
  const { text, set, add, echoOf } = entry;
  const field = (
    key: keyof FamilyText,
    label: string,
    more: { figure?: boolean; hint?: string; placeholder?: string; className?: string; ask?: ReactNode } = {},
  ) => (
    <Field
      label={label}
      value={text[key]}
      onChange={(value) => set({ [key]: value })}
      fault={entry.faults[key] ?? null}
      hint={more.hint ?? ' '}
      onKeyDown={(event) => {
        if (event.key !== 'Enter') return;
        event.preventDefault();
        add();
      }}
      {...more}
    />
  );
  const middle = wallOf?.(text.family) ?? null;
  const lines = entry.shells.length;
  return (
    <Grid ref={entry.grid} role="group" aria-label="Add shells">
      {field('series', 'Series', { placeholder: 'make and material', className: 'half' })}
      {withRods && (
        <div className="half">
          <Choice
            label="Shells for"
            value={text.family}
            options={FOR_FAMILIES}
            onChange={(family) => set({ family })}
          />
        </div>
      )}
      <div className="half">
        <Choice label="Sides" value={text.sides} options={options} onChange={(sides) => set({ sides })} />
      </div>
      {field('first', `First wall, ${unit}`, {
        figure: true,
        hint: text.first === '' && middle !== null ? `limits: about ${lengthText(middle, unit)}` : echoOf(text.first),
        ask: slipAsk(entry, 'first'),
      })}
      {field('step', `Step, ${unit}`, {
        figure: true,
        hint: echoOf(text.step),
        ask: slipAsk(entry, 'step'),
      })}
      {field('count', 'Grades', { figure: true })}
      {field('stock', 'Shells of each', { figure: true, placeholder: isCounted ? '' : 'unlimited' })}
      {field('undersize', 'Undersize, if any', { placeholder: 'as 0.25' })}
      {FAMILY_TABLE[text.family].isInLine && field('width', `Width over flanges, if any, ${unit}`, { figure: true })}
      {FAMILY_TABLE[text.family].isInLine &&
        field('places', 'Only for position', {
          placeholder: 'such as rear',
          hint: 'blank: every main; flanged: thrust',
        })}
      {field('names', 'Names of the grades, first wall first (commas between; blank for numbers)', {
        className: 'three',
      })}
      <Row className="whole" style={{ justifyContent: 'space-between' }}>
        <Quiet>
          {lines > 0
            ? entry.walls.map(([grade, wall]) => `${grade} ${lengthText(wall, unit)}`).join(' · ')
            : 'The walls show here before you add them.'}
        </Quiet>
        <Button $kind="primary" onPress={add}>
          Add {lines > 0 ? `${lines} ${lines === 1 ? 'line' : 'lines'}` : 'them'}
        </Button>
      </Row>
    </Grid>
  );
}
