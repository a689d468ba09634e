import {
  type EndPlayReading,
  type JobDocument,
  type Moment,
  type PieceKind,
  type Side,
  type Unit,
  usualLayout,
} from '@fettle/core';
import { STARTED, size } from './demoWriting.js';

/** Dial readings of one moment, as they were typed. */
export function dial(unit: Unit, by: string, moment: Moment, texts: readonly string[]): Record<string, EndPlayReading> {
  return Object.fromEntries(
    texts.map((text, at) => [
      `${moment} ${at + 1}`,
      {
        moment,
        angle: at % 2 === 0 ? (0 as const) : (180 as const),
        text,
        unit,
        nm: size(text, unit),
        by,
        at: STARTED,
      },
    ]),
  );
}

/** Pieces of one kind by name: thickness and how many. */
export function pieces(
  kind: PieceKind,
  unit: Unit,
  list: readonly (readonly [name: string, thickness: string, stock: number | null])[],
  more: { half?: Side; leaf?: string } = {},
): JobDocument['pieces'] {
  return Object.fromEntries(
    list.map(([name, thickness, stock]) => [
      `${kind} ${name} ${more.half ?? ''}`.trim(),
      {
        kind,
        name,
        thickness: size(thickness, unit),
        ...(more.half === undefined ? {} : { half: more.half }),
        ...(more.leaf === undefined ? {} : { leaf: size(more.leaf, unit) }),
        stock,
        line: null,
      },
    ]),
  );
}

export function layout(mains: number, rods: number, rodsPerPin: 1 | 2, thrustMain: number) {
  const usual = usualLayout(mains, rods, rodsPerPin, thrustMain);
  if (!usual.ok) throw new Error(`demo: ${usual.message}`);
  return usual.layout;
}
