import {
  acceptedPieces,
  BLANK_JOINT,
  type Crush,
  type CrushRead,
  crushAim,
  crushAsk,
  crushRead,
  freePieces,
  type Joint,
  type JointKind,
  type JointSide,
  jointLimits,
  jointState,
  jointStations,
  type Nanometres,
  readShimRequest,
  shimOutcome,
} from '@fettle/core';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useAppSelector } from '../app/store.js';
import { usePieceLines } from '../drawer/usePieceLines.js';
import type { PieceWork } from '../endPlay/ChoosePieces.js';
import { freeLines } from '../endPlay/freeLines.js';
import type { Chosen } from '../endPlay/PieceRows.js';
import { useShims } from '../endPlay/useShims.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { NOBODY } from '../person/personSlice.js';

export interface CrushWork extends PieceWork {
  readonly crush: Crush;
  readonly kind: JointKind | null;
  readonly stations: readonly { readonly station: string; readonly state: ReturnType<typeof jointState> }[];
  readonly station: string;
  readonly open: (station: string) => void;
  readonly joint: Joint;
  readonly read: CrushRead | null;
  readonly state: ReturnType<typeof jointState>;
  readonly limits: { readonly low: Nanometres; readonly high: Nanometres; readonly source: string } | null;
  readonly set: (part: Partial<Joint>) => void;
  readonly setSide: (side: JointSide, part: Partial<Joint['left']>) => void;
  /** The accepted shims are in: what was read before is of the past. */
  readonly putIn: () => void;
  readonly setAll: (part: Partial<Omit<Crush, 'joints'>>) => void;
}

/** The joints of an engine, one of them open: what its feelers say, and the shims that bring it to its aim. */
export function useCrush(job: OpenJob): CrushWork {
  const change = useChangeDocument(job);
  const by = useAppSelector((state) => state.person.name) || NOBODY;
  const [search, setSearch] = useSearchParams();
  const [own, setOwn] = useState<{ station: string; chosen: Chosen } | null>(null);
  const lines = usePieceLines(job.id);
  const { document } = job;
  const { crush, unit } = document;
  const { kind } = crush;
  const names = jointStations(document);
  const asked = search.get('joint');
  const station = asked !== null && names.includes(asked) ? asked : names[0]!;
  const joint = crush.joints[station] ?? BLANK_JOINT;
  const limits = jointLimits(document);
  const pieces = useMemo(
    () => freePieces(document, station, freeLines(lines, job.id)),
    [document, station, lines, job.id],
  );
  const aim = crushAim(crush, document.materials.caps);
  const question = useMemo(
    () => crushAsk({ ...crush, aim }, joint, limits, unit, pieces),
    [crush, aim, joint, limits, unit, pieces],
  );
  const shims = useShims(question);
  const best = shims.plan?.status === 'optimal' ? shims.plan.chosen : null;
  const outcomeOf = (chosen: Chosen | null) => {
    const read = chosen && question.ok ? readShimRequest(question.request) : null;
    return read?.ok ? shimOutcome(read.request, chosen!) : null;
  };
  const mine = own?.station === station ? own.chosen : null;
  const ownOutcome = outcomeOf(mine);
  const inHand = ownOutcome ? mine : best;
  const outcome = ownOutcome ?? outcomeOf(best);
  const setJoint = (make: (old: Joint) => Joint, what?: string) =>
    change((old) => {
      const made = make(old.crush.joints[station] ?? BLANK_JOINT);
      return { ...old, crush: { ...old.crush, joints: { ...old.crush.joints, [station]: made } } };
    }, what);
  return {
    document,
    crush,
    kind,
    stations: names.map((name) => {
      const one = crush.joints[name];
      return { station: name, state: one && kind ? jointState(one, kind, limits) : null };
    }),
    station,
    open: (name) => setSearch({ joint: name }, { replace: true }),
    joint,
    read: crushRead(joint),
    state: kind ? jointState(joint, kind, limits) : null,
    limits,
    set: (part) => setJoint((old) => ({ ...old, ...part })),
    setSide: (side, part) => setJoint((old) => ({ ...old, [side]: { ...old[side], ...part } })),
    putIn: () =>
      setJoint((old) => {
        const thick = (side: JointSide) =>
          old.choice?.chosen.find(({ place }) => place === side)?.thickness ?? old[side].shim;
        const side = (name: JointSide) => ({ go: null, noGo: null, shim: thick(name) });
        return { ...old, left: side('left'), right: side('right'), clearance: null };
      }, `shims put in at ${station}`),
    setAll: (part) => change((old) => ({ ...old, crush: { ...old.crush, ...part } })),
    asked: question,
    pieces,
    shims,
    inHand,
    outcome,
    isOwn: ownOutcome !== null,
    take: (chosen) => setOwn(chosen && { station, chosen }),
    accept: () => {
      if (!question.ok || !inHand || !outcome) return;
      const stamp = { at: new Date().toISOString(), by };
      const choice = acceptedPieces(question, { ...outcome, chosen: inHand }, pieces, stamp);
      setJoint((old) => ({ ...old, choice }), `accepted shims at ${station}`);
      setOwn(null);
    },
    withdraw: () => setJoint((old) => ({ ...old, choice: null }), `accepted shims at ${station}`),
  };
}
