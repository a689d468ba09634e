import { type DrawerLine, isSameLine, shellLabel } from '@fettle/core';
import { ArrowDownToLine, ArrowUpFromLine, RotateCcw } from 'lucide-react';
import { useDraft } from '../typing/useDraft.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Row } from '../ui/Panel.js';
import { moveDrawer } from './moveDrawer.js';
import { Pairs } from './Pairs.js';
import type { Drawer } from './useDrawer.js';

type MoveKind = 'receive' | 'use' | 'return';

interface HalfMovesProps {
  readonly line: DrawerLine;
  readonly lines: readonly DrawerLine[];
  readonly by: string;
  readonly act: Drawer['act'];
  readonly onTold: (text: string | null) => void;
}

/** How many come or go, as typed. */
interface Moving {
  readonly count: string;
  readonly asSet: 'half' | 'set';
  readonly note: string;
}
const BLANK: Moving = { count: '1', asSet: 'half', note: '' };

/** Halves of one kind, or sets with their other half, come and go. */
export function HalfMoves({ line, lines, by, act, onTold }: HalfMovesProps) {
  const { half } = line;
  const [draft, setDraft] = useDraft<Moving>(`moves.${line.id}`);
  const { count, asSet, note } = draft ?? BLANK;
  const set = (part: Partial<Moving>) => setDraft((now) => ({ ...(now ?? BLANK), ...part }));
  const wanted = /^\d{1,4}$/u.test(count.trim()) ? Number(count) : 0;
  const otherSide = half.half === 'upper' ? 'lower' : 'upper';
  const mate =
    half.half === 'either' || half.number !== undefined
      ? undefined
      : lines.find((one) => isSameLine(one.half, { ...half, half: otherSide }));
  const move = (kind: MoveKind) => {
    const by_ = kind === 'use' ? -wanted : wanted;
    const moved = asSet === 'set' && mate ? [line, mate] : [line];
    const short = moved.find((one) => one.half.onHand + by_ < 0);
    if (short) {
      onTold(`Only ${short.half.onHand} of ${shellLabel(short.half)} are there.`);
      return;
    }
    onTold(null);
    void act(() =>
      moveDrawer({
        by,
        kind,
        note: note.trim(),
        changes: moved.map((one) => ({
          id: one.id,
          version: one.version,
          half: { ...one.half, onHand: one.half.onHand + by_ },
        })),
      }),
    ).then((worked) => worked && set({ note: '' }));
  };
  return (
    <>
      <Pairs>
        <Field
          label="Shells or pairs"
          figure
          inputMode="numeric"
          value={count}
          onChange={(typed) => set({ count: typed })}
          fault={wanted > 0 ? null : 'Enter 1 or more.'}
        />
        {mate ? (
          <Choice
            label="Move as"
            value={asSet}
            options={[
              { value: 'half', label: `single ${half.half} shells` },
              { value: 'set', label: 'pairs, with the other shell' },
            ]}
            onChange={(chosen) => set({ asSet: chosen })}
          />
        ) : (
          <span />
        )}
        <Field
          className="whole"
          label="Note, such as supplier or engine"
          value={note}
          maxLength={300}
          onChange={(typed) => set({ note: typed })}
        />
      </Pairs>
      <Row style={{ margin: '0.4rem 0' }}>
        <Button isDisabled={wanted === 0} onPress={() => move('receive')}>
          <ArrowDownToLine aria-hidden size={18} />
          Receive
        </Button>
        <Button isDisabled={wanted === 0} onPress={() => move('use')}>
          <ArrowUpFromLine aria-hidden size={18} />
          Use
        </Button>
        <Button isDisabled={wanted === 0} onPress={() => move('return')}>
          <RotateCcw aria-hidden size={18} />
          Return
        </Button>
      </Row>
    </>
  );
}
