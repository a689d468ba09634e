import { type DrawerHalf, type DrawerPiece, drawerHalfSchema, drawerPieceSchema } from '@fettle/core';
import { size } from './demoWriting.js';

/** Kinds of half in the workshop's drawer, by grade: walls, and how many of each side. */
const WORKSHOP = [
  ['Teal', '1.992', 3, 'A 1'],
  ['Plum', '1.995', 4, 'A 2'],
  ['Rust', '1.998', 3, 'A 3'],
] as const;

function workshopId(grade: string, half: 'upper' | 'lower'): string {
  const at = WORKSHOP.findIndex(([name]) => name === grade);
  return `d4a3e400-0000-4000-8000-00000000000${2 * at + (half === 'upper' ? 1 : 2)}`;
}

/** What the workshop's drawer holds: enough for the twins on the benches together, but not if each takes its best alone. */
export function demoDrawer(): { id: string; half: DrawerHalf }[] {
  return WORKSHOP.flatMap(([grade, wall, onHand, bin]) =>
    (['upper', 'lower'] as const).map((half) => ({
      id: workshopId(grade, half),
      half: drawerHalfSchema.parse({
        family: 'main',
        series: 'Osier',
        grade,
        half,
        wall: size(wall, 'mm'),
        onHand,
        bin,
        price: 6.4,
        least: 3,
      }),
    })),
  );
}

/** Ring shims of the workshop: thickness, how many. */
const RINGS = [
  ['0.22', '0.221', 2],
  ['0.24', '0.240', 3],
  ['0.25', '0.252', 1],
  ['0.27', '0.269', 2],
  ['0.30', '0.301', 1],
] as const;

function ringId(at: number): string {
  return `d4a3e400-0000-4000-8000-0000000000b${at + 1}`;
}

/** What the workshop's drawer holds of rings, for engines whose end play they set. */
export function demoPieces(): { id: string; piece: DrawerPiece }[] {
  return RINGS.map(([name, thickness, onHand], at) => ({
    id: ringId(at),
    piece: drawerPieceSchema.parse({
      kind: 'ring',
      name,
      thickness: size(thickness, 'mm'),
      onHand,
      bin: 'B 1',
      price: 1.8,
      least: 1,
    }),
  }));
}
