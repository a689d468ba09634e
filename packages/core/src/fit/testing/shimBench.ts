/** `npm run bench shims`: choosing pieces against going through all stacks, in the same run. Only ratios mean anything. */
import { seeded } from '../../measure/seeded.js';
import { readShimRequest, type ShimRequest } from '../format/shimRequest.js';
import { shims } from '../shims.js';

const RUNS = 40;
const random = seeded(11);

function read(input: object): ShimRequest {
  const result = readShimRequest(input);
  if (!result.ok) throw new Error(JSON.stringify(result.faults));
  return result.request;
}

const rounded = (value: number) => Number(value.toFixed(3));
const common = { format: 'fettle.shim-request/1', unit: 'mm', low: 0.1, high: 0.15, aim: 0.12 };
const pieces = (least: number, most: number, more: (at: number) => object = () => ({})) =>
  Array.from({ length: 60 }, (_, at) => ({
    id: String(at),
    thickness: rounded(least + random() * (most - least)),
    stock: 1 + Math.floor(2 * random()),
    ...more(at),
  }));
const half = (at: number) => ({ half: at % 2 === 0 ? 'upper' : 'lower' });

/** Sixty pieces each; every second one cannot be met. */
const KINDS: Readonly<Record<string, (isShort: boolean) => object>> = {
  'ring-shims, stacks of four': (isShort) => ({
    kind: 'ring-shims',
    gap: rounded(isShort ? 9 : 1.4 + random() * 0.3),
    counts: [4],
    pieces: pieces(0.2, 0.6),
  }),
  'thrust-washers': (isShort) => ({
    kind: 'thrust-washers',
    reading: 0.05,
    fitted: { front: isShort ? 3.3 : 2.3, rear: 2.3 },
    halves: ['upper', 'lower'],
    pieces: pieces(2.2, 2.4, half),
  }),
  'flanged-shell': (isShort) => ({
    kind: 'flanged-shell',
    reading: 0.05,
    fitted: { width: isShort ? 33 : 31.8 },
    halves: ['upper', 'lower'],
    pieces: pieces(31.7, 31.9, half),
  }),
  'split-line': (isShort) => ({
    kind: 'split-line',
    sides: { left: { go: 0.05, noGo: 0.06, shim: isShort ? 4 : 0.4 }, right: { go: 0.05, noGo: 0.06, shim: 0.4 } },
    pieces: pieces(0.3, 0.5),
  }),
  'saddle-shims': (isShort) => ({
    kind: 'saddle-shims',
    clearance: isShort ? 2 : 0.2,
    fitted: { left: 0.4, right: 0.4 },
    pieces: pieces(0.3, 0.5),
  }),
};

/** Goes through every stack of four, the plain way. @returns the least deviation of a stack that is allowed, µm */
function everyStack({ pieces: rings, ...request }: ShimRequest & { kind: 'ring-shims' }): number {
  const list = rings.flatMap(({ thickness, stock }) =>
    Array.from({ length: Math.min(4, stock ?? 4) }, () => thickness),
  );
  let best = Number.POSITIVE_INFINITY;
  for (let a = 0; a < list.length; a += 1)
    for (let b = a + 1; b < list.length; b += 1)
      for (let c = b + 1; c < list.length; c += 1)
        for (let d = c + 1; d < list.length; d += 1) {
          const result = request.gap - list[a]! - list[b]! - list[c]! - list[d]!;
          if (result < request.low - 1e-9 || result > request.high + 1e-9) continue;
          const off = 1000 * (result - request.aim);
          best = Math.min(best, (off < 0 ? 2 : 1) * off * off);
        }
  return best;
}

const sorted = (values: readonly number[]) => values.toSorted((one, other) => one - other);
for (const [name, make] of Object.entries(KINDS)) {
  const found: number[] = [];
  const explained: number[] = [];
  const plain: number[] = [];
  for (let at = 0; at < RUNS; at += 1) {
    const isShort = at % 2 === 1;
    const request = read({ ...common, ...make(isShort) });
    const before = performance.now();
    const plan = shims(request);
    const ms = performance.now() - before;
    (plan.status === 'optimal' ? found : explained).push(ms);
    if (request.kind !== 'ring-shims' || at > 6 || isShort) continue;
    const start = performance.now();
    const least = everyStack(request);
    plain.push((performance.now() - start) / ms);
    if (Math.abs(least - (plan.cost ?? Number.POSITIVE_INFINITY)) > 1e-3)
      throw new Error(`${name}: not the least cost`);
  }
  const figure = (list: readonly number[]) =>
    list.length === 0
      ? 'none'
      : `median ${sorted(list)[list.length >> 1]!.toFixed(1)}, worst ${sorted(list).at(-1)!.toFixed(1)} ms`;
  const ratio = plain.length === 0 ? '' : `; ${sorted(plain)[plain.length >> 1]!.toFixed(0)} × as fast as every stack`;
  console.log(
    `${name}, 60 pieces: ${found.length} chosen in ${figure(found)}; ${explained.length} explained in ${figure(explained)}${ratio}`,
  );
}
