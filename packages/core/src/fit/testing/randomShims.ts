import type { ShimRequestInput } from '../format/shimRequest.js';

/** Draws a shim request of each kind in turn: few pieces, so that every choice can be gone through; about half of them fit. */
export function randomShims(random: () => number, at: number): ShimRequestInput {
  const unit = random() < 0.5 ? 'mm' : 'in';
  // A hundredth of a millimetre, or a thou; now and then finer than a nanometre's neighbour can tell.
  const step = unit === 'mm' ? 0.01 : 0.0005;
  const whole = (from: number, to: number) => from + Math.floor(random() * (to - from + 1));
  const decimals = unit === 'mm' ? 3 : 5;
  const length = (from: number, to: number) =>
    Number((whole(from, to) * step + (random() < 0.2 ? step * 0.3 : 0)).toFixed(decimals));
  const pick = <Value>(list: readonly Value[]): Value => list[Math.floor(random() * list.length)]!;
  const low = length(4, 12);
  const high = Number((low + length(1, 12)).toFixed(decimals));
  const aim = pick([low, high, Number(((low + high) / 2).toFixed(decimals + 1))]);
  const common = { format: 'fettle.shim-request/1', unit, low, high, aim } as const;
  const pieces = <Piece extends object>(more: () => Piece, from = 20, to = 34) =>
    Array.from({ length: whole(0, 7) }, (_, id) => ({
      id: `p${id}`,
      thickness: length(from, to),
      stock: pick([0, 1, 1, 2, 2, 3, null]),
      ...more(),
    }));
  const tightWeight = pick([1, 2, 5]);
  const alike = pick([undefined, 0, step, 3 * step]);
  const alikeRule = alike === undefined ? {} : { alikeWithin: alike };
  const halves = pick([['upper'], ['lower'], ['upper', 'lower'], ['lower', 'upper']] as ('upper' | 'lower')[][]);
  const half = () => ({ half: pick(['upper', 'lower', 'either', 'either'] as const) });
  // Some are made from one thing, and share what there is of it.
  const made = () => pick([{}, {}, { of: 'leaves' }]);
  const joint = () => {
    const all = pieces(made);
    const first = all.find((piece) => 'of' in piece);
    return all.map((piece) => ('of' in piece ? { ...piece, stock: first!.stock } : piece));
  };
  switch (at % 5) {
    case 0: {
      const counts = pick([[3, 2], [2], [1, 2, 3], [4, 2], [3, 2, 1, 0], [5]]);
      return {
        ...common,
        kind: 'ring-shims',
        gap: length(20 * counts[0]!, 34 * counts[0]! + 12),
        settle: pick([0, step]),
        counts,
        pieces: pieces(() => ({})),
        rules: { tightWeight, countPenalty: pick([0, 25, 400]) },
      };
    }
    case 1:
      return {
        ...common,
        kind: 'thrust-washers',
        reading: length(0, 24),
        fitted: { front: length(20, 34), rear: length(20, 34) },
        halves,
        pieces: pieces(() => ({ ...half(), ...pick([{}, {}, { face: 'front' as const }, { face: 'rear' as const }]) })),
        rules: {
          tightWeight,
          ...alikeRule,
          maxShift: pick([null, null, step, 4 * step]),
          shiftPenalty: pick([0, 0.25, 2]),
        },
      };
    case 2:
      return {
        ...common,
        kind: 'flanged-shell',
        reading: length(0, 24),
        fitted: { width: length(20, 34) },
        halves,
        ...alikeRule,
        pieces: pieces(half),
        rules: { tightWeight },
      };
    case 3: {
      const near = whole(0, 8);
      const side = () => {
        const go = length(near, near + 2);
        return { go, noGo: Number((go + length(1, 3)).toFixed(decimals)), shim: length(20, 34) };
      };
      return {
        ...common,
        kind: 'split-line',
        sides: { left: side(), right: side() },
        pieces: joint(),
        rules: { tightWeight, unevenPenalty: pick([0, 1, 3]) },
      };
    }
    default:
      return {
        ...common,
        kind: 'saddle-shims',
        clearance: length(0, 24),
        fitted: { left: length(20, 34), right: length(20, 34) },
        pieces: joint(),
        rules: { tightWeight, ...alikeRule },
      };
  }
}
