import { type DrawerPiece, pieceLabel } from '@fettle/core';

/** What a piece on the shelf is called, by its own number where it has one. */
export function pieceName(piece: DrawerPiece): string {
  return `${pieceLabel(piece)}${piece.number === undefined ? '' : ` no. ${piece.number}`}`;
}
