/**
 * Caps from the middle out: the middle one first, then to either side by turns, the end caps last. Common practice.
 *
 * @param mains how many caps, 1 at least
 * @returns their numbers, 1 at the front
 * @example capsFromMiddle(5) // [3, 2, 4, 1, 5]
 */
export function capsFromMiddle(mains: number): number[] {
  const middle = (mains + 1) / 2;
  return Array.from({ length: mains }, (_, at) => at + 1).sort(
    (one, other) => Math.abs(one - middle) - Math.abs(other - middle) || one - other,
  );
}

/** One bolt of the main caps in the order of a pass. */
export interface BoltPlace {
  /** Which it is in the pass, 1 first. */
  readonly sequence: number;
  readonly main: number;
  /** Side of the shaft, looking from the front. */
  readonly side: 'left' | 'right';
  /** Which of the bolts of its side, 1 the nearest to the front. */
  readonly row: number;
}

/**
 * The bolts of one place of the main caps in the order of a pass: caps from the middle out, criss-cross: from cap to cap the pass begins on
 * the other side, and within a cap it goes from side to side. Common practice.
 *
 * @param mains how many caps
 * @param perCap how many bolts of this place hold each cap, 1 to 4; an odd one more sits on the left
 * @example boltOrder(3, 2).map(({ main, side }) => `${main} ${side}`) // ['2 left', '2 right', '1 right', '1 left', '3 left', '3 right']
 */
export function boltOrder(mains: number, perCap: number): BoltPlace[] {
  const places = capsFromMiddle(mains).flatMap((main, at) => {
    const sides = at % 2 === 0 ? (['left', 'right'] as const) : (['right', 'left'] as const);
    const on = (side: 'left' | 'right') => (side === 'left' ? Math.ceil(perCap / 2) : Math.floor(perCap / 2));
    const rows = Array.from({ length: Math.ceil(perCap / 2) }, (_, row) => row + 1);
    // Diagonally: the second row goes from the other side back.
    return rows.flatMap((row) =>
      (row % 2 === 1 ? sides : [...sides].reverse()).flatMap((side) => (row <= on(side) ? [{ main, side, row }] : [])),
    );
  });
  return places.map((place, at) => ({ sequence: at + 1, ...place }));
}
