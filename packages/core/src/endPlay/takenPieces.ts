import type { DocumentFault } from '../document/fault.js';
import type { JobPiece } from '../shell/jobPiece.js';
import type { FreePieces } from './endPlayAsk.js';
import type { PieceChoice } from './endPlaySchema.js';

/** What takes washers, flanged halves and shims in an engine, and what there is of them. */
interface TakingJob {
  readonly endPlay: { readonly choice: PieceChoice | null };
  readonly crush: { readonly joints: Readonly<Record<string, { readonly choice: PieceChoice | null }>> };
  readonly pieces: Readonly<Record<string, JobPiece>>;
}

/** One piece, or several of a kind, that an accepted choice takes. */
export interface TakenPiece {
  readonly piece: string;
  readonly label: string;
  readonly count: number;
  /** Where the document takes it, as a JSON Pointer. */
  readonly path: string;
}

function takenBy(choice: PieceChoice | null, path: string): TakenPiece[] {
  return (choice?.chosen ?? []).map(({ piece, label, count }, at) => ({
    piece,
    label,
    count,
    path: `${path}/chosen/${at}/piece`,
  }));
}

/**
 * What the accepted choices of an engine take of its washers, flanged halves and shims.
 *
 * @param except leaves out one of the choices: that of the end play, or of one joint by its station
 */
export function takenPieces(
  { endPlay, crush }: Pick<TakingJob, 'endPlay' | 'crush'>,
  except: string | null = null,
): TakenPiece[] {
  return [
    ...(except === 'endPlay' ? [] : takenBy(endPlay.choice, '/endPlay/choice')),
    ...Object.entries(crush.joints).flatMap(([station, { choice }]) =>
      station === except ? [] : takenBy(choice, `/crush/joints/${station}/choice`),
    ),
  ];
}

/**
 * What keeps the accepted washers and shims from being accepted: a piece that the engine does not have, or has too few of.
 *
 * @returns faults with JSON Pointers into the job document; empty when they can be accepted
 */
export function pieceFaults(job: TakingJob): DocumentFault[] {
  const faults: DocumentFault[] = [];
  const used = new Map<string, number>();
  for (const { piece: id, label, count, path } of takenPieces(job)) {
    const piece = job.pieces[id];
    if (!piece) {
      faults.push({ path, message: `${label} is no longer in stock; select again` });
      continue;
    }
    const sum = (used.get(id) ?? 0) + count;
    used.set(id, sum);
    // Pieces of the workshop are counted where they are reserved.
    if (piece.line === null && piece.stock !== null && sum > piece.stock) {
      faults.push({ path, message: `only ${piece.stock} of ${label} are on hand; select again` });
    }
  }
  return faults;
}

/** Pieces of the workshop's drawer that the job may take, by the drawer's own ids. */
export type FreeLines = ReadonlyMap<string, number>;

/**
 * The pieces of an engine, with how many of each are free for one of its choices: less what its other choices take.
 *
 * @param choice `endPlay`, or the station of a joint
 * @param onShelf what the job may take of the workshop's pieces; null while that is not known: then none of those
 */
export function freePieces(job: TakingJob, choice: string, onShelf: FreeLines | null): FreePieces {
  const taken = new Map<string, number>();
  for (const { piece, count } of takenPieces(job, choice)) taken.set(piece, (taken.get(piece) ?? 0) + count);
  return Object.fromEntries(
    Object.entries(job.pieces).map(([id, piece]) => {
      const there = piece.line === null ? piece.stock : (onShelf?.get(piece.line) ?? 0);
      return [id, { ...piece, free: there === null ? null : Math.max(0, there - (taken.get(id) ?? 0)) }];
    }),
  );
}
