import {
  acceptedPieces,
  chooseAgain,
  type EndPlay,
  type EndPlayRound,
  type EndPlayStep,
  endPlayAim,
  endPlayAsk,
  endPlayBefore,
  endPlayNow,
  endPlaySteps,
  endPlayVerdict,
  type FreePieces,
  freePieces,
  type JobDocument,
  lengthOfNumber,
  type Moment,
  type Nanometres,
  type PieceAsk,
  predictionMissed,
  readShimRequest,
  type ShimOutcome,
  shimOutcome,
  type ThrustKind,
  thrustKindOf,
  typedLength,
} from '@fettle/core';
import { useMemo, useState } from 'react';
import { newId } from '../base/newId.js';
import { usePieceLines } from '../drawer/usePieceLines.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { useBy } from '../person/useBy.js';
import { freeLines } from './freeLines.js';
import type { Chosen } from './PieceRows.js';
import { type Shims, useShims } from './useShims.js';

export interface EndPlayWork {
  readonly document: JobDocument;
  readonly endPlay: EndPlay;
  readonly kind: ThrustKind | null;
  readonly limit: { readonly low: Nanometres; readonly high: Nanometres; readonly source: string } | null;
  readonly aim: Nanometres | null;
  /** What is read now, and what new pieces are chosen from. */
  readonly now: EndPlayRound | null;
  readonly before: EndPlayRound | null;
  readonly verdict: ReturnType<typeof endPlayVerdict> | null;
  readonly missed: Nanometres | null;
  readonly steps: readonly EndPlayStep[];
  readonly pieces: FreePieces;
  /** What a piece of the workshop costs, by the engine's own id of it, where that is known. */
  readonly prices: Readonly<Record<string, number>>;
  readonly asked: PieceAsk;
  readonly shims: Shims;
  /** The choice in hand: made by hand, or the best one. */
  readonly inHand: Chosen | null;
  readonly outcome: ShimOutcome | null;
  /** True if the choice in hand is one that was made by hand. */
  readonly isOwn: boolean;
  /** Takes a choice in hand; null goes back to the best one. */
  readonly take: (chosen: Chosen | null) => void;
  readonly accept: () => void;
  readonly withdraw: () => void;
  readonly set: (part: Partial<EndPlay>, what?: string) => void;
  readonly addReading: (moment: Moment, angle: 0 | 180, text: string, nm: Nanometres) => void;
  readonly removeReading: (id: string) => void;
  /** When the next reading is taken, as far as one can tell. */
  readonly moment: Moment;
}

function nextMoment({ readings, choice }: EndPlay, kind: ThrustKind | null): Moment {
  if (choice) return 'fitted';
  if (kind === 'rings') return 'without';
  return Object.values(readings).some(({ moment }) => moment === 'seated') ? 'seated' : 'found';
}

/** The end play of an engine: what was read, what it comes to, what to do about it, and the pieces in hand. */
export function useEndPlay(job: OpenJob): EndPlayWork {
  const change = useChangeDocument(job);
  const by = useBy();
  const { document } = job;
  const { endPlay, unit, limits, rules } = document;
  const lines = usePieceLines(job.id);
  const [own, setOwn] = useState<Chosen | null>(null);
  const kind = thrustKindOf(document);
  const limit = limits.endPlay;
  const pieces = useMemo(() => freePieces(document, 'endPlay', freeLines(lines, job.id)), [document, lines, job.id]);
  const prices = useMemo(
    () =>
      Object.fromEntries(
        Object.entries(document.pieces).flatMap(([id, { line }]) => {
          const price = lines?.find((one) => one.id === line)?.piece.price ?? null;
          return price === null ? [] : [[id, price] as const];
        }),
      ),
    [document, lines],
  );
  const asked = useMemo(() => endPlayAsk(endPlay, kind, limit, unit, pieces), [endPlay, kind, limit, unit, pieces]);
  const shims = useShims(asked);
  const now = endPlayNow(endPlay);
  const isGap = now?.moment === 'without';
  const verdict = now && limit && !isGap ? endPlayVerdict(now, limit, rules.closeFraction) : null;
  const hasPlan = shims.plan?.status === 'optimal';
  const isOfWorkshop = Object.values(document.pieces).some(({ line }) => line !== null);
  // That nothing in stock fits is said once the stock was read and searched, not before.
  const isSearched = (lines !== null || !isOfWorkshop) && (!asked.ok || shims.plan !== null || shims.fault !== null);
  const best = hasPlan ? shims.plan!.chosen : null;
  const outcomeOf = (chosen: Chosen | null) => {
    const read = chosen && asked.ok ? readShimRequest(asked.request) : null;
    return read?.ok ? shimOutcome(read.request, chosen!) : null;
  };
  // A choice by hand whose pieces are gone is none any more.
  const ownOutcome = outcomeOf(own);
  const inHand = ownOutcome ? own : best;
  const outcome = ownOutcome ?? outcomeOf(best);
  const set = (part: Partial<EndPlay>, what?: string) =>
    change((old) => ({ ...old, endPlay: { ...old.endPlay, ...part } }), what);
  return {
    document,
    endPlay,
    kind,
    limit,
    aim: limit && endPlayAim(endPlay, limit),
    now,
    before: kind && endPlayBefore(endPlay, kind === 'rings'),
    verdict,
    missed: predictionMissed(endPlay),
    steps:
      kind && limit
        ? endPlaySteps(endPlay, kind, limit, unit, hasPlan).filter(
            (step) => isSearched || step.kind !== 'stop' || step.why === 'uneven',
          )
        : [],
    pieces,
    prices,
    asked,
    shims,
    inHand,
    outcome,
    isOwn: ownOutcome !== null,
    take: setOwn,
    accept: () => {
      if (!asked.ok || !inHand || !outcome) return;
      const stamp = { at: new Date().toISOString(), by };
      set(
        { choice: acceptedPieces(asked, { ...outcome, chosen: inHand }, pieces, stamp) },
        'accepted washers and shims',
      );
      setOwn(null);
    },
    withdraw: () =>
      change(
        (old) => ({ ...old, endPlay: kind ? chooseAgain(old.endPlay, kind) : old.endPlay }),
        'accepted washers and shims',
      ),
    set,
    addReading: (moment, angle, text, nm) =>
      change((old) => {
        const reading = { moment, angle, ...typedLength(text, unit, nm, { by, at: new Date().toISOString() }) };
        return { ...old, endPlay: { ...old.endPlay, readings: { ...old.endPlay.readings, [newId()]: reading } } };
      }, 'end play reading'),
    removeReading: (id) =>
      change((old) => {
        const { [id]: _, ...readings } = old.endPlay.readings;
        return { ...old, endPlay: { ...old.endPlay, readings } };
      }, 'end play reading'),
    moment: nextMoment(endPlay, kind),
  };
}

/** A number of a plan as a length. */
export function planLength(value: number, { unit }: Pick<JobDocument, 'unit'>): Nanometres {
  return lengthOfNumber(value, unit);
}
