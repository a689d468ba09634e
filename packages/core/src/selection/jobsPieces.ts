import type { PieceLine } from '../drawer/drawerPiece.js';
import { freeOnShelf } from '../drawer/workshopDrawer.js';
import { acceptedPieces, endPlayAsk, type FreePieces, type PieceAsk } from '../endPlay/endPlayAsk.js';
import type { PieceChoice } from '../endPlay/endPlaySchema.js';
import { freePieces } from '../endPlay/takenPieces.js';
import { thrustKindOf } from '../engineType/thrustKind.js';
import type { ShimRequestInput } from '../fit/format/shimRequest.js';
import type { ShimChoice } from '../fit/shims/shimAnswer.js';
import type { OneOfJobs } from './jobsFit.js';

/** An engine whose end play is to be set from the workshop's shelf together with those of others. */
export interface JobsPieces {
  readonly job: OneOfJobs;
  readonly asked: PieceAsk & { ok: true };
  readonly pieces: FreePieces;
  /** By the name of a piece in the request: the line of the shelf that it is of. */
  readonly lines: readonly (readonly [string, string])[];
}

/** What a search for several engines is asked, as it goes to a worker. */
export interface JobsPiecesQuestion {
  readonly parts: readonly { key: string; request: ShimRequestInput; lines: readonly (readonly [string, string])[] }[];
  readonly stock: readonly (readonly [string, number])[];
}

/**
 * The engines whose end play was read and is not chosen for yet, and which draw on the workshop's washers or rings, with what is free of
 * those for all of them: what others have reserved stays theirs.
 */
export function jobsPieces(
  all: readonly OneOfJobs[],
  shelf: readonly PieceLine[],
): { readonly engines: readonly JobsPieces[]; readonly question: JobsPiecesQuestion } {
  const stock = new Map(shelf.map((line) => [line.id, freeOnShelf(line.piece.onHand, line, null)] as const));
  const engines = all.flatMap((job): JobsPieces[] => {
    const { document } = job;
    if (document.endPlay.choice !== null) return [];
    const pieces = freePieces(document, 'endPlay', stock);
    const asked = endPlayAsk(document.endPlay, thrustKindOf(document), document.limits.endPlay, document.unit, pieces);
    if (!asked.ok) return [];
    const lines = [...asked.ids].flatMap(([name, id]) => {
      const line = document.pieces[id]!.line;
      return line === null ? [] : [[name, line] as const];
    });
    return lines.length === 0 ? [] : [{ job, asked, pieces, lines }];
  });
  return {
    engines,
    question: {
      parts: engines.map(({ job, asked, lines }) => ({ key: job.id, request: asked.request, lines })),
      stock: [...stock],
    },
  };
}

/** What a plan for several engines gives one of them, ready to be accepted. */
export function acceptedForJobs(
  { asked, pieces }: JobsPieces,
  choice: ShimChoice,
  stamp: Pick<PieceChoice, 'at' | 'by'>,
): PieceChoice {
  return acceptedPieces(asked, choice, pieces, stamp);
}
