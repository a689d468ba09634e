import {
  type Bolt,
  type Family,
  fastenerFigures,
  isPassDone,
  type JobDocument,
  type JobPassState,
  jobPassStates,
  jobStretches,
  parseLength,
  passPlace,
  type StretchRead,
  typedLength,
} from '@fettle/core';
import { useQuery } from '../base/useQuery.js';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { useBy } from '../person/useBy.js';

export interface TorqueWork {
  readonly document: JobDocument;
  readonly figures: ReturnType<typeof fastenerFigures>;
  readonly states: readonly JobPassState[];
  /** The next pass in the order of the work; null when all are done. */
  readonly next: JobPassState | null;
  /** The pass that is looked at: the one that was touched, else the next. */
  readonly shown: JobPassState | null;
  readonly show: (key: string | null) => void;
  /** Ticks a pass off, or takes that back. */
  readonly tick: (state: JobPassState, isDone: boolean) => void;
  readonly stretches: readonly StretchRead[];
  /** Keeps the stretch of a bolt as it was typed; an empty text takes it back. */
  readonly putStretch: (bolt: Bolt, text: string) => void;
  readonly setFigures: (family: Family, figures: JobDocument['fasteners'][Family]['figures']) => void;
}

/** Tightening an engine: its passes, which is next, what was ticked off and what bolts stretched. */
export function useTorque(job: OpenJob): TorqueWork {
  const change = useChangeDocument(job);
  const by = useBy();
  const [shownKey, show] = useQuery('pass');
  const { document } = job;
  const states = jobPassStates(document);
  const next = states.find((state) => !isPassDone(state)) ?? null;
  return {
    document,
    figures: fastenerFigures(document),
    states,
    next,
    shown: states.find(({ pass }) => pass.key === shownKey) ?? next ?? states.at(-1) ?? null,
    show,
    tick: (state, isDone) => {
      const { pass, text } = state;
      const done = { target: text, by, at: new Date().toISOString() };
      change(
        (old) => {
          const { [pass.key]: _, ...others } = old.torque.passes;
          return { ...old, torque: { ...old.torque, passes: isDone ? { ...others, [pass.key]: done } : others } };
        },
        `${isDone ? 'tightened' : 'not tightened'}: ${passPlace(state)} to ${text}`,
      );
      show(null);
    },
    stretches: jobStretches(document),
    putStretch: (bolt, text) => {
      const { unit } = document;
      const parsed = parseLength(text, { unit, signed: 'sign' });
      const read = typedLength(text, unit, parsed.ok ? parsed.nm : null, { by, at: new Date().toISOString() });
      change((old) => {
        const { [bolt.id]: _, ...others } = old.torque.stretch;
        const stretch = text.trim() === '' ? others : { ...others, [bolt.id]: read };
        return { ...old, torque: { ...old.torque, stretch } };
      }, `stretch of ${bolt.name}`);
    },
    setFigures: (family, figures) =>
      change(
        (old) => ({
          ...old,
          fasteners: { ...old.fasteners, [family]: { ...old.fasteners[family], figures } },
        }),
        `torque figures of the ${family} fasteners`,
      ),
  };
}
