import { momentText, partName, rodCount, SWAP_PARTS, type Swap, swapText } from '@fettle/core';
import { useState } from 'react';
import { useDraft } from '../typing/useDraft.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Fold } from '../ui/Fold.js';
import { Quiet, Row } from '../ui/Panel.js';
import type { AssemblyWork } from './useAssembly.js';

const PARTS = Object.entries(SWAP_PARTS).map(([value, label]) => ({ value: value as Swap['part'], label }));

/** Where parts of a kind may be: caps at mains and rods, halves at mains and pins, rods at pins. */
function placesFor(part: Swap['part'], { document }: AssemblyWork): string[] {
  const { layout, withRods } = document;
  const numbers = (count: number) => Array.from({ length: count }, (_, at) => at + 1);
  const mains = numbers(layout.mains).map((number) => partName('mainBore', number));
  const rods = withRods ? numbers(rodCount(layout)) : [];
  if (part === 'rod') return rods.map((number) => partName('pin', number));
  return [...mains, ...rods.map((number) => partName(part === 'cap' ? 'bigEnd' : 'pin', number))];
}

/** What is being said of a swap. */
type SwapDraft = Pick<Swap, 'part' | 'one' | 'other' | 'reason'>;
const BLANK: SwapDraft = { part: 'cap', one: '', other: '', reason: '' };

/** Parts that changed places: recorded with the reason, and what rested on them is asked for again. */
export function SwapPanel({ work }: { work: AssemblyWork }) {
  const { job, document, swap } = work;
  const [draft, setDraft, clearDraft] = useDraft<SwapDraft>(`swap.${job.id}`);
  const { part, one, other, reason } = draft ?? BLANK;
  const set = (typed: Partial<SwapDraft>) => setDraft((now) => ({ ...(now ?? BLANK), ...typed }));
  // What was typed before a reload is in sight.
  const [wasTyped] = useState(draft !== null);
  const places = placesFor(part, work);
  const options = [{ value: '', label: 'choose' }, ...places.map((value) => ({ value, label: value }))];
  const isReady = places.includes(one) && places.includes(other) && one !== other && reason.trim() !== '';
  const swaps = Object.entries(document.assembly.swaps).sort(([, first], [, next]) => (first.at < next.at ? 1 : -1));
  return (
    <Fold open={wasTyped}>
      <summary>Swapped parts{swaps.length > 0 && `: ${swaps.length}`}</summary>
      <Quiet>
        Caps, rods and shells keep their stations. After a swap, the readings and checks of both must be repeated.
      </Quiet>
      {swaps.map(([id, done]) => (
        <p key={id}>
          {swapText(done)}: {done.reason} ({done.by}, {momentText(done.at)})
        </p>
      ))}
      <Row style={{ alignItems: 'end' }}>
        <Choice label="Part" value={part} options={PARTS} onChange={(next) => set({ part: next })} />
        <Choice
          label="From"
          value={places.includes(one) ? one : ''}
          options={options}
          onChange={(next) => set({ one: next })}
        />
        <Choice
          label="To"
          value={places.includes(other) ? other : ''}
          options={options}
          onChange={(next) => set({ other: next })}
        />
      </Row>
      <Row style={{ alignItems: 'end' }}>
        <Field
          label="Reason"
          value={reason}
          maxLength={500}
          onChange={(next) => set({ reason: next })}
          style={{ flex: '1 1 12rem' }}
        />
        <Button
          isDisabled={!isReady}
          onPress={() => {
            swap({ part, one, other, reason: reason.trim() });
            clearDraft();
          }}
        >
          Record swap
        </Button>
      </Row>
    </Fold>
  );
}
