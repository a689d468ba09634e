import {
  type DrawerHalf,
  type DrawerLine,
  drawerHalfSchema,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  isSameLine,
  lengthText,
  nanometres,
  parseLength,
  type Unit,
  wallFinding,
  wallOverBall,
} from '@fettle/core';
import { useState } from 'react';
import { localNote, setLocalNote } from '../base/localNotes.js';
import { newId } from '../base/newId.js';
import { useDraft } from '../typing/useDraft.js';
import { moveDrawer } from './moveDrawer.js';
import type { Drawer } from './useDrawer.js';

/** A reading may be off by this much before a wall is called wrong; common practice for a ball micrometer, shown where it is used. */
export const BALL_UNCERTAINTY = nanometres(2000);

const BALL_KEY = 'fettle.ball';

/** The ball of this bench's micrometer: it stays in the spindle from half to half. */
function useKeptBall(): [string, (text: string) => void] {
  const [ball, show] = useState(() => localNote(BALL_KEY) ?? '');
  return [
    ball,
    (text) => {
      show(text);
      setLocalNote(BALL_KEY, text);
    },
  ];
}

/** What is being typed of one half. */
interface Typed {
  readonly number: string;
  readonly over: string;
}
const BLANK: Typed = { number: '', over: '' };

export interface NumberingProps {
  readonly line: DrawerLine;
  readonly lines: readonly DrawerLine[];
  readonly unit: Unit;
  readonly by: string;
  readonly act: Drawer['act'];
  readonly onTold: (text: string | null) => void;
}

export interface Numbering {
  readonly ball: string;
  readonly setBall: (text: string) => void;
  readonly over: string;
  readonly setOver: (text: string) => void;
  readonly number: string;
  readonly setNumber: (text: string) => void;
  readonly read: Readonly<Record<'ball' | 'over', ReturnType<typeof parseLength>>>;
  /** The wall that the two readings give; null while they do not. */
  readonly wall: DrawerHalf['wall'] | null;
  /** What is wrong with that wall for its grade; null when nothing is. */
  readonly findingText: string | null;
  readonly numberIt: () => void;
}

/** Measuring one half over a ball and giving it a number of its own, so that it is chosen with its own wall. */
export function useNumbering({ line, lines, unit, by, act, onTold }: NumberingProps): Numbering {
  const { id, version, half } = line;
  const [typed, setTyped, clearTyped] = useDraft<Typed>(`numbering.${line.id}`);
  const { number, over } = typed ?? BLANK;
  const set = (part: Partial<Typed>) => setTyped((now) => ({ ...(now ?? BLANK), ...part }));
  const [ball, setBall] = useKeptBall();
  const read = {
    ball: parseLength(ball, { unit, signed: 'sign' }),
    over: parseLength(over, { unit, signed: 'sign' }),
  };
  const wall = read.ball.ok && read.over.ok ? wallOverBall(read.over.nm, read.ball.nm) : null;
  const finding = wall === null ? null : wallFinding(half, wall, BALL_UNCERTAINTY);
  const findingText =
    finding && `Wall ${lengthText(finding.by, unit)} too ${finding.side} for ${half.grade}: wrong box or wrong shell`;
  const numberIt = () => {
    if (wall === null || number.trim() === '') return;
    const { band: _, ...plain } = half;
    const single = drawerHalfSchema.parse({
      ...plain,
      number: number.trim(),
      wall,
      onHand: 1,
      least: 0,
      findings: findingText ?? '',
    });
    if (lines.some((one) => isSameLine(one.half, single))) {
      onTold(`Shell no. ${number.trim()} of this kind already exists.`);
      return;
    }
    void act(() =>
      moveDrawer({
        by,
        kind: 'number',
        note: `${formatExactLength(wall, unit, INSTRUMENT_DECIMALS[unit])} ${unit} over the ball`,
        changes: [
          { id, version, half: { ...half, onHand: half.onHand - 1 } },
          { id: newId(), version: 0, half: single },
        ],
      }),
    ).then((worked) => {
      if (!worked) return;
      onTold(`No. ${number.trim()} now has its own wall: ${lengthText(wall, unit)}.`);
      clearTyped(typed ?? BLANK);
    });
  };
  return {
    ball,
    setBall,
    over,
    setOver: (text) => set({ over: text }),
    number,
    setNumber: (text) => set({ number: text }),
    read,
    wall,
    findingText: findingText || null,
    numberIt,
  };
}
