import {
  acceptedPieces,
  BLANK_JOINT,
  type Crush,
  type CrushRead,
  crushAsk,
  crushRead,
  freePieces,
  type Joint,
  type JointPlace,
  type JointSide,
  jointAim,
  jointLimits,
  jointPlaces,
  jointState,
  type Nanometres,
  readShimRequest,
  shimOutcome,
} from '@fettle/core';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { usePieceLines } from '../drawer/usePieceLines.js';
import type { PieceWork } from '../endPlay/ChoosePieces.js';
import { freeLines } from '../endPlay/freeLines.js';
import type { Chosen } from '../endPlay/PieceRows.js';
import { useShims } from '../endPlay/useShims.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { useBy } from '../person/useBy.js';

export interface CrushWork extends PieceWork {
  readonly crush: Crush;
  /** The joint that is open; null where none is read. */
  readonly place: JointPlace | null;
  /** What is aimed at there; null for the middle of its limits. */
  readonly aim: Nanometres | null;
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
  const by = useBy();
  const [search, setSearch] = useSearchParams();
  const [own, setOwn] = useState<{ station: string; chosen: Chosen } | null>(null);
  const lines = usePieceLines(job.id);
  const { document } = job;
  const { crush, unit } = document;
  const places = jointPlaces(document);
  const asked = search.get('joint');
  const place = places.find((one) => one.station === asked) ?? places[0] ?? null;
  const station = place?.station ?? '';
  const joint = crush.joints[station] ?? BLANK_JOINT;
  const limits = place && jointLimits(document, place);
  const pieces = useMemo(
    () => freePieces(document, station, freeLines(lines, job.id)),
    [document, station, lines, job.id],
  );
  const aim = place && jointAim(document, place);
  const kind = place?.kind ?? null;
  const question = useMemo(
    () => crushAsk({ ...crush, kind, aim }, joint, limits, unit, pieces),
    [crush, kind, aim, joint, limits, unit, pieces],
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
    place,
    aim,
    stations: places.map((each) => {
      const one = crush.joints[each.station];
      return { station: each.station, state: one ? jointState(one, each.kind, jointLimits(document, each)) : null };
    }),
    station,
    open: (name) => setSearch({ joint: name }, { replace: true }),
    joint,
    read: kind && crushRead(joint, kind),
    state: kind ? jointState(joint, kind, limits) : null,
    limits,
    set: (part) => setJoint((old) => ({ ...old, ...part })),
    setSide: (side, part) => setJoint((old) => ({ ...old, [side]: { ...old[side], ...part } })),
    putIn: () =>
      setJoint((old) => {
        const thick = (side: JointSide) =>
          old.choice?.chosen.find(({ place }) => place === side)?.thickness ?? old[side].shim;
        const side = (name: JointSide) => ({ ...BLANK_JOINT[name], shim: thick(name) });
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
