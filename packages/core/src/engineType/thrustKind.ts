import type { EngineType } from './engineType.js';

/** What limits the movement of the shaft: loose washers beside a main, flanges on its shells, or a stack of rings at the shaft's end. */
export const THRUST_KINDS = ['washers', 'flanged', 'rings'] as const;
export type ThrustKind = (typeof THRUST_KINDS)[number];

/** What limits the movement of the shaft: as it was told for this engine, or as its data sheet says; null where neither does. */
export function thrustKindOf({
  endPlay,
  sheet,
}: {
  readonly endPlay: { readonly kind: ThrustKind | null };
  readonly sheet: Pick<EngineType, 'thrustKind'> | null;
}): ThrustKind | null {
  const given = sheet?.thrustKind ?? 'unknown';
  return endPlay.kind ?? (given === 'unknown' ? null : given);
}
