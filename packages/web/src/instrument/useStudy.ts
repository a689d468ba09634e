import {
  gaugeStudy,
  parseLength,
  type StudyResult,
  type StudyStep,
  type StudyView,
  studyOf,
  studyOrder,
  studySize,
} from '@fettle/core';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useAppSelector } from '../base/store.js';
import { useBy } from '../person/useBy.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';

export interface StudyWork {
  readonly view: StudyView | null;
  readonly fault: string | null;
  /** Person measuring; null while nobody has said. */
  readonly person: string | null;
  readonly setPerson: (person: string) => void;
  /** What is to be read now; null where this person has read all. */
  readonly step: StudyStep | null;
  /** How many of their readings this person has entered, and of how many. */
  readonly done: number;
  readonly of: number;
  /** What was entered last, to be read again. */
  readonly last: StudyStep | null;
  readonly readAgain: (step: StudyStep) => void;
  /** Enters what was read now. @returns why it was not taken; null where it was */
  readonly enter: (text: string) => Promise<string | null>;
  /** Study result once it is whole; null before. */
  readonly result: StudyResult | null;
}

/** A gauge study as one person enters it, blind; and what it says once all have. */
export function useStudy(id: string, study: string): StudyWork {
  const by = useBy();
  const [search, setSearch] = useSearchParams();
  // Who is signed in reads in their own name; others of the study are chosen.
  const account = useAppSelector(({ access }) => access.session?.person?.name ?? '');
  const asked = search.get('person') ?? account;
  const { currentData: view = null, error } = api.useGetStudyQuery(
    { id, study, person: asked },
    { refetchOnMountOrArgChange: true, pollingInterval: 5000 },
  );
  const [again, setAgain] = useState<StudyStep | null>(null);
  const person = view?.plan.people.find((one) => one === asked && view.readsAs.includes(one)) ?? null;
  const isWhole = view !== null && view.read === studySize(view.plan);
  const order = useMemo(() => (view && person !== null ? studyOrder(view.id, view.plan, person) : []), [view, person]);
  const own = view && person !== null ? view.entries.filter((entry) => entry.person === person) : [];
  const isRead = (step: StudyStep) => own.some(({ part, trial }) => part === step.part && trial === step.trial);
  const step = isWhole ? null : (again ?? order.find((one) => !isRead(one)) ?? null);
  const result = useMemo(() => {
    if (!view || !isWhole) return null;
    const read = studyOf(
      view.entries.map(({ part, person: who, trial, nm }) => ({ part, person: who, trial: String(trial), value: nm })),
    );
    return read.ok ? gaugeStudy(read.study) : null;
  }, [view, isWhole]);
  return {
    view,
    fault: error ? refusalInWords(error) : null,
    person,
    setPerson: (name) => setSearch({ person: name }, { replace: true }),
    step,
    done: own.length,
    of: order.length,
    last: [...order].reverse().find((one) => isRead(one)) ?? null,
    readAgain: setAgain,
    enter: async (text) => {
      if (!view || person === null || step === null) return 'Say first who reads.';
      const parsed = parseLength(text, { unit: view.plan.unit, signed: 'sign' });
      if (!parsed.ok) return parsed.message;
      try {
        const at = new Date().toISOString();
        await tell('enterStudy', { id, study, body: { ...step, person, text: text.trim(), nm: parsed.nm, by, at } });
        setAgain(null);
        return null;
      } catch (refused) {
        return refusalInWords(refused);
      }
    },
    result,
  };
}
