import {
  type DrawerPiece,
  FACES,
  PIECE_KINDS,
  PIECE_TABLE,
  type Piece,
  type PieceKind,
  parseLength,
  plainNumber,
  type Side,
  type Unit,
} from '@fettle/core';
import { useState } from 'react';
import styled from 'styled-components';
import { bothUnits } from '../typing/LengthField.js';
import { useDraft } from '../typing/useDraft.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Quiet, Row } from '../ui/Panel.js';

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  @media (max-width: 700px) { grid-template-columns: repeat(2, minmax(0, 1fr)); }
  gap: 0.25rem 0.75rem;
  margin: 0.75rem 0;
  padding: 0.75rem;
  background: var(--sunken);
  border-radius: var(--radius);
  > .whole { grid-column: 1 / -1; }
`;

interface PieceText {
  readonly kind: PieceKind;
  readonly name: string;
  readonly thickness: string;
  readonly count: string;
  readonly half: Side;
  readonly face: 'both' | (typeof FACES)[number];
  readonly coating: string;
  readonly oversize: string;
  readonly leaf: string;
  readonly number: string;
  readonly bin: string;
  readonly price: string;
}

const BLANK: PieceText = {
  kind: PIECE_KINDS[0],
  name: '',
  thickness: '',
  count: '',
  half: 'either',
  face: 'both',
  coating: '',
  oversize: '',
  leaf: '',
  number: '',
  bin: '',
  price: '',
};

const SIDES = [
  { value: 'either', label: 'fits either side' },
  { value: 'upper', label: 'upper' },
  { value: 'lower', label: 'lower' },
] as const;

type Faults = Partial<Record<keyof PieceText, string>>;

/** Prices are below this, in whatever money the workshop counts. */
const MOST_PRICE = 1_000_000;

/** What the workshop keeps of a piece beside what it is. */
export type Shelf = Pick<DrawerPiece, 'number' | 'bin' | 'price'>;

/** A piece and how many there are, from what was typed; or what is wrong, box by box. */
export function readPiece(
  text: PieceText,
  unit: Unit,
): { ok: true; piece: Piece; count: number | null; shelf: Shelf } | { ok: false; faults: Faults } {
  const faults: Faults = {};
  const thickness = parseLength(text.thickness, { unit, signed: 'sign' });
  if (!thickness.ok) faults.thickness = thickness.message;
  else if (thickness.nm <= 0) faults.thickness = 'Enter a thickness above 0.';
  const hasLeaf = PIECE_TABLE[text.kind].hasLeaves && text.leaf.trim() !== '';
  const leaf = hasLeaf ? parseLength(text.leaf, { unit, signed: 'sign' }) : null;
  if (leaf && !leaf.ok) faults.leaf = leaf.message;
  else if (leaf?.ok && thickness.ok && (leaf.nm <= 0 || leaf.nm >= thickness.nm)) {
    faults.leaf = 'A leaf is thinner than the whole shim.';
  }
  const counted = text.count.trim();
  if (counted !== '' && !/^\d{1,4}$/u.test(counted))
    faults.count = 'Enter a whole number, or leave blank for unlimited.';
  const price = text.price.trim() === '' ? null : plainNumber(text.price);
  if (price !== null && !(price < MOST_PRICE)) faults.price = 'Enter a number below 1,000,000, or leave blank.';
  if (text.number.trim() !== '' && counted !== '1') faults.count = 'A numbered item counts as one.';
  if (text.number.trim().length > 20) faults.number = 'Enter at most 20 characters.';
  if (text.bin.trim().length > 40) faults.bin = 'Enter at most 40 characters.';
  if (text.name.trim() === '') faults.name = 'Enter a name or a mark.';
  if (text.name.trim().length > 40) faults.name = 'Enter at most 40 characters.';
  if (!thickness.ok || Object.keys(faults).length > 0) return { ok: false, faults };
  return {
    ok: true,
    count: counted === '' ? null : Number(counted),
    shelf: {
      ...(text.number.trim() === '' ? {} : { number: text.number.trim() }),
      bin: text.bin.trim(),
      price,
    },
    piece: {
      kind: text.kind,
      name: text.name.trim(),
      thickness: thickness.nm,
      ...(PIECE_TABLE[text.kind].hasHalves ? { half: text.half } : {}),
      ...(PIECE_TABLE[text.kind].hasFace && text.face !== 'both' ? { face: text.face } : {}),
      ...(text.oversize.trim() === '' ? {} : { oversize: text.oversize.trim() }),
      ...(text.coating.trim() === '' ? {} : { coating: text.coating.trim() }),
      ...(leaf?.ok ? { leaf: leaf.nm } : {}),
    },
  };
}

interface PieceFormProps {
  /** What the half-typed form is kept under. */
  readonly id: string;
  readonly unit: Unit;
  /** True if a count may be left empty for as many as wanted. */
  readonly isCounted: boolean;
  readonly onAdd: (piece: Piece, count: number | null, shelf: Shelf) => void;
}

/** Quick entry of washers, flanged halves, rings and shims, one kind after the other. */
export function PieceForm({ id, unit, isCounted, onAdd }: PieceFormProps) {
  const [draft, setText, clear] = useDraft<PieceText>(`${id}.piece`);
  const text = { ...BLANK, ...draft };
  const [isTried, setTried] = useState(false);
  const read = readPiece(text, unit);
  const faults: Faults = read.ok
    ? isCounted && read.count === null
      ? { count: 'Enter a whole number.' }
      : {}
    : read.faults;
  const set = (part: Partial<PieceText>) => setText({ ...text, ...part });
  const field = (
    key: keyof PieceText,
    label: string,
    more: { figure?: boolean; hint?: string; placeholder?: string } = {},
  ) => (
    <Field
      label={label}
      value={text[key]}
      onChange={(value) => set({ [key]: value })}
      fault={isTried ? (faults[key] ?? null) : null}
      hint={more.hint ?? ' '}
      {...more}
    />
  );
  const parsed = parseLength(text.thickness, { unit, signed: 'sign' });
  const add = () => {
    setTried(true);
    if (!read.ok || Object.keys(faults).length > 0) return;
    onAdd(read.piece, read.count, read.shelf);
    clear();
    // The next one is likely of the same kind.
    setText({ ...BLANK, kind: text.kind, half: text.half, face: text.face, coating: text.coating });
    setTried(false);
  };
  return (
    <Grid role="group" aria-label="Add washers or shims">
      <Choice
        label="Kind"
        value={text.kind}
        options={PIECE_KINDS.map((value) => ({ value, label: PIECE_TABLE[value].word }))}
        onChange={(kind) => set({ kind })}
      />
      {field('name', 'Name or mark')}
      {field('thickness', `${PIECE_TABLE[text.kind].sizeName}, ${unit}`, {
        figure: true,
        hint: parsed.ok ? bothUnits(parsed.nm, unit) : ' ',
      })}
      {field('count', 'How many', { figure: true, placeholder: isCounted ? '' : 'unlimited' })}
      {PIECE_TABLE[text.kind].hasHalves && (
        <Choice label="Half" value={text.half} options={SIDES} onChange={(half) => set({ half })} />
      )}
      {PIECE_TABLE[text.kind].hasFace && (
        <Choice
          label="Made for"
          value={text.face}
          options={[
            { value: 'both', label: 'both faces' },
            ...FACES.map((value) => ({ value, label: `the ${value} face` })),
          ]}
          onChange={(face) => set({ face })}
        />
      )}
      {PIECE_TABLE[text.kind].hasHalves && field('oversize', 'Oversize, if any', { placeholder: 'as +0.10' })}
      {PIECE_TABLE[text.kind].hasHalves && field('coating', 'Coating, if any')}
      {isCounted && field('number', 'Number, if marked')}
      {isCounted && field('bin', 'Bin')}
      {isCounted && field('price', 'Price of one', { figure: true })}
      {PIECE_TABLE[text.kind].hasLeaves && field('leaf', `Leaf that peels off, if any, ${unit}`, { figure: true })}
      <Row className="whole" style={{ justifyContent: 'space-between' }}>
        <Quiet>Measure each one: the box label is not proof.</Quiet>
        <Button $kind="primary" onPress={add}>
          Add it
        </Button>
      </Row>
    </Grid>
  );
}
