import { type DrawerLine, freeHalves } from '@fettle/core';
import { useState } from 'react';
import { useQuery } from '../base/useQuery.js';
import { isShort } from './LinesTable.js';
import { type Drawer, useDrawer } from './useDrawer.js';

/** Everything about a half that a search may look for. */
function wordsOf({ half, reservations }: DrawerLine): string {
  const { family, series, grade, undersize, number, bin, supplier, findings } = half;
  const names = reservations.map(({ name }) => name);
  return [family, half.half, series, grade, undersize, number, bin, supplier, findings, ...names]
    .join(' ')
    .toLowerCase();
}

function inOrder(lines: readonly DrawerLine[]): DrawerLine[] {
  return [...lines].sort(
    (a, b) =>
      a.half.series.localeCompare(b.half.series, 'en') ||
      a.half.family.localeCompare(b.half.family, 'en') ||
      (a.half.undersize ?? '').localeCompare(b.half.undersize ?? '', 'en') ||
      b.half.half.localeCompare(a.half.half, 'en') ||
      a.half.wall - b.half.wall ||
      (a.half.number ?? '').localeCompare(b.half.number ?? '', 'en'),
  );
}

export type Beside =
  | { readonly kind: 'half' | 'piece'; readonly id: string }
  | { readonly kind: 'history' | 'kits' | 'import' }
  | null;

/** What is opened as it stands in the address: `half:ID`, `kits`. */
function textOf(beside: NonNullable<Beside>): string {
  return 'id' in beside ? `${beside.kind}:${beside.id}` : beside.kind;
}

function besideOf(text: string | null): Beside {
  const [kind, id = ''] = text?.split(':') ?? [];
  if (kind === 'half' || kind === 'piece') return { kind, id };
  return kind === 'history' || kind === 'kits' || kind === 'import' ? { kind } : null;
}

export interface Workshop {
  readonly drawer: Drawer;
  /** All kinds of half in the order of a drawer. */
  readonly sorted: readonly DrawerLine[];
  /** Those of which too few are free. */
  readonly short: readonly DrawerLine[];
  /** Those that are looked for. */
  readonly shown: readonly DrawerLine[];
  readonly words: string;
  readonly setWords: (words: string) => void;
  readonly isOnlyShort: boolean;
  readonly setOnlyShort: (isOnlyShort: boolean) => void;
  readonly beside: Beside;
  readonly setBeside: (beside: Beside) => void;
  /** Opens one of the panels, or closes it. */
  readonly toggle: (kind: 'history' | 'kits' | 'import') => void;
  readonly opened: DrawerLine | undefined;
  /** What is to be ordered, as a table. */
  readonly orderTable: () => string[][];
}

/** The workshop's drawer as it is looked at: searched, sorted, with one half or one panel opened beside it. */
export function useWorkshop(): Workshop {
  const drawer = useDrawer();
  const [words, setWords] = useState('');
  const [isOnlyShort, setOnlyShort] = useState(false);
  const [text, setText] = useQuery('open');
  const beside = besideOf(text);
  const setBeside = (next: Beside) => setText(next && textOf(next));
  const sorted = inOrder(drawer.lines ?? []);
  const short = sorted.filter(isShort);
  const wanted = words.toLowerCase().split(/\s+/u).filter(Boolean);
  const orderTable = () => [
    ['Count', 'Grade', 'Half', 'Family', 'Series', 'Undersize', 'Supplier', 'Price'],
    ...short.map((line) => [
      String(line.half.least - freeHalves(line, null)),
      line.half.grade,
      line.half.half,
      line.half.family,
      line.half.series,
      line.half.undersize ?? '',
      line.half.supplier,
      line.half.price === null ? '' : String(line.half.price),
    ]),
  ];
  return {
    drawer,
    sorted,
    short,
    shown: (isOnlyShort ? short : sorted).filter((line) => wanted.every((word) => wordsOf(line).includes(word))),
    words,
    setWords,
    isOnlyShort,
    setOnlyShort,
    beside,
    setBeside,
    toggle: (kind) => setBeside(beside?.kind === kind ? null : { kind }),
    opened: beside?.kind === 'half' ? sorted.find(({ id }) => id === beside.id) : undefined,
    orderTable,
  };
}
