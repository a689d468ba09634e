import {
  ANY_GRADE_STEP,
  FAMILIES,
  FAMILY_TABLE,
  type Family,
  formatExactLength,
  gradedWalls,
  INSTRUMENT_DECIMALS,
  type JobShell,
  jobShellSchema,
  lengthText,
  likelyFigures,
  type Nanometres,
  parseLength,
  readPlaces,
  type Span,
  THRUST_PLACE,
  type Unit,
} from '@fettle/core';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { SlipAsk } from '../typing/ClashAsk.js';
import { bothUnits } from '../typing/LengthField.js';
import { useDraft } from '../typing/useDraft.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Quiet, Row } from '../ui/Panel.js';
import type { Sides } from './halfOptions.js';
import { otherFamily } from './otherFamily.js';

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

interface FamilyText {
  readonly family: Family;
  readonly series: string;
  readonly sides: Sides;
  readonly first: string;
  readonly step: string;
  readonly count: string;
  readonly stock: string;
  readonly names: string;
  readonly undersize: string;
  readonly width: string;
  readonly places: string;
}

/** The families that halves may be for, in a list. */
const FOR_FAMILIES = FAMILIES.map((value) => ({ value, label: `the ${FAMILY_TABLE[value].words}` }));

const BLANK: FamilyText = {
  family: FAMILIES[0],
  series: '',
  sides: 'both',
  first: '',
  step: '',
  count: '',
  stock: '',
  names: '',
  undersize: '',
  width: '',
  places: '',
};

type FamilyFaults = Partial<Record<keyof FamilyText, string>>;

function readFamily(text: FamilyText, unit: Unit, isCounted: boolean) {
  const faults: FamilyFaults = {};
  const first = parseLength(text.first, { unit, signed: 'sign' });
  const count = /^\d+$/u.test(text.count.trim()) ? Number(text.count) : Number.NaN;
  const step =
    count === 1 && text.step.trim() === ''
      ? ({ ok: true, nm: 0 } as const)
      : parseLength(text.step, { unit, signed: 'sign' });
  const stock = text.stock.trim() === '' ? null : /^\d+$/u.test(text.stock.trim()) ? Number(text.stock) : Number.NaN;
  if (!first.ok) faults.first = first.message;
  if (!step.ok) faults.step = step.message;
  if (Number.isNaN(count)) faults.count = 'Enter a whole number of grades.';
  const width = text.width.trim() === '' ? null : parseLength(text.width, { unit, signed: 'sign' });
  if (width && !width.ok) faults.width = width.message;
  else if (width?.ok && width.nm <= 0) faults.width = 'Enter a width above 0.';
  if (text.undersize.trim().length > 20) faults.undersize = 'Enter at most 20 characters.';
  if (text.series.trim() === '') faults.series = 'Enter the series.';
  const readStock = jobShellSchema.shape.stock.safeParse(stock);
  if (!readStock.success)
    faults.stock = isCounted ? 'Enter a whole number.' : 'Enter a whole number, or leave blank for unlimited.';
  else if (isCounted && stock === null) faults.stock = 'Enter a whole number.';
  const names = text.names.split(/[,;]/u).map((name) => name.trim());
  if (names.at(-1) === '') names.pop();
  // A flanged half sits at the thrust main, unless it is said where.
  const named = readPlaces(text.places);
  if (!named.ok) faults.places = named.message;
  const positions = (named.ok ? named.positions : undefined) ?? (width?.ok ? [THRUST_PLACE] : undefined);
  if (!first.ok || !step.ok || Object.keys(faults).length > 0) return { shells: [], faults };
  const walls = gradedWalls({ firstWall: first.nm, step: step.nm as typeof first.nm, count, names });
  if (!walls.ok) return { shells: [], faults: { count: walls.message } };
  const halves = text.sides === 'both' ? (['upper', 'lower'] as const) : [text.sides];
  const shells: JobShell[] = halves.flatMap((half) =>
    walls.grades.map(({ grade, wall }) => ({
      family: text.family,
      series: text.series.trim(),
      grade,
      half,
      wall,
      ...(text.undersize.trim() === '' ? {} : { undersize: text.undersize.trim() }),
      ...(width?.ok ? { width: width.nm } : {}),
      ...(positions ? { positions } : {}),
      stock,
      line: null,
    })),
  );
  return { shells, faults };
}

interface FamilyFormProps {
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

/** Quick entry of a graded family: first wall, step, count. */
export function FamilyForm({
  id,
  unit,
  withRods,
  isCounted,
  isFocused = false,
  spanOf,
  wallOf,
  options,
  onAdd,
}: FamilyFormProps) {
  const [draft, setText, clear] = useDraft<FamilyText>(`${id}.family`);
  // What the next family begins with: nothing of it is typed yet.
  const [start, setStart] = useState(BLANK);
  const text = { ...start, ...draft };
  const [isTried, setTried] = useState(false);
  const grid = useRef<HTMLDivElement>(null);
  const { shells, faults } = readFamily(text, unit, isCounted);
  // What can hardly be right is added once it is said to be.
  const [sure, setSure] = useState<Partial<Record<'first' | 'step', string>>>({});
  const slipOf = (key: 'first' | 'step') => {
    const parsed = parseLength(text[key], { unit, signed: 'sign' });
    if (!parsed.ok || sure[key] === text[key]) return null;
    const likely = likelyFigures(parsed.nm, unit, key === 'first' ? spanOf(text.family) : ANY_GRADE_STEP);
    return (
      likely && (
        <SlipAsk
          said={text[key]}
          likely={likely.map(({ nm }) => formatExactLength(nm, unit, INSTRUMENT_DECIMALS[unit]))}
          onLikely={(value) => setText({ ...text, [key]: value })}
          onSure={() => setSure((old) => ({ ...old, [key]: text[key] }))}
        />
      )
    );
  };
  const slips = { first: slipOf('first'), step: slipOf('step') };
  const field = (
    key: keyof FamilyText,
    label: string,
    more: { figure?: boolean; hint?: string; placeholder?: string; className?: string; ask?: ReactNode } = {},
  ) => (
    <Field
      label={label}
      value={text[key]}
      onChange={(value) => setText({ ...text, [key]: value })}
      fault={isTried ? (faults[key] ?? null) : null}
      hint={more.hint ?? ' '}
      onKeyDown={(event) => {
        if (event.key !== 'Enter') return;
        event.preventDefault();
        add();
      }}
      {...more}
    />
  );
  const echo = (value: string) => {
    const parsed = parseLength(value, { unit, signed: 'sign' });
    return parsed.ok ? bothUnits(parsed.nm, unit) : ' ';
  };
  const add = () => {
    setTried(true);
    if (shells.length === 0 || slips.first !== null || slips.step !== null) return;
    onAdd(shells);
    clear();
    setTried(false);
    // The other family is most likely of the same series; its first wall is what is typed next.
    if (!withRods) return;
    setStart({ ...BLANK, series: text.series, family: otherFamily(text.family) });
    grid.current?.querySelectorAll<HTMLInputElement>('input:not([type="hidden"])')[1]?.focus();
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when it opens
  useEffect(() => {
    if (isFocused) grid.current?.querySelector<HTMLInputElement>('input')?.focus();
  }, []);
  const middle = wallOf?.(text.family) ?? null;
  const walls = [...new Map(shells.map((shell) => [shell.grade, shell.wall]))];
  return (
    <Grid ref={grid} role="group" aria-label="Add shells">
      {field('series', 'Series', { placeholder: 'make and material', className: 'half' })}
      {withRods && (
        <div className="half">
          <Choice
            label="Shells for"
            value={text.family}
            options={FOR_FAMILIES}
            onChange={(family) => setText({ ...text, family })}
          />
        </div>
      )}
      <div className="half">
        <Choice label="Sides" value={text.sides} options={options} onChange={(sides) => setText({ ...text, sides })} />
      </div>
      {field('first', `First wall, ${unit}`, {
        figure: true,
        hint: text.first === '' && middle !== null ? `limits: about ${lengthText(middle, unit)}` : echo(text.first),
        ask: slips.first,
      })}
      {field('step', `Step, ${unit}`, { figure: true, hint: echo(text.step), ask: slips.step })}
      {field('count', 'Grades', { figure: true })}
      {field('stock', 'Shells of each', { figure: true, placeholder: isCounted ? '' : 'unlimited' })}
      {field('undersize', 'Undersize, if any', { placeholder: 'as 0.25' })}
      {FAMILY_TABLE[text.family].isInLine && field('width', `Width over flanges, if any, ${unit}`, { figure: true })}
      {FAMILY_TABLE[text.family].isInLine &&
        field('places', 'Only for (place)', {
          placeholder: 'such as rear',
          hint: 'empty: every main; flanged: thrust',
        })}
      {field('names', 'Names of the grades, first wall first (commas between; blank for numbers)', {
        className: 'three',
      })}
      <Row className="whole" style={{ justifyContent: 'space-between' }}>
        <Quiet>
          {walls.length > 0
            ? walls.map(([grade, wall]) => `${grade} ${lengthText(wall, unit)}`).join(' · ')
            : 'The walls show here before you add them.'}
        </Quiet>
        <Button $kind="primary" onPress={add}>
          Add {shells.length > 0 ? `${shells.length} ${shells.length === 1 ? 'line' : 'lines'}` : 'them'}
        </Button>
      </Row>
    </Grid>
  );
}
