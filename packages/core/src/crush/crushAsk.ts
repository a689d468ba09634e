import { type FreePieces, namedPieces, type PieceAsk } from '../endPlay/endPlayAsk.js';
import { numberOfLength } from '../measure/formatLength.js';
import { lengthText } from '../measure/lengthText.js';
import { type Nanometres, nanometres } from '../measure/nanometres.js';
import type { Unit } from '../measure/unit.js';
import { type CrushRead, crushRead, type Limits } from './crushRead.js';
import type { Crush, Joint } from './crushSchema.js';

interface OfferedShim {
  readonly id: string;
  readonly thickness: Nanometres;
  readonly free: number | null;
}

/** The shims on hand by name, a laminated one at every thickness it can be peeled to. */
function peeledShims(pieces: FreePieces, unit: Unit): Map<string, OfferedShim> {
  const offered = new Map<string, OfferedShim>();
  for (const [name, id] of namedPieces(pieces, 'shim')) {
    const { thickness, leaf, free } = pieces[id]!;
    for (const left of leaf === undefined ? [thickness] : peeled(thickness, leaf)) {
      offered.set(left === thickness ? name : `${name} peeled to ${lengthText(left, unit)}`, {
        id,
        thickness: left,
        free,
      });
    }
  }
  return offered;
}

/** The shim request for one joint: which shims on hand, one a side, bring it to its aim. */
export function crushAsk(
  { kind, aim, alikeWithin }: { readonly aim: Nanometres | null } & Pick<Crush, 'kind' | 'alikeWithin'>,
  joint: Joint,
  limits: Limits | null,
  unit: Unit,
  pieces: FreePieces,
): PieceAsk {
  if (kind === null) return { ok: false, reason: 'no-kind' };
  if (kind === 'plain') return { ok: false, reason: 'no-shims' };
  if (limits === null) return { ok: false, reason: 'no-limits' };
  const { left, right, clearance } = joint;
  const read = crushRead(joint, kind);
  if (kind === 'saddle' ? clearance === null : read === null) return { ok: false, reason: 'not-read' };
  if (left.shim === null || right.shim === null) return { ok: false, reason: 'no-fitted' };
  const leaves = peeledShims(pieces, unit);
  if (leaves.size === 0) return { ok: false, reason: 'no-pieces' };
  const ids = new Map([...leaves].map(([name, { id }]) => [name, id]));
  const length = (value: Nanometres) => numberOfLength(value, unit);
  const wanted = aim !== null && aim >= limits.low && aim <= limits.high;
  const common = {
    format: 'fettle.shim-request/1' as const,
    unit,
    low: length(limits.low),
    high: length(limits.high),
    aim: length(wanted ? aim : nanometres(Math.round((limits.low + limits.high) / 2))),
    pieces: [...leaves].map(([name, { id, thickness, free }]) => ({
      id: name,
      of: id,
      thickness: length(thickness),
      stock: free,
    })),
  };
  if (kind === 'saddle') {
    const fitted = { left: length(left.shim), right: length(right.shim) };
    const rules = { alikeWithin: length(alikeWithin) };
    return {
      ok: true,
      ids,
      request: { ...common, kind: 'saddle-shims', clearance: length(clearance!), fitted, rules },
    };
  }
  const side = ({ go, noGo }: CrushRead['left'], shim: Nanometres) => ({
    go: length(go),
    noGo: length(noGo),
    shim: length(shim),
  });
  const sides = { left: side(read!.left, left.shim), right: side(read!.right, right.shim) };
  return { ok: true, ids, request: { ...common, kind: 'split-line', sides } };
}

/**
 * The thicknesses that a laminated shim can be peeled to, the whole one first: a leaf at a time, one leaf at least. White-metal shims
 * come in leaves of 0.002 in (common practice).
 *
 * @example peeled(203_200, 50_800) // [203_200, 152_400, 101_600, 50_800]
 */
export function peeled(thickness: number, leaf: number): Nanometres[] {
  const steps = Math.floor(thickness / leaf + 1e-9);
  return Array.from({ length: Math.max(1, steps) }, (_, off) => nanometres(thickness - off * leaf)).filter(
    (left) => left > 0,
  );
}
