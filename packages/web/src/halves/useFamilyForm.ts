import {
  ANY_GRADE_STEP,
  type Family,
  formatExactLength,
  INSTRUMENT_DECIMALS,
  type JobShell,
  likelyFigures,
  parseLength,
  type Span,
  type Unit,
} from '@fettle/core';
import { useEffect, useRef, useState } from 'react';
import { bothUnits } from '../typing/LengthField.js';
import { useDraft } from '../typing/useDraft.js';
import { BLANK_FAMILY, type FamilyFaults, type FamilyText, familyOfText } from './familyText.js';
import { otherFamily } from './otherFamily.js';

/** Boxes whose figure is asked about where it can hardly be right. */
export type Graded = 'first' | 'step';

interface FamilyFormAsk {
  readonly id: string;
  readonly unit: Unit;
  readonly withRods: boolean;
  readonly isCounted: boolean;
  readonly isFocused?: boolean;
  readonly spanOf: (family: Family) => Span;
  readonly onAdd: (shells: readonly JobShell[]) => void;
}

/** Text, faults and questions of the form of a graded family, kept on the device until its halves are added. */
export function useFamilyForm({ id, unit, withRods, isCounted, isFocused = false, spanOf, onAdd }: FamilyFormAsk) {
  const [draft, setText, clear] = useDraft<FamilyText>(`${id}.family`);
  // What the next family begins with: nothing of it is typed yet.
  const [start, setStart] = useState(BLANK_FAMILY);
  const [isTried, setTried] = useState(false);
  // What can hardly be right is added once it is said to be.
  const [sure, setSure] = useState<Partial<Record<Graded, string>>>({});
  const grid = useRef<HTMLDivElement>(null);
  const text = { ...start, ...draft };
  const { shells, faults } = familyOfText(text, unit, isCounted);
  /** Figures that were likely meant; null where what was typed can be right, or was said to be. */
  const slipOf = (box: Graded) => {
    const parsed = parseLength(text[box], { unit, signed: 'sign' });
    if (!parsed.ok || sure[box] === text[box]) return null;
    const likely = likelyFigures(parsed.nm, unit, box === 'first' ? spanOf(text.family) : ANY_GRADE_STEP);
    return likely?.map(({ nm }) => formatExactLength(nm, unit, INSTRUMENT_DECIMALS[unit])) ?? null;
  };
  const slips = { first: slipOf('first'), step: slipOf('step') };
  const add = () => {
    setTried(true);
    if (shells.length === 0 || slips.first !== null || slips.step !== null) return;
    onAdd(shells);
    clear();
    setTried(false);
    // The other family is most likely of the same series; its first wall is what is typed next.
    if (!withRods) return;
    setStart({ ...BLANK_FAMILY, series: text.series, family: otherFamily(text.family) });
    grid.current?.querySelectorAll<HTMLInputElement>('input:not([type="hidden"])')[1]?.focus();
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when it opens
  useEffect(() => {
    if (isFocused) grid.current?.querySelector<HTMLInputElement>('input')?.focus();
  }, []);
  const shownFaults: FamilyFaults = isTried ? faults : {};
  return {
    grid,
    text,
    set: (part: Partial<FamilyText>) => setText({ ...text, ...part }),
    shells,
    /** Each grade once, with its wall. */
    walls: [...new Map(shells.map((shell) => [shell.grade, shell.wall]))],
    /** Faults of single boxes, from the first try to add on. */
    faults: shownFaults,
    slips,
    confirm: (box: Graded) => setSure((old) => ({ ...old, [box]: text[box] })),
    /** A typed length in both units; a space where it cannot be read. */
    echoOf: (value: string) => {
      const parsed = parseLength(value, { unit, signed: 'sign' });
      return parsed.ok ? bothUnits(parsed.nm, unit) : ' ';
    },
    add,
  };
}

/** Text and actions of the form of a graded family. */
export type FamilyEntry = ReturnType<typeof useFamilyForm>;
