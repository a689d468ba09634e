import {
  INSTRUMENT_STATE_WORDS,
  type InstrumentUse,
  instrumentInUse,
  instrumentName,
  instrumentWords,
  knownInstrument,
  readsRole,
  roleOfUse,
} from '@fettle/core';
import { useState } from 'react';
import type { OpenJob } from '../job/useJob.js';
import { Choice } from '../ui/Choice.js';
import { Notice } from '../ui/Notice.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { standingOf, standingWords } from './instrumentWords.js';
import { useTakeOver } from './useTakeOver.js';

const OWN = 'own';

interface InstrumentPickerProps {
  readonly job: Pick<OpenJob, 'id' | 'document'>;
  readonly use: InstrumentUse;
  readonly label: string;
}

/** What something is read with from now on: an instrument of the workshop, or the engine's own. */
export function InstrumentPicker({ job, use, label }: InstrumentPickerProps) {
  const { document } = job;
  const { choose } = useTakeOver(job);
  const { data } = api.useListInstrumentsQuery({});
  const [fault, setFault] = useState<string | null>(null);
  const role = roleOfUse(use);
  const key = instrumentInUse(document, use);
  const offered = (data?.instruments ?? []).filter(
    ({ id, instrument }) => (instrument.state === 'inUse' && readsRole(instrument, role)) || id === key,
  );
  const isOffered = offered.some(({ id }) => id === key);
  const known = knownInstrument(document, key);
  const own = document.instruments[role].name;
  const options = [
    { value: OWN, label: `the engine’s own${own === '' ? '' : `: ${own}`}, not in the register` },
    ...(known && !isOffered ? [{ value: key, label: instrumentWords(document, key) }] : []),
    ...offered.map((one) => {
      const { instrument } = one;
      const isTold = ['overdue', 'wrong'].includes(standingOf(one)) || instrument.state !== 'inUse';
      const told = instrument.state === 'inUse' ? standingWords(one) : INSTRUMENT_STATE_WORDS[instrument.state];
      return { value: one.id, label: `${instrumentName(instrument)}${isTold ? `, ${told}` : ''}` };
    }),
  ];
  return (
    <div>
      <Choice
        label={label}
        value={known ? key : OWN}
        options={options}
        onChange={(value) => {
          setFault(null);
          choose(use, value === OWN ? null : value).catch((error: unknown) => setFault(refusalInWords(error)));
        }}
      />
      {fault && <Notice urgent>{fault}</Notice>}
    </div>
  );
}
