import type { PieceKind } from '../shell/piece.js';

interface ThrustKindRow {
  /** What it is called in a list, and in a sentence of the sheet. */
  readonly name: string;
  readonly words: string;
  /** The kind of piece that is put there. */
  readonly piece: PieceKind;
}

/** What limits the movement of the shaft: loose washers beside a main, flanges on its shells, or a stack of rings at the shaft's end. */
const TABLE = {
  washers: { name: 'Loose thrust washers', words: 'loose washers', piece: 'washer' },
  flanged: { name: 'Flanged shell', words: 'flanged shell', piece: 'flanged' },
  rings: { name: 'Ring shims at the shaft’s end', words: 'ring shims', piece: 'ring' },
} as const satisfies Readonly<Record<string, ThrustKindRow>>;
export type ThrustKind = keyof typeof TABLE;

export const THRUST_KINDS = Object.keys(TABLE) as [ThrustKind, ...ThrustKind[]];

/** Everything that follows from what limits the movement of the shaft. */
export const THRUST_TABLE: Readonly<Record<ThrustKind, ThrustKindRow>> = TABLE;

/** What limits the movement of the shaft: as it was told for this engine, or as its data sheet says; null where neither does. */
export function thrustKindOf({
  endPlay,
  sheet,
}: {
  readonly endPlay: { readonly kind: ThrustKind | null };
  readonly sheet: { readonly thrustKind: ThrustKind | 'unknown' } | null;
}): ThrustKind | null {
  const given = sheet?.thrustKind ?? 'unknown';
  return endPlay.kind ?? (given === 'unknown' ? null : given);
}
