import { lengthOfNumber } from '../../measure/lengthOfNumber.js';
import { lengthText } from '../../measure/lengthText.js';
import { NANOMETRES_PER } from '../../measure/unit.js';
import type { ShimConflict, ShimRemedy } from '../format/shimPlan.js';
import { type PlacedChoice, placedChoice } from './placedChoice.js';
import { costOf, formValue, type Group, type Piece, type PlacedProblem, type RuleKind } from './placedProblem.js';
import { numberOfHalves } from './shimAnswer.js';
import { type PlacedRequest, placedProblem } from './shimKinds.js';
import { isAnswered, isRemedy, withDressed, withNewPieces } from './shimRemedies.js';

/** Maximum ways to put one piece more at a place that are tried, the best first. */
const MOST_TRIED = 6;

/** The thicknesses of one group with which all rules hold, those of the others given, in whole nanometres; null when none. */
function wantedThickness(problem: PlacedProblem, at: number, others: readonly number[]) {
  let [from, to] = [1, Number.POSITIVE_INFINITY];
  for (const rule of problem.rules) {
    const coefficient = rule.coefficients[at]!;
    const rest = formValue(rule, others.with(at, 0));
    const ends = [(rule.low - rest) / coefficient, (rule.high - rest) / coefficient].sort((a, b) => a - b);
    from = Math.max(from, Math.ceil(ends[0]!));
    to = Math.min(to, Math.floor(ends[1]!));
  }
  return from <= to ? { from, to } : null;
}

/** What a thickness of one group, from … to, costs at its best. */
function leastCost(problem: PlacedProblem, at: number, others: readonly number[], from: number, to: number): number {
  const coefficient = problem.result.coefficients[at]!;
  const wanted = (problem.aim - formValue(problem.result, others.with(at, 0))) / coefficient;
  return costOf(problem, others.with(at, Math.min(Math.max(wanted, from), to)));
}

interface Interval {
  readonly from: number;
  readonly to: number;
  readonly cost: number;
}

/** Thicknesses of one piece more at a place with which the rules hold, beside every thickness of what it lies with and across from. */
function newThicknesses(problem: PlacedProblem, at: number, place: number, pieces: readonly Piece[]): Interval[] {
  const { groups, alikeWithin } = problem;
  const known = (group: Group) => [
    ...new Set(
      pieces
        .filter((piece) => piece.stock > 0 && group.slots.some(({ fits }) => fits(piece)))
        .map((one) => one.thickness),
    ),
  ];
  const across: number[][] =
    groups.length === 1
      ? [[0]]
      : known(groups[1 - at]!).map((thickness) => (at === 0 ? [0, thickness] : [thickness, 0]));
  const beside = groups[at]!.slots.filter((_, other) => other !== place);
  const partners = beside.length === 0 ? [null] : known({ ...groups[at]!, slots: beside });
  return across.flatMap((others) => {
    const wanted = wantedThickness(problem, at, others);
    if (!wanted) return [];
    return partners.flatMap((partner): Interval[] => {
      // The thicker of the two counts: beside one that does by itself, any that is alike will do.
      const isEnough = partner !== null && partner >= wanted.from && partner <= wanted.to;
      const from = partner === null ? wanted.from : isEnough ? Math.max(1, partner - alikeWithin) : wanted.from;
      const to = partner === null ? wanted.to : Math.min(wanted.to, partner + alikeWithin);
      if (from > to || (partner !== null && !isEnough && partner > wanted.to)) return [];
      return [
        { from, to, cost: leastCost(problem, at, others, Math.max(from, partner ?? 0), Math.max(to, partner ?? 0)) },
      ];
    });
  });
}

function pieceRemedies(request: PlacedRequest, problem: PlacedProblem, pieces: readonly Piece[]): ShimRemedy[] {
  const per = NANOMETRES_PER[request.unit];
  return problem.groups.flatMap(({ slots }, at) =>
    slots.flatMap((slot, place) => {
      const tried = newThicknesses(problem, at, place, pieces).sort((one, other) => one.cost - other.cost);
      const remedies = tried
        .slice(0, MOST_TRIED)
        .filter(({ to }) => Number.isFinite(to))
        .map(({ from, to }): ShimRemedy => ({ kind: 'piece', place: slot.place, from: from / per, to: to / per }));
      return remedies.filter((remedy) => isRemedy(request, remedy)).slice(0, 1);
    }),
  );
}

/** How much is to come off one group's pieces so that a choice lands on its aim; null where taking off leads away from it. */
function toTakeOff({ result, aim }: PlacedProblem, { thicknesses }: PlacedChoice, at: number): number | null {
  const by = (formValue(result, thicknesses) - aim) / result.coefficients[at]!;
  return by > 0 ? Math.round(by) : null;
}

interface Nearest {
  readonly below: PlacedChoice | null;
  readonly above: PlacedChoice | null;
}

/** The choices that keep all rules but the limits, and come nearest to them. */
function nearestChoices(problem: PlacedProblem, pieces: readonly Piece[]): Nearest {
  const range = problem.rules.find(({ kind }) => kind === 'short')!;
  const side = (isBelow: boolean) =>
    placedChoice(problem, pieces, {
      without: ['short'],
      rank: (thicknesses) => {
        const value = formValue(range, thicknesses);
        if (isBelow ? value >= range.low : value <= range.high) return null;
        return isBelow ? range.low - value : value - range.high;
      },
    });
  return { below: side(true), above: side(false) };
}

function dressing(request: PlacedRequest, problem: PlacedProblem, { below, above }: Nearest) {
  const per = NANOMETRES_PER[request.unit];
  const single: ShimRemedy[] = [];
  const faces: NonNullable<ShimConflict['faces']> = [];
  for (const choice of [below, above]) {
    if (!choice) continue;
    problem.groups.forEach((group, at) => {
      const by = toTakeOff(problem, choice, at);
      if (by === null) return;
      const own = choice.chosen.filter(({ slot }) => group.slots.includes(slot));
      for (const { slot, piece } of own) {
        const remedy: ShimRemedy = { kind: 'dress', place: slot.place, id: piece.id, by: by / per };
        if (isRemedy(request, remedy)) single.push(remedy);
      }
      const ids = own.map(({ piece }) => piece.id);
      if (own.length === 2 && isAnswered(withDressed(request, ids, by / per))) {
        faces.push({ face: group.name as 'front', by: by / per });
      }
    });
  }
  return { single, faces };
}

/** New pieces for both halves of a face, each as thick as the other. */
function newFaces(request: PlacedRequest, problem: PlacedProblem, pieces: readonly Piece[]) {
  const per = NANOMETRES_PER[request.unit];
  return problem.groups.flatMap((group, at): NonNullable<ShimConflict['faces']> => {
    if (group.slots.length < 2) return [];
    const whole = { ...problem, groups: problem.groups.map((one) => ({ ...one, slots: one.slots.slice(0, 1) })) };
    const places = group.slots.map(({ place }) => place);
    const tried = newThicknesses(whole, at, 0, pieces)
      .filter(({ to }) => Number.isFinite(to))
      .sort((one, other) => one.cost - other.cost)
      .slice(0, MOST_TRIED);
    const good = tried.find(({ from, to }) =>
      [from, (from + to) / 2, to].every((thickness) => isAnswered(withNewPieces(request, places, thickness / per))),
    );
    return good ? [{ face: group.name as 'front', from: good.from / per, to: good.to / per }] : [];
  });
}

const PLACE_WORDS: Readonly<Record<Group['name'], string>> = {
  front: 'the front face',
  rear: 'the rear face',
  flanges: 'the flanged main',
  left: 'the left side',
  right: 'the right side',
};

function shortMessage(request: PlacedRequest, problem: PlacedProblem, { below, above }: Nearest): string {
  const { unit } = request;
  const text = (half: number) => lengthText(half / 2, unit);
  const wanted = `${lengthText(lengthOfNumber(request.low, unit), unit)} to ${lengthText(lengthOfNumber(request.high, unit), unit)}`;
  if (request.kind === 'split-line') {
    const { left, right } = request.sides;
    const nm = (value: number) => lengthOfNumber(value, unit);
    const known = Math.max(nm(left.noGo), nm(right.noGo)) - Math.min(nm(left.go), nm(right.go));
    const room = nm(request.high) - nm(request.low);
    if (known > room) {
      return `The feelers leave the crush known to ${lengthText(known, unit)} only, and the limits are ${lengthText(room, unit)} apart: use finer feelers.`;
    }
  }
  const nearest = [
    ...(below ? [`the nearest below gives ${text(formValue(problem.result, below.thicknesses))}`] : []),
    ...(above
      ? [`the nearest above ${below ? '' : 'gives '}${text(formValue(problem.result, above.thicknesses))}`]
      : []),
  ].join(', ');
  return `No choice of the pieces on hand gives ${wanted}: ${nearest}.`;
}

/** Why no choice is allowed, and what would do it. */
export function explainPlaced(request: PlacedRequest, pieces: readonly Piece[]): ShimConflict[] {
  const { unit } = request;
  const per = NANOMETRES_PER[unit];
  const problem = placedProblem(request);
  const all: readonly RuleKind[] = ['short', 'shift', 'not-alike'];
  const byPiece = pieceRemedies(request, problem, pieces);
  const faces = newFaces(request, problem, pieces);
  const withFaces = faces.length > 0 ? { faces } : {};

  const any = placedChoice(problem, pieces, { without: all, rank: () => 0 });
  if (!any) {
    const empty = problem.groups.flatMap(({ slots }) =>
      slots.filter(({ fits }) => !pieces.some((piece) => piece.stock > 0 && fits(piece))),
    );
    const wanting = problem.groups.filter(
      ({ slots }) => empty.length === 0 || slots.some((slot) => empty.includes(slot)),
    );
    const where = wanting.map(({ name }) => PLACE_WORDS[name]).join(' and ');
    const message =
      empty.length > 0 ? `No piece on hand fits ${where}.` : `Too few pieces on hand for ${where} together.`;
    const places = (empty.length > 0 ? empty : wanting.flatMap(({ slots }) => slots)).map(({ place }) => place);
    return [{ kind: 'none', message, remedies: byPiece, places, ...withFaces }];
  }

  const conflicts: ShimConflict[] = [];
  const unlike = placedChoice(problem, pieces, { without: ['not-alike'] });
  const isAlike = placedChoice(problem, pieces, { without: ['short', 'shift'], rank: () => 0 }) !== null;
  if (unlike || !isAlike) {
    const within = lengthText(problem.alikeWithin, unit);
    const message = isAlike
      ? `Pieces fitted together must be alike within ${within}; only unlike ones would give the result.`
      : `No pieces on hand are alike within ${within}.`;
    conflicts.push({ kind: 'not-alike', message, remedies: byPiece, ...withFaces });
  }
  const shifted = problem.shift && placedChoice(problem, pieces, { without: ['shift'] });
  if (problem.shift && shifted) {
    const by = formValue(problem.shift, shifted.thicknesses);
    const way = by > 0 ? 'forward' : 'back';
    const most = problem.rules.find(({ kind }) => kind === 'shift')!.high;
    const message = `The choice nearest target moves the shaft ${lengthText(Math.abs(by) / 2, unit)} ${way}; the limit is ${lengthText(most / 2, unit)}.`;
    conflicts.push({ kind: 'shift', message, remedies: byPiece, ...withFaces });
  }
  const nearest = nearestChoices(problem, pieces);
  if (nearest.below || nearest.above || conflicts.length === 0) {
    const dressed = dressing(request, problem, nearest);
    const range = problem.rules.find(({ kind }) => kind === 'short')!;
    const low = nearest.below && range.low - formValue(range, nearest.below.thicknesses);
    const high = nearest.above && formValue(range, nearest.above.thicknesses) - range.high;
    const moved = (by: number) => Math.ceil(by / 2);
    const limits: ShimRemedy[] = [
      ...(low === null
        ? []
        : [{ kind: 'limit' as const, low: (lengthOfNumber(request.low, unit) - moved(low)) / per }]),
      ...(high === null
        ? []
        : [{ kind: 'limit' as const, high: (lengthOfNumber(request.high, unit) + moved(high)) / per }]),
    ];
    const result = (choice: PlacedChoice | null) =>
      choice && numberOfHalves(formValue(problem.result, choice.thicknesses), unit);
    const together = [...faces, ...dressed.faces];
    conflicts.push({
      kind: 'short',
      message:
        nearest.below || nearest.above
          ? shortMessage(request, problem, nearest)
          : 'No choice of the washers and shims on hand meets all the rules.',
      remedies: [...byPiece, ...dressed.single, ...limits.filter((remedy) => isRemedy(request, remedy))],
      below: result(nearest.below),
      above: result(nearest.above),
      ...(together.length > 0 ? { faces: together } : {}),
    });
  }
  return conflicts;
}
