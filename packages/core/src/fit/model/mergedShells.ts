import { dealOut } from '../../shell/dealOut.js';
import type { FitModel, ModelShell } from './fitModel.js';

/** Shells that differ only in their id, as one kind each. */
export interface MergedShells {
  /** The model with one shell a kind: the first of its shells, with the stock of all. */
  readonly model: FitModel;
  /** Per kind its shells, by position in the model as it was. */
  readonly members: readonly (readonly number[])[];
}

function kindOf(shell: ModelShell): string {
  const { family, series, half, wall, width, undersize, positions, price } = shell;
  // What has a fixed form comes first; of the texts the first says how long it is, so that no two kinds read alike.
  const places = positions === null ? '*' : JSON.stringify(positions);
  return `${wall} ${width} ${half} ${family} ${price} ${undersize.length} ${undersize}${places} ${series}`;
}

/**
 * Counts alike shells as one: what the search cannot tell apart it need not try twice. Shells that are held or forbidden somewhere
 * stay on their own.
 */
export function mergedShells(model: FitModel): MergedShells {
  const named = new Set<number>();
  for (const { upper, lower, noShells } of model.wishes.values()) {
    for (const shell of [upper, lower, ...noShells]) if (shell !== null) named.add(shell);
  }
  const kinds = new Map<string, number[]>();
  model.shells.forEach((shell, at) => {
    const key = named.has(at) ? `#${at}` : kindOf(shell);
    const known = kinds.get(key);
    if (known) known.push(at);
    else kinds.set(key, [at]);
  });
  const members = [...kinds.values()];
  if (members.length === model.shells.length) return { model, members };
  const kindAt = new Map(members.flatMap((list, kind) => list.map((at) => [at, kind] as const)));
  const moved = (shell: number | null) => (shell === null ? null : kindAt.get(shell)!);
  return {
    members,
    model: {
      ...model,
      shells: members.map((list) => ({
        ...model.shells[list[0]!]!,
        stock: list.reduce((sum, at) => sum + model.shells[at]!.stock, 0),
      })),
      wishes: new Map(
        [...model.wishes].map(([station, wish]) => [
          station,
          {
            ...wish,
            upper: moved(wish.upper),
            lower: moved(wish.lower),
            noShells: wish.noShells.map((shell) => kindAt.get(shell)!),
          },
        ]),
      ),
    },
  };
}

/**
 * Deals the shells of each kind out, one half after the other: on hand before what would be ordered, and of as few part numbers as can be.
 *
 * @param wanted the kind of every half that will be dealt
 * @returns for a kind the shell that its next half is of, by position in the model as it was
 * @throws when more halves of a kind are dealt than were wanted, or than there are
 */
export function dealer(
  { shells }: FitModel,
  { members }: MergedShells,
  wanted: readonly number[],
): (kind: number) => number {
  // Where no two are alike there is nothing to deal.
  if (members.length === shells.length) return (kind) => members[kind]![0]!;
  const counts = members.map(() => 0);
  for (const kind of wanted) counts[kind]! += 1;
  const dealt = members.map((list, kind) => {
    const shares = dealOut(
      list.map((at) => shells[at]!.stock),
      counts[kind]!,
    );
    return list.flatMap((at, which) => Array.from({ length: shares[which]! }, () => at));
  });
  return (kind) => {
    const next = dealt[kind]!.shift();
    if (next === undefined) throw new Error('the plan uses more shells of a kind than there are');
    return next;
  };
}
