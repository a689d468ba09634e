import { type DrawerLine, halfLabel, isSameLine } from '@fettle/core';
import { ArrowDownToLine, ArrowUpFromLine, RotateCcw } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../look/Button.js';
import { Choice } from '../look/Choice.js';
import { Field } from '../look/Field.js';
import { Row } from '../look/Panel.js';
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

/** Halves of one kind, or sets with their other half, come and go. */
export function HalfMoves({ line, lines, by, act, onTold }: HalfMovesProps) {
  const { half } = line;
  const [count, setCount] = useState('1');
  const [asSet, setAsSet] = useState<'half' | 'set'>('half');
  const [note, setNote] = useState('');
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
      onTold(`Only ${short.half.onHand} of ${halfLabel(short.half)} are there.`);
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
    ).then((worked) => worked && setNote(''));
  };
  return (
    <>
      <Pairs>
        <Field
          label="Halves or sets"
          figure
          inputMode="numeric"
          value={count}
          onChange={setCount}
          fault={wanted > 0 ? null : 'A whole number from 1.'}
        />
        {mate ? (
          <Choice
            label="They come and go as"
            value={asSet}
            options={[
              { value: 'half', label: `single ${half.half} halves` },
              { value: 'set', label: 'sets, with the other half' },
            ]}
            onChange={setAsSet}
          />
        ) : (
          <span />
        )}
        <Field className="whole" label="Note, as supplier or engine" value={note} maxLength={300} onChange={setNote} />
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
