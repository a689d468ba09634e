import { cutText } from '../document/storableText.js';
import type { DrawerPiece } from '../drawer/drawerPiece.js';
import type { JobPiece } from '../shell/jobPiece.js';
import { pieceOf } from '../shell/piece.js';

/** A kind of washer or shim of the workshop's drawer as a job draws on it. A numbered one is told apart by its number. */
export function pieceOfLine(line: string, piece: DrawerPiece): JobPiece {
  const { name, number } = piece;
  return {
    ...pieceOf(piece),
    name: cutText(number === undefined ? name : `${name} no. ${number}`, 40),
    stock: null,
    line,
  };
}
